package ell.files;

/// Looks through bytes eight at a time: a byte of the word is zero after the exclusive or just
/// where what is looked for stands (Warren, Hacker's Delight, 6-1).
public final class LineEnds {
  private static final long ONES = 0x0101010101010101L;
  private static final long TOPS = 0x8080808080808080L;
  private static final long LINE_FEEDS = '\n' * ONES;
  private static final long RETURNS = '\r' * ONES;

  private LineEnds() {}

  /// Where the first LF or CR stands, or `end`.
  ///
  /// @param from the first byte looked at
  /// @param end behind the last
  public static int next(byte[] b, int from, int end) {
    int i = from;
    while (i + 8 <= end) {
      long word = EightBytes.at(b, i);
      long n = word ^ LINE_FEEDS;
      long r = word ^ RETURNS;
      long found = (n - ONES & ~n | r - ONES & ~r) & TOPS;
      if (found != 0) {
        return i + (Long.numberOfTrailingZeros(found) >>> 3); // the lowest is never a false one
      }
      i += 8;
    }
    while (i < end && b[i] != '\n' && b[i] != '\r') {
      i++;
    }
    return i;
  }

  /// Whether bytes are all below 128.
  ///
  /// @param end behind the last
  static boolean plain(byte[] b, int end) {
    int i = 0;
    long all = 0;
    for (; i + 8 <= end; i += 8) {
      all |= EightBytes.at(b, i);
    }
    for (; i < end; i++) {
      all |= b[i];
    }
    return (all & TOPS) == 0;
  }
}
