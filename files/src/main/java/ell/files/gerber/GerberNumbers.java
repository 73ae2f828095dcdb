package ell.files.gerber;

import java.util.regex.Pattern;

/// Numbers of a Gerber file, within what a board can be.
final class GerberNumbers {
  /// No coordinate lies further from the origin, in millimetre.
  static final double FARTHEST_MM = 2000;

  /// No aperture is larger, in millimetre.
  static final double LARGEST_MM = 1000;

  private static final Pattern DECIMAL =
      Pattern.compile("[+-]?+(?:\\d++\\.?+\\d*+|\\.\\d++)(?:[eE][+-]?+\\d{1,3}+)?+");

  private GerberNumbers() {}

  /// A decimal number as people write it.
  ///
  /// @throws NumberFormatException when it is anything else
  static double decimal(String text) {
    String t = text.strip();
    if (t.length() > 100 || !DECIMAL.matcher(t).matches()) {
      throw new NumberFormatException("'" + text + "'");
    }
    return Double.parseDouble(t);
  }

  /// A whole number in a range.
  ///
  /// @param what it counts, for the message
  /// @throws IllegalArgumentException when it is broken or out of range
  static int whole(double v, int least, int most, String what) {
    if (!(v >= least && v <= most) || v != Math.rint(v)) {
      throw new IllegalArgumentException(
          "expected %s as a whole number in %d...%d, found %s"
              .formatted(what, least, most, Math.abs(v) < 1e9 && v == Math.rint(v) ? (int) v : v));
    }
    return (int) v;
  }

  /// A coordinate that may belong to a board.
  ///
  /// @throws IllegalArgumentException when it lies farther out than any board
  static double place(double mm) {
    if (!(Math.abs(mm) <= FARTHEST_MM)) {
      throw new IllegalArgumentException(
          "lies %.4g mm from the origin; a board lies within %.0f mm: is the format right?"
              .formatted(Math.abs(mm), FARTHEST_MM));
    }
    return mm;
  }

  /// A measure of an aperture.
  ///
  /// @throws IllegalArgumentException when it is larger than any aperture of a board
  static double measure(double mm) {
    if (!(Math.abs(mm) <= LARGEST_MM)) {
      throw new IllegalArgumentException(
          "an aperture of %.4g mm; those of a board are at most %.0f mm"
              .formatted(Math.abs(mm), LARGEST_MM));
    }
    return mm;
  }
}
