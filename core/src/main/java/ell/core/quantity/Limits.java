package ell.core.quantity;

/// A low and a high limit in one unit; either may be infinite, meaning that there is none.
///
/// @param low the least value that is allowed, or negative infinity
/// @param high the greatest value that is allowed, or positive infinity
public record Limits(double low, double high) {
  public Limits {
    if (Double.isNaN(low) || Double.isNaN(high) || low > high) {
      throw new IllegalArgumentException(
          "limits must be low...high with low <= high, got " + low + "..." + high);
    }
  }

  /// Limits with only a lower end.
  public static Limits atLeast(double low) {
    return new Limits(low, Double.POSITIVE_INFINITY);
  }

  /// Limits with only an upper end.
  public static Limits atMost(double high) {
    return new Limits(Double.NEGATIVE_INFINITY, high);
  }

  /// Judges a reading against these limits with guard bands as wide as its expanded uncertainty:
  /// guarded acceptance and guarded rejection, guard band w = U. Source: JCGM 106:2012, 8.3.2 and
  /// 8.3.3.
  ///
  /// @param reading in the unit of the limits
  /// @param uncertainty expanded uncertainty U in the same unit, not below 0
  /// @throws IllegalArgumentException when reading is no finite number or uncertainty is below 0
  public Verdict judge(double reading, double uncertainty) {
    Check.finite(reading, "reading");
    Check.notNegative(uncertainty, "uncertainty");
    if (reading + uncertainty < low || reading - uncertainty > high) {
      return Verdict.OUT;
    }
    return reading - uncertainty >= low && reading + uncertainty <= high
        ? Verdict.WITHIN
        : Verdict.CLOSE;
  }

  /// How well a reading would have to be known for a clear verdict: its distance to the nearer
  /// limit. A meter whose uncertainty is below this settles what is too close to call.
  ///
  /// @throws IllegalArgumentException when reading is no finite number
  public double settling(double reading) {
    Check.finite(reading, "reading");
    return Math.min(Math.abs(reading - low), Math.abs(high - reading));
  }

  /// The limits as `3.24...3.36 V`, one-sided ones as `above 3.24 V`, with the value's prefix.
  public String text(Unit unit, int digits) {
    if (Double.isInfinite(low)) {
      return Double.isInfinite(high)
          ? "any"
          : "below " + EngineeringNumber.print(high, unit, digits);
    }
    if (Double.isInfinite(high)) {
      return "above " + EngineeringNumber.print(low, unit, digits);
    }
    String a = EngineeringNumber.print(low, unit, digits);
    String b = EngineeringNumber.print(high, unit, digits);
    String suffix = b.contains(" ") ? b.substring(b.lastIndexOf(' ')) : "";
    return (a.endsWith(suffix) ? a.substring(0, a.length() - suffix.length()) : a) + "..." + b;
  }
}
