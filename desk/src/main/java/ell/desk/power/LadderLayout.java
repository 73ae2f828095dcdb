package ell.desk.power;

import ell.core.power.Ladder;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.Ladder.Step;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Places the rails of a ladder on a volt scale: each in a column of its own, its line running on
/// over the columns of what it feeds, so that what hangs on it can drop straight down.
final class LadderLayout {
  private static final double APART = 46;

  private LadderLayout() {}

  /// A rail as a line.
  ///
  /// @param x0 where its column begins
  /// @param column width of the column
  /// @param x1 where its line ends
  /// @param fed the step that feeds it
  record Line(RailSpec rail, double x0, double column, double x1, double y, Optional<Step> fed) {}

  /// Places every rail that a source feeds, the tree of one source beside that of the next.
  ///
  /// @param w width in pixels
  /// @param top y of the highest voltage
  /// @param bottom y of zero volts
  static Map<String, Line> of(Ladder ladder, double left, double w, double top, double bottom) {
    List<RailSpec> order = new ArrayList<>();
    Map<String, Step> feeding = new HashMap<>();
    if (ladder.sources().isEmpty()) {
      return Map.of();
    }
    Map<String, Integer> last = new HashMap<>();
    for (Ladder.Source s : drawn(ladder)) {
      if (order.stream().noneMatch(r -> r.net().equals(s.rail()))) {
        walk(ladder, s.rail(), order, feeding, last);
      }
    }
    double most = order.stream().mapToDouble(RailSpec::volts).max().orElse(1);
    double column = w / Math.max(1, order.size());
    Map<String, Line> lines = new LinkedHashMap<>();
    for (int i = 0; i < order.size(); i++) {
      RailSpec r = order.get(i);
      Step fed = feeding.get(r.net());
      double y = bottom - r.volts() / most * (bottom - top);
      if (fed != null) {
        Line above = lines.get(fed.from());
        // where a line runs on above this column, what hangs here must clear it
        boolean runsOn = last.get(fed.from()) > i;
        boolean drops = fed.regulates() || fed.kind() == Ladder.Kind.DIODE;
        if (runsOn && y - above.y() < APART) {
          y = above.y() + APART;
        } else if (!drops && Math.abs(y - above.y()) < 4) {
          y = above.y();
        }
      }
      y = Math.min(y, bottom - 4);
      double x0 = left + i * column;
      int end = last.getOrDefault(r.net(), i);
      // up to the arrow of the last part that hangs on it, or short of the next column
      double x1 = end > i ? left + end * column + 4 : x0 + column - 16;
      lines.put(r.net(), new Line(r, x0, column, x1, y, Optional.ofNullable(fed)));
    }
    return lines;
  }

  /// The sources whose trees there is room for: all of them, or the first, which first power
  /// raises.
  static List<Ladder.Source> drawn(Ladder ladder) {
    return ladder.supplied().size() <= MOST_COLUMNS
        ? ladder.sources()
        : ladder.sources().subList(0, 1);
  }

  private static final int MOST_COLUMNS = 6;

  /// Depth first, so that a subtree's columns lie side by side; notes the last child's column.
  private static void walk(
      Ladder ladder,
      String net,
      List<RailSpec> order,
      Map<String, Step> feeding,
      Map<String, Integer> last) {
    order.add(ladder.rail(net).orElseThrow());
    for (Step s : ladder.steps()) {
      if (s.from().equals(net) && order.stream().noneMatch(r -> r.net().equals(s.to()))) {
        feeding.put(s.to(), s);
        last.put(net, order.size());
        walk(ladder, s.to(), order, feeding, last);
      }
    }
  }
}
