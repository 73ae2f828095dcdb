package ell.bench.link;

/// Bytes of an answer that are no line: `#` and the digits of a count, the count, and so many
/// bytes. Source: IEEE 488.2, 8.7.9 (definite length) and 8.7.10 (indefinite length, which ends
/// with the line).
public final class Block {
  /// More than any instrument here holds.
  public static final int MOST = 64 << 20;

  private Block() {}

  /// The next byte of an answer, and its errors.
  interface Bytes {
    int next() throws java.io.IOException;
  }

  /// Reads a block.
  ///
  /// @param lineEnd with which an indefinite one ends
  /// @throws BenchException when it is none, saying what was found
  static byte[] read(Bytes in, char lineEnd) throws java.io.IOException {
    int c = in.next();
    if (c != '#') {
      throw new BenchException("expected a block, which begins with #, found '" + (char) c + "'");
    }
    int digits = in.next() - '0';
    if (digits == 0) {
      java.io.ByteArrayOutputStream all = new java.io.ByteArrayOutputStream();
      for (int b = in.next(); b != lineEnd; b = in.next()) {
        all.write(b);
        if (all.size() > MOST) {
          throw new BenchException("a block of more than " + MOST + " bytes");
        }
      }
      return all.toByteArray();
    }
    if (digits < 0 || digits > 9) {
      throw new BenchException("a block says with one digit how long its count is");
    }
    long count = 0;
    for (int i = 0; i < digits; i++) {
      int d = in.next() - '0';
      if (d < 0 || d > 9) {
        throw new BenchException("the count of a block has a sign that is no digit");
      }
      count = 10 * count + d;
    }
    if (count > MOST) {
      throw new BenchException("a block of " + count + " bytes: more than " + MOST);
    }
    byte[] all = new byte[(int) count];
    for (int i = 0; i < all.length; i++) {
      all[i] = (byte) in.next();
    }
    int end = in.next();
    while (end == '\r' || end == ' ') {
      end = in.next();
    }
    if (end != lineEnd) {
      throw new BenchException("a block of " + count + " bytes goes on behind its end");
    }
    return all;
  }
}
