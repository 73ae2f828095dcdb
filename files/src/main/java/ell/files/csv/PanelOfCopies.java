package ell.files.csv;

import ell.core.board.Placement;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/// A placement that lists every part of a board several times, each time by the same way further: a
/// panel of equal boards.
///
/// @param first the places of the board that is listed first
/// @param count how many boards there are, 2 or more
/// @param dxMm how far the second is from the first
/// @param dyMm the same, along y
record PanelOfCopies(List<Placement> first, int count, double dxMm, double dyMm) {
  private static final double SAME_MM = 0.05;

  /// No panel holds more boards than a build may have.
  private static final int MOST = 1000;

  /// Boards are not smaller.
  private static final double APART_MM = 3;

  PanelOfCopies {
    first = List.copyOf(first);
  }

  /// The panel, empty when a part stands alone, or the copies do not lie alike.
  static Optional<PanelOfCopies> of(List<Placement> places) {
    Map<String, List<Placement>> by = new LinkedHashMap<>();
    places.forEach(p -> by.computeIfAbsent(p.reference(), _ -> new ArrayList<>()).add(p));
    List<Placement> lead = by.isEmpty() ? List.of() : by.values().iterator().next();
    int count = lead.size();
    if (count < 2 || count > MOST || by.size() < 2) {
      return Optional.empty(); // one part that stands twice is a mistake
    }
    List<Placement> first = new ArrayList<>();
    for (List<Placement> own : by.values()) {
      if (own.size() != count) {
        return Optional.empty();
      }
      Placement one = own.getFirst();
      if (Math.hypot(own.get(1).xMm() - one.xMm(), own.get(1).yMm() - one.yMm()) < APART_MM) {
        return Optional.empty();
      }
      for (int k = 1; k < count; k++) {
        double dx = lead.get(k).xMm() - lead.getFirst().xMm();
        double dy = lead.get(k).yMm() - lead.getFirst().yMm();
        if (own.stream().noneMatch(p -> copies(one, p, dx, dy))) {
          return Optional.empty();
        }
      }
      first.add(one);
    }
    return Optional.of(
        new PanelOfCopies(
            first,
            count,
            lead.get(1).xMm() - lead.getFirst().xMm(),
            lead.get(1).yMm() - lead.getFirst().yMm()));
  }

  private static boolean copies(Placement one, Placement other, double dx, double dy) {
    return Math.abs(other.xMm() - one.xMm() - dx) < SAME_MM
        && Math.abs(other.yMm() - one.yMm() - dy) < SAME_MM
        && other.side() == one.side()
        && Math.abs(other.rotationDeg() - one.rotationDeg()) < SAME_MM;
  }

  String words() {
    return String.format(
        Locale.ROOT,
        "a panel of %d equal boards, %.1f mm and %.1f mm apart: the first is taken; make the build"
            + " with --panel %d",
        count,
        dxMm,
        dyMm,
        count);
  }
}
