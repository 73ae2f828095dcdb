package ell.files;

/// Looks through bytes eight at a time: a byte of the word is zero after the exclusive or just
/// where what is looked for stands (Warren, Hacker's Delight, 6-1).
public final class LineEnds {
  private static final long ONES = 0x0101010101010101L;
  private static final long TOPS = 0x8080808080808080L;
  private static final long LINE_FEEDS = '\n' * ONES;
  private static final long RETURNS = '\r' * ONES;

  /// Most of a text is above both: one comparison tells that none of them is there.
  private static final long ABOVE = ('\r' + 1) * ONES;

  private LineEnds() {}

  /// Where the first LF or CR stands, or `end`.
  ///
  /// @param from the first byte looked at
  /// @param end behind the last
  public static int next(byte[] b, int from, int end) {
    int i = from;
    while (i + 16 <= end) {
      long first = EightBytes.at(b, i);
      long second = EightBytes.at(b, i + 8);
      if (((first - ABOVE & ~first | second - ABOVE & ~second) & TOPS) != 0) {
        long found = ends(first);
        if (found != 0) {
          return i + (Long.numberOfTrailingZeros(found) >>> 3);
        }
        found = ends(second);
        if (found != 0) {
          return i + 8 + (Long.numberOfTrailingZeros(found) >>> 3);
        }
      }
      i += 16;
    }
    while (i < end && b[i] != '\n' && b[i] != '\r') {
      i++;
    }
    return i;
  }

  /// The top bit of each byte that ends a line; only the lowest is sure.
  private static long ends(long word) {
    long n = word ^ LINE_FEEDS;
    long r = word ^ RETURNS;
    return (n - ONES & ~n | r - ONES & ~r) & TOPS;
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
