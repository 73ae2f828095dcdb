package ell.core.pulse;

import ell.core.quantity.Check;

/// Pull-up resistors of a two-wire bus. Source: NXP UM10204, 7.1, from memory.
///
/// @param least the resistor below which an output cannot pull low, Ω
/// @param most the one above which an edge rises too slowly, Ω
public record TwoWireBus(double least, double most) {
  /// From 0.3 to 0.7 of the supply a charge takes so many RC: ln(0.7 / 0.3).
  public static final double RISES = Math.log(7.0 / 3);

  /// Works them.
  ///
  /// @param low the most that a low may be, V
  /// @param sinks what an output sinks at that, A
  /// @param rise the slowest edge, 30 to 70 %, s
  /// @throws IllegalArgumentException when the supply is not above the low level, or a value is not
  ///   above 0
  public static TwoWireBus of(
      double supply, double low, double sinks, double capacitance, double rise) {
    if (!(supply > low)) {
      throw new IllegalArgumentException("the supply is above the low level, " + low + " V");
    }
    return new TwoWireBus(
        (supply - low) / Check.positive(sinks, "sink current"),
        Check.positive(rise, "rise time") / (RISES * Check.positive(capacitance, "capacitance")));
  }

  /// The capacitance that a resistor brings up in time, F.
  ///
  /// @throws IllegalArgumentException when the resistance is not above 0
  public static double bears(double resistance, double rise) {
    return rise / (RISES * Check.positive(resistance, "resistance"));
  }
}
