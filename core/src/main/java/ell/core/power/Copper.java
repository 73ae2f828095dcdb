package ell.core.power;

import ell.core.quantity.Check;

/// Copper that carries current: traces and wires.
public final class Copper {
  /// Resistivity of annealed copper at 20 °C, in ohm metre. Source: International Annealed Copper
  /// Standard (IEC 60028), 1/58 Ω·mm²/m.
  public static final double RESISTIVITY = 1.7241e-8;

  private static final double MIL = 25.4e-6;

  private Copper() {}

  /// Cross-section, in m², that carries a current at a temperature rise: I = k ΔT^0.44 A^0.725 with
  /// A in square mil, k 0.048 outside and 0.024 inside. Source: IPC-2221, 6.2, curve fit.
  ///
  /// @param current A, above 0
  /// @param rise K, above 0
  /// @param outside true for a trace on the surface
  /// @throws IllegalArgumentException when current or rise is not above 0
  public static double traceArea(double current, double rise, boolean outside) {
    double k = outside ? 0.048 : 0.024;
    double squareMil =
        Math.pow(
            Check.positive(current, "current") / (k * Math.pow(Check.positive(rise, "rise"), 0.44)),
            1 / 0.725);
    return squareMil * MIL * MIL;
  }

  /// Diameter of a solid round wire, in metre: 0.127 mm · 92^((36 - n)/39). Source: ASTM B258.
  ///
  /// @param gauge AWG number; 0 is 1/0, -1 is 2/0, down to -3 for 4/0
  /// @throws IllegalArgumentException when the gauge is not in -3...56
  public static double awgDiameter(double gauge) {
    return 0.127e-3 * Math.pow(92, (36 - Check.inRange(gauge, -3, 56, "gauge")) / 39);
  }

  /// Area of a round wire, in m².
  ///
  /// @throws IllegalArgumentException when the diameter, in metre, is not above 0
  public static double roundArea(double diameter) {
    return Math.PI * Check.positive(diameter, "diameter") * diameter / 4;
  }

  /// Resistance of a conductor at 20 °C, in ohm.
  ///
  /// @throws IllegalArgumentException when area is below 0
  public static double resistance(double length, double area) {
    return RESISTIVITY * Check.notNegative(length, "length") / Check.positive(area, "area");
  }
}
