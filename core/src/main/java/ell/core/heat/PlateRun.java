package ell.core.heat;

import ell.core.entry.Entry;
import java.util.List;
import java.util.Optional;

/// A recorded run of a plate at an even step: what was asked, what plate and board did.
///
/// @param step second
/// @param set degree Celsius; 0 once the board was lifted off and the plate switched off
/// @param plate degree Celsius, empty when it was not measured
/// @param board degree Celsius
/// @param part degree Celsius of a part on the board, empty when none was measured
public record PlateRun(
    double step, List<Double> set, List<Double> plate, List<Double> board, List<Double> part) {
  public PlateRun {
    set = List.copyOf(set);
    plate = List.copyOf(plate);
    board = List.copyOf(board);
    part = List.copyOf(part);
  }

  /// A run without a part.
  public PlateRun(double step, List<Double> set, List<Double> plate, List<Double> board) {
    this(step, set, plate, board, List.of());
  }

  /// From the book.
  ///
  /// @return empty when the entry lacks the set point or a board
  public static Optional<PlateRun> of(Entry.HeatRun run) {
    Optional<Entry.HeatRun.Curve> set = find(run, "set");
    Optional<Entry.HeatRun.Curve> board = find(run, "board");
    if (set.isEmpty() || board.isEmpty() || board.get().celsius().size() < 20) {
      return Optional.empty();
    }
    return Optional.of(
        new PlateRun(
            board.get().step(),
            set.get().celsius(),
            find(run, "plate").map(Entry.HeatRun.Curve::celsius).orElse(List.of()),
            board.get().celsius(),
            run.curves().stream()
                .filter(c -> !List.of("set", "plate", "board").contains(c.role()))
                .findFirst()
                .map(Entry.HeatRun.Curve::celsius)
                .orElse(List.of())));
  }

  private static Optional<Entry.HeatRun.Curve> find(Entry.HeatRun run, String role) {
    return run.curves().stream().filter(c -> c.role().equals(role)).findFirst();
  }

  /// The set point at a time.
  double setAt(double t) {
    return set.get((int) Math.clamp((long) (t / step), 0, set.size() - 1L));
  }

  /// When the board was lifted: the set point went to 0; infinite when it never did.
  double liftAt() {
    boolean was = false;
    for (int i = 0; i < set.size(); i++) {
      was |= set.get(i) > 0;
      if (was && set.get(i) <= 0) {
        return i * step;
      }
    }
    return Double.POSITIVE_INFINITY;
  }
}
