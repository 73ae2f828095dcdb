package ell.core.entry;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import java.util.Optional;

/// What no bench, no person and no clock can mean: a reading outside physics, more parts lost than
/// anybody has. Generous bounds: they catch slips of the hand, not faults of the board.
public final class EntryBounds {
  /// More is not lost at once.
  public static final int MOST_LOST = 9999;

  private static final double ABSOLUTE_ZERO = -273.15;

  private EntryBounds() {}

  /// What is wrong with an entry, a sentence; empty when nothing is.
  public static Optional<String> wrong(Entry e) {
    return switch (e) {
      case Entry.Reading r -> reading(r.place(), r.value(), r.unit());
      case Entry.ProofStep p when p.value().filter(v -> !Double.isInfinite(v)).isPresent() ->
          reading(p.name(), p.value().orElseThrow(), p.unit());
      case Entry.Lost l when l.count() < 1 || l.count() > MOST_LOST ->
          Optional.of("lost " + l.count() + ": say 1 to " + MOST_LOST);
      default -> Optional.empty();
    };
  }

  private static Optional<String> reading(String place, double value, Unit unit) {
    double most = most(unit);
    boolean low = unit == Unit.CELSIUS ? value < ABSOLUTE_ZERO : value < -most;
    return Double.isFinite(value) && !low && value <= most
        ? Optional.empty()
        : Optional.of(
            place + " " + EngineeringNumber.print(value, unit, 3) + ": no bench measures that");
  }

  /// The most that a bench may measure in a unit; typical, no source.
  private static double most(Unit u) {
    return switch (u) {
      case VOLT, AMPERE -> 1e5;
      case OHM -> 1e15;
      case CELSIUS -> 5000;
      case HERTZ -> 1e12;
      case FARAD, HENRY -> 1e4;
      case WATT -> 1e6;
      default -> 1e15;
    };
  }
}
