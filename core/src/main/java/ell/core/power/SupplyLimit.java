package ell.core.power;

import ell.core.quantity.Check;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.sheet.Worked;

/// The current limit to set on the supply: expected current plus charging current, times a factor,
/// rounded up, never above what the weakest part in the path bears. Common practice, no source.
///
/// @param expected A, what the board draws in its first state
/// @param charging A, what its capacitors draw while the rail rises
/// @param factor margin, 1 or more
/// @param limit A, to set
/// @param capped true when the weakest part decided
public record SupplyLimit(
    double expected, double charging, double factor, double limit, boolean capped) {

  /// Works the limit out.
  ///
  /// @param step A, rounding step, above 0
  /// @param weakest A, what the weakest part in the path bears, or infinity
  /// @throws IllegalArgumentException when expected is below 0, charging is below 0 or factor is
  ///   not in 1...100
  public static SupplyLimit of(
      double expected, double charging, double factor, double step, double weakest) {
    Check.notNegative(expected, "expected");
    Check.notNegative(charging, "charging");
    Check.inRange(factor, 1, 100, "factor");
    double wanted = Supplies.roundUp((expected + charging) * factor, step);
    return new SupplyLimit(expected, charging, factor, Math.min(wanted, weakest), weakest < wanted);
  }

  /// Writes the working.
  void lines(Worked.Builder s) {
    s.line("charging", "C · V / t rise", charging, Unit.AMPERE)
        .line(
            "sum",
            "expected + charging = "
                + EngineeringNumber.print(expected, Unit.AMPERE, 3)
                + " + "
                + EngineeringNumber.print(charging, Unit.AMPERE, 3),
            expected + charging,
            Unit.AMPERE)
        .line(
            "limit",
            capped
                ? "the weakest part in the path bears less than the sum times the factor"
                : "sum × " + EngineeringNumber.print(factor, Unit.ONE) + ", rounded up",
            limit,
            Unit.AMPERE);
  }
}
