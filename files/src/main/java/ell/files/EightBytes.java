package ell.files;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;

/// Bytes and the digits in them, eight at a time.
public final class EightBytes {
  /// So many bytes behind those that are meant may be looked at too, where somebody looks at the
  /// eight from each; they never count.
  public static final int ROOM = 16;

  private static final VarHandle WORDS =
      MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);

  /// Eight times `0`.
  private static final long ZEROS = 0x3030303030303030L;

  private EightBytes() {}

  /// Eight bytes, the first of them lowest.
  ///
  /// @throws IndexOutOfBoundsException when there are not eight
  public static long at(byte[] b, int from) {
    return (long) WORDS.get(b, from);
  }

  /// The same with `0` taken from each, so that a digit is its number.
  ///
  /// @throws IndexOutOfBoundsException when there are not eight
  public static long numerals(byte[] b, int from) {
    return at(b, from) ^ ZEROS;
  }

  /// How many of the first bytes are digits, 0...8.
  ///
  /// @param numerals as [#numerals] gives them
  public static int digits(long numerals) {
    long other = (numerals + 0x7676767676767676L | numerals) & 0x8080808080808080L;
    return Long.numberOfTrailingZeros(other) >>> 3;
  }

  /// The number of the first digits: neighbours are put together, pairs, fours.
  ///
  /// @param numerals as [#numerals] gives them
  /// @param digits how many of them, 0...8
  public static long number(long numerals, int digits) {
    if (digits == 0) {
      return 0;
    }
    long t = numerals << 64 - 8 * digits;
    t = t * 10 + (t >>> 8) & 0x00FF00FF00FF00FFL;
    t = t * 100 + (t >>> 16) & 0x0000FFFF0000FFFFL;
    return t * 10_000 + (t >>> 32) & 0xFFFFFFFFL;
  }

  /// The number that digits in fixed columns spell, -1 when one of them is none.
  ///
  /// @param b with [#ROOM] bytes behind the columns
  /// @param digits how many, 1...8
  public static int number(byte[] b, int from, int digits) {
    long x = numerals(b, from);
    return digits(x) >= digits ? (int) number(x, digits) : -1;
  }
}
