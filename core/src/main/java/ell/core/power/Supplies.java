package ell.core.power;

import ell.core.quantity.Check;

/// Regulators, inrush and batteries: the arithmetic of a power ladder. SI units throughout,
/// temperatures in degree Celsius.
public final class Supplies {
  private Supplies() {}

  /// What a regulator does at one load.
  ///
  /// @param inputCurrent A
  /// @param dissipation W
  public record Regulator(double inputCurrent, double dissipation) {}

  /// A linear regulator: the input current is the load current plus its own.
  ///
  /// @param vin V, not below `vout`
  /// @param vout V
  /// @param current load, A
  /// @param quiescent own current, A
  /// @throws IllegalArgumentException when vout is below 0, vin is out of its range, current is
  ///   below 0 or quiescent is below 0
  public static Regulator linear(double vin, double vout, double current, double quiescent) {
    Check.notNegative(vout, "vout");
    Check.inRange(vin, vout, Double.MAX_VALUE, "vin");
    Check.notNegative(current, "current");
    Check.notNegative(quiescent, "quiescent");
    return new Regulator(current + quiescent, (vin - vout) * current + vin * quiescent);
  }

  /// A switching regulator: input power is output power over efficiency.
  ///
  /// @param efficiency above 0, up to 1
  /// @throws IllegalArgumentException when vin is not above 0, vout is below 0, current is below 0
  ///   or efficiency is out of its range
  public static Regulator switching(double vin, double vout, double current, double efficiency) {
    Check.positive(vin, "vin");
    Check.notNegative(vout, "vout");
    Check.notNegative(current, "current");
    Check.inRange(efficiency, Double.MIN_VALUE, 1, "efficiency");
    double out = vout * current;
    return new Regulator(out / (efficiency * vin), out / efficiency - out);
  }

  /// Junction temperature in steady state, degree Celsius.
  ///
  /// @param ambient degree Celsius
  /// @param theta junction to ambient, K/W
  /// @param dissipation W
  /// @throws IllegalArgumentException when dissipation is no finite number
  public static double junction(double ambient, double theta, double dissipation) {
    return Check.finite(ambient, "ambient")
        + Check.notNegative(theta, "theta") * Check.notNegative(dissipation, "dissipation");
  }

  /// Mean current, in ampere, that charges a capacitance by a voltage in a time: C V / t.
  ///
  /// @throws IllegalArgumentException when riseTime is below 0
  public static double chargingCurrent(double capacitance, double voltage, double riseTime) {
    return Check.notNegative(capacitance, "capacitance")
        * Check.notNegative(voltage, "voltage")
        / Check.positive(riseTime, "riseTime");
  }

  /// Energy held by a charged capacitance, in joule: C V² / 2.
  ///
  /// @throws IllegalArgumentException when the capacitance is below 0, or one of the two is not
  ///   finite
  public static double energy(double capacitance, double voltage) {
    return Check.notNegative(capacitance, "capacitance")
        * voltage
        * Check.finite(voltage, "voltage")
        / 2;
  }

  /// Rounds up to a whole number of steps, forgiving a hair of rounding error.
  ///
  /// @throws IllegalArgumentException when the step is not above 0
  public static double roundUp(double value, double step) {
    return Math.ceil(value / Check.positive(step, "step") - 1e-9) * step;
  }
}
