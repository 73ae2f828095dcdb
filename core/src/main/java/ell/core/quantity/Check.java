package ell.core.quantity;

/// Refuses nonsense at the door: each method throws an [IllegalArgumentException] that names the
/// quantity, the value and the range.
public final class Check {
  private static final int FORMAT = Character.FORMAT;

  private Check() {}

  /// Returns `value` when it is neither infinite nor not-a-number.
  ///
  /// @throws IllegalArgumentException when it is
  public static double finite(double value, String name) {
    if (!Double.isFinite(value)) {
      throw new IllegalArgumentException(name + " must be a finite number, got " + value);
    }
    return value;
  }

  /// Returns `value` when it is finite and above zero.
  ///
  /// @throws IllegalArgumentException when it is not
  public static double positive(double value, String name) {
    if (!(finite(value, name) > 0)) {
      throw new IllegalArgumentException(name + " must be above 0, got " + value);
    }
    return value;
  }

  /// Returns `value` when it is finite and not below zero.
  ///
  /// @throws IllegalArgumentException when it is not
  public static double notNegative(double value, String name) {
    if (!(finite(value, name) >= 0)) {
      throw new IllegalArgumentException(name + " must not be below 0, got " + value);
    }
    return value;
  }

  /// Returns a name that people give: not empty, of bounded length, without control characters.
  ///
  /// @param most characters
  /// @throws IllegalArgumentException naming what it is for
  public static String name(String text, int most, String what) {
    if (text.isBlank() || text.length() > most) {
      throw new IllegalArgumentException(
          what + " has 1 to " + most + " characters, got " + text.length());
    }
    if (text.chars().anyMatch(c -> Character.isISOControl(c) || Character.getType(c) == FORMAT)) {
      throw new IllegalArgumentException(what + " has no control characters");
    }
    return text;
  }

  /// Returns `value` when it is finite and in `low...high`, ends included.
  ///
  /// @throws IllegalArgumentException when it is not
  public static double inRange(double value, double low, double high, String name) {
    if (!(finite(value, name) >= low && value <= high)) {
      throw new IllegalArgumentException(
          name + " must be in " + low + "..." + high + ", got " + value);
    }
    return value;
  }
}
