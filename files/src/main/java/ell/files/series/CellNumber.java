package ell.files.series;

/// A plain number in bytes, where it lies: no text is made of it. Digits up to 15 and a power of
/// ten up to 22 give the nearest double in one operation.
final class CellNumber {
  private static final int EXACT_DIGITS = 15;
  private static final double[] TENTHS = new double[23];

  static {
    TENTHS[0] = 1;
    for (int i = 1; i < TENTHS.length; i++) {
      TENTHS[i] = TENTHS[i - 1] * 10;
    }
  }

  private double value;

  /// What was read last.
  double value() {
    return value;
  }

  /// Reads the one that fills a cell.
  ///
  /// @param from the first byte of the cell
  /// @param end behind the last of the line
  /// @param separator what ends the cell before the line ends
  /// @param point what stands before the tenths
  /// @return where the cell ends; -1 when it is anything but an optional sign, up to 15 digits, one
  ///   point and an exponent
  int read(byte[] b, int from, int end, byte separator, byte point) {
    int i = from;
    boolean minus = i < end && b[i] == '-';
    if (minus || i < end && b[i] == '+') {
      i++;
    }
    long n = 0;
    int digits = 0;
    int behind = -1;
    while (i < end) {
      byte c = b[i];
      if (c >= '0' && c <= '9') {
        n = n * 10 + (c - '0');
        digits++;
      } else if (c == separator) {
        break;
      } else if (c == point && behind < 0) {
        behind = digits;
      } else if ((c == 'e' || c == 'E') && digits > 0) {
        break;
      } else {
        return -1;
      }
      i++;
    }
    if (digits == 0 || digits > EXACT_DIGITS) {
      return -1;
    }
    int power = behind >= 0 ? behind - digits : 0;
    if (i < end && b[i] != separator) {
      int[] exponent = exponent(b, i + 1, end, separator);
      if (exponent[0] < 0) {
        return -1;
      }
      i = exponent[0];
      power += exponent[1];
    }
    if (Math.abs(power) >= TENTHS.length) {
      return -1;
    }
    double v = power < 0 ? n / TENTHS[-power] : n * TENTHS[power];
    value = minus ? -v : v;
    return i;
  }

  /// Where an exponent ends, and what it is; -1 when it is none.
  private static int[] exponent(byte[] b, int from, int end, byte separator) {
    int i = from;
    boolean minus = i < end && b[i] == '-';
    if (minus || i < end && b[i] == '+') {
      i++;
    }
    int n = 0;
    int digits = 0;
    while (i < end && b[i] >= '0' && b[i] <= '9' && digits < 3) {
      n = n * 10 + b[i++] - '0';
      digits++;
    }
    return digits > 0 && (i == end || b[i] == separator)
        ? new int[] {i, minus ? -n : n}
        : new int[] {-1, 0};
  }
}
