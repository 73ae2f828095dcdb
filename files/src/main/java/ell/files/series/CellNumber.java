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

  private CellNumber() {}

  /// Reads one.
  ///
  /// @param from its first byte
  /// @param end behind its last
  /// @param point what stands before the tenths
  /// @return NaN when it is anything but an optional sign, up to 15 digits and one point
  static double read(byte[] b, int from, int end, byte point) {
    int i = from;
    boolean minus = i < end && b[i] == '-';
    if (minus || i < end && b[i] == '+') {
      i++;
    }
    long n = 0;
    int digits = 0;
    int behind = -1;
    while (i < end && digits <= EXACT_DIGITS) {
      byte c = b[i];
      if (c >= '0' && c <= '9') {
        n = n * 10 + (c - '0');
        digits++;
        behind += behind >= 0 ? 1 : 0;
      } else if (c == point && behind < 0) {
        behind = 0;
      } else {
        return Double.NaN;
      }
      i++;
    }
    if (i < end || digits == 0 || digits > EXACT_DIGITS) {
      return Double.NaN;
    }
    double v = behind > 0 ? n / TENTHS[behind] : n;
    return minus ? -v : v;
  }
}
