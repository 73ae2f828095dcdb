package ell.core.circuit;

import ell.core.quantity.Check;

/// How a junction conducts: I = saturation (exp(V / (ideality Vt)) - 1), behind a resistance.
///
/// @param saturation current, A, above 0
/// @param ideality 1...4
/// @param ohms in series, above 0
/// @param breakdown volts the other way from which it conducts too; infinite for never
public record Diode(double saturation, double ideality, double ohms, double breakdown) {
  /// @throws IllegalArgumentException when a value is out of its range
  public Diode {
    Check.positive(saturation, "saturation");
    Check.inRange(ideality, 1, 10, "ideality");
    Check.positive(ohms, "ohms");
    if (!(breakdown > 0)) {
      throw new IllegalArgumentException("breakdown is above 0 V, got " + breakdown);
    }
  }

  /// A junction that is known by one point of its curve.
  ///
  /// @param volts at `amps`, without what its resistance drops
  public static Diode through(double volts, double amps, double ideality, double ohms) {
    double saturation = amps / Math.expm1(volts / (ideality * Element.THERMAL_VOLT));
    return new Diode(saturation, ideality, ohms, Double.POSITIVE_INFINITY);
  }

  /// Silicon; typical, no source.
  public static final Diode SILICON = through(0.65, 0.01, 1.8, 0.1);

  /// A metal on silicon; typical, no source.
  public static final Diode SCHOTTKY = through(0.35, 0.1, 1.1, 0.1);

  /// A lamp.
  ///
  /// @param volts at 10 mA
  public static Diode lamp(double volts) {
    return through(volts - 0.05, 0.01, 2, 5);
  }

  /// The same with a breakdown.
  public Diode breaking(double volts) {
    return new Diode(saturation, ideality, ohms, volts);
  }
}
