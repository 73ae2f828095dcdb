package ell.core.pulse;

import ell.core.quantity.Check;

/// A crystal between two capacitors: what they load it with, how far that pulls it, and whether an
/// amplifier starts it. Source: any text on the Pierce oscillator; the least margin is common
/// practice, no source.
public final class Crystal {
  /// An amplifier is wanted to be so many times as strong as it must be.
  public static final double MARGIN = 5;

  private Crystal() {}

  /// What two equal capacitors and the stray capacitance load it with, F.
  ///
  /// @throws IllegalArgumentException when a capacitor is not above 0 or the stray is below 0
  public static double load(double each, double stray) {
    return Check.positive(each, "capacitor") / 2 + Check.notNegative(stray, "stray");
  }

  /// Two equal capacitors that load it with so much, F.
  ///
  /// @throws IllegalArgumentException when the stray capacitance alone is more
  public static double capacitor(double load, double stray) {
    if (!(load > stray)) {
      throw new IllegalArgumentException(
          "the stray capacitance alone is " + stray + " F of the " + load + " F wanted");
    }
    return 2 * (load - stray);
  }

  /// By how much of its frequency a load pulls it from where it would be with the wanted one.
  ///
  /// @param motional its motional capacitance, F
  /// @param shunt its own capacitance, F
  public static double pull(double motional, double shunt, double actual, double wanted) {
    return motional / 2 * (1 / (shunt + actual) - 1 / (shunt + wanted));
  }

  /// The transconductance at which it just goes on, S.
  ///
  /// @param esr its resistance, Ω
  /// @throws IllegalArgumentException when a value is out of its range
  public static double criticalGain(double frequency, double esr, double shunt, double load) {
    double w = 2 * Math.PI * Check.positive(frequency, "frequency");
    double c = Check.notNegative(shunt, "shunt") + Check.positive(load, "load");
    return 4 * Check.positive(esr, "esr") * w * w * c * c;
  }
}
