package ell.core.power;

import ell.core.entry.Entry;
import ell.core.power.Ladder.RailSpec;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
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
  /// So many spreads from the others a board stands apart. Source: Iglewicz and Hoaglin, modified
  /// z-score above 3.5, 0.6745 of it, from memory.
  private static final double APART = 3.5 / 0.6745;

  /// Fewer boards have no middle to stand apart from.
  private static final int FEWEST = 4;

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
    double median = median(volts);
    double spread = median(Arrays.stream(volts).map(v -> Math.abs(v - median)).toArray());
    List<Read> marked =
        read.stream()
            .map(x ->
                new Read(
                    x.board(),
                    x.volts(),
                    x.uncertainty(),
                    x.verdict(),
                    volts.length >= FEWEST && apart(x, median, spread)))
            .toList();
    return new RailSpread(rail, marked, facts.size(), median, spread);
  }

  /// Further away than the spread explains, and than the meter does.
  private static boolean apart(Read x, double median, double spread) {
    double d = Math.abs(x.volts() - median);
    return d > APART * spread && d > x.uncertainty();
  }

  private static double median(double[] of) {
    if (of.length == 0) {
      return Double.NaN;
    }
    double[] sorted = of.clone();
    Arrays.sort(sorted);
    int n = sorted.length;
    return n % 2 == 1 ? sorted[n / 2] : (sorted[n / 2 - 1] + sorted[n / 2]) / 2;
  }

  /// The boards that are out, or stand apart.
  public List<Read> odd() {
    return boards.stream()
        .filter(b -> b.apart() || b.verdict().filter(v -> v == Verdict.OUT).isPresent())
        .toList();
  }
}
