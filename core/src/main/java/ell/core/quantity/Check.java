package ell.core.quantity;

/// Refuses nonsense at the door: each method throws an [IllegalArgumentException] that names the
/// quantity, the value and the range.
public final class Check {
  private Check() {}

  /// Returns `value` when it is neither infinite nor not-a-number.
  public static double finite(double value, String name) {
    if (!Double.isFinite(value)) {
      throw new IllegalArgumentException(name + " must be a finite number, got " + value);
    }
    return value;
  }

  /// Returns `value` when it is finite and above zero.
  public static double positive(double value, String name) {
    if (!(finite(value, name) > 0)) {
      throw new IllegalArgumentException(name + " must be above 0, got " + value);
    }
    return value;
  }

  /// Returns `value` when it is finite and not below zero.
  public static double notNegative(double value, String name) {
    if (!(finite(value, name) >= 0)) {
      throw new IllegalArgumentException(name + " must not be below 0, got " + value);
    }
    return value;
  }

  /// Returns `value` when it is finite and in `low...high`, ends included.
  public static double inRange(double value, double low, double high, String name) {
    if (!(finite(value, name) >= low && value <= high)) {
      throw new IllegalArgumentException(
          name + " must be in " + low + "..." + high + ", got " + value);
    }
    return value;
  }
}
