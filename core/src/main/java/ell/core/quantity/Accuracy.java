package ell.core.quantity;

/// What a meter's data sheet says of one range: ±(percent of reading + digits).
///
/// @param fraction of the reading, 0...1 (0.005 for 0.5 %)
/// @param digits counts of the last digit, not below 0
/// @param resolution value of one count in the unit of the reading, not below 0
public record Accuracy(double fraction, double digits, double resolution) {
  public Accuracy {
    Check.inRange(fraction, 0, 1, "fraction");
    Check.notNegative(digits, "digits");
    Check.notNegative(resolution, "resolution");
  }

  /// A common hand-held meter on direct volts: ±(0.5 % + 2 digits) at 1 mV below 6 V, 10 mV above.
  /// Common practice, no source; the meter's own data sheet decides.
  public static Accuracy handheldVolts(double reading) {
    return new Accuracy(0.005, 2, Math.abs(reading) < 6 ? 0.001 : 0.01);
  }

  /// A common hand-held meter on direct current: ±(1 % + 3 digits), 6000 counts. Common practice,
  /// no source; the meter's own data sheet decides.
  public static Accuracy handheldAmps(double reading) {
    double range = 6e-4;
    while (range < Math.abs(reading) && range < 10) {
      range *= 10;
    }
    return new Accuracy(0.01, 3, range / 6000);
  }

  /// The display of a bench supply on the current that it gives: ±(0.5 % + 2 digits of 0.1 mA).
  /// Typical, no source; the supply's own data sheet decides.
  public static Accuracy supplyAmps() {
    return new Accuracy(0.005, 2, 1e-4);
  }

  /// A common hand-held meter on ohms: ±(0.8 % + 3 digits), 6000 counts. Common practice, no
  /// source; the meter's own data sheet decides.
  public static Accuracy handheldOhms(double reading) {
    double range = 600;
    while (range < Math.abs(reading) && range < 6e7) {
      range *= 10;
    }
    return new Accuracy(0.008, 3, range / 6000);
  }

  /// The largest error that the data sheet allows at `reading`, taken as the expanded uncertainty.
  ///
  /// @throws IllegalArgumentException when the reading is not finite
  public double uncertainty(double reading) {
    return fraction * Math.abs(Check.finite(reading, "reading")) + digits * resolution;
  }

  /// As data sheets write it: `±(0.5 % + 2 digits)`.
  @Override
  public String toString() {
    return "±("
        + EngineeringNumber.print(fraction * 100, Unit.ONE, 3).replaceAll("\\.?0+$", "")
        + " % + "
        + EngineeringNumber.print(digits, Unit.ONE, 3).replaceAll("\\.?0+$", "")
        + " digits)";
  }
}
