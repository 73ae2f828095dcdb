package ell.core.power;

import ell.core.entry.Entry;
import ell.core.power.Ladder.RailSpec;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.statistic.Apart;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// One rail over all boards of a build: where each lies, and which one stands apart from the others
/// though it may be within its limits.
///
/// @param rail the rail
/// @param boards those that were read, in the order of the build
/// @param of how many boards there are
/// @param median volts in the middle of those read; NaN when none was
/// @param spread median distance from the median, V; NaN when none was read
public record RailSpread(RailSpec rail, List<Read> boards, int of, double median, double spread) {
  /// A board.
  ///
  /// @param volts read
  /// @param uncertainty of it, V
  /// @param verdict on the limits, empty where there are none to hold it against
  /// @param apart whether it stands apart from the others
  public record Read(
      String board, double volts, double uncertainty, Optional<Verdict> verdict, boolean apart) {}

  public RailSpread {
    boards = List.copyOf(boards);
  }

  /// Every rail of a ladder that was read on any board.
  ///
  /// @param facts by serial, in the order of the build
  public static List<RailSpread> of(Ladder ladder, Map<String, PowerFacts> facts) {
    List<RailSpread> all = new ArrayList<>();
    for (RailSpec r : ladder.supplied()) {
      all.add(of(r, facts));
    }
    return all;
  }

  private static RailSpread of(RailSpec rail, Map<String, PowerFacts> facts) {
    List<Read> read = new ArrayList<>();
    facts.forEach((board, f) -> {
      Optional<Entry.Reading> x = f.reading(rail).filter(e -> e.unit() == Unit.VOLT);
      x.ifPresent(e ->
          read.add(
              new Read(board, e.value(), e.uncertainty().orElse(0.0), f.verdict(rail), false)));
    });
    double[] volts = read.stream().mapToDouble(Read::volts).toArray();
    double median = Apart.median(volts);
    double spread = Apart.median(Arrays.stream(volts).map(v -> Math.abs(v - median)).toArray());
    boolean[] apart = Apart.of(volts, read.stream().mapToDouble(Read::uncertainty).toArray());
    List<Read> marked = new ArrayList<>();
    for (int i = 0; i < read.size(); i++) {
      Read x = read.get(i);
      marked.add(new Read(x.board(), x.volts(), x.uncertainty(), x.verdict(), apart[i]));
    }
    return new RailSpread(rail, marked, facts.size(), median, spread);
  }

  /// The boards that are out, or stand apart.
  public List<Read> odd() {
    return boards.stream()
        .filter(b -> b.apart() || b.verdict().filter(v -> v == Verdict.OUT).isPresent())
        .toList();
  }
}
