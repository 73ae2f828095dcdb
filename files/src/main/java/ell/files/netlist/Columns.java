package ell.files.netlist;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;

/// Fixed columns, eight bytes at a time. What is read may reach up to [#SLACK] bytes behind a
/// column, so arrays have that much room at their end; it never counts.
final class Columns {
  /// Bytes of room that an array needs behind its last column.
  static final int SLACK = 16;

  private static final VarHandle WORDS =
      MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);
  private static final long ZEROS = 0x3030303030303030L;
  private static final long HIGH_HALVES = 0xF0F0F0F0F0F0F0F0L;
  private static final long SIXES = 0x0606060606060606L;

  private Columns() {}

  /// Eight bytes, the first of them lowest.
  static long word(byte[] b, int at) {
    return (long) WORDS.get(b, at);
  }

  /// The number that so many digits spell, -1 when one of them is no digit. Neighbours are joined
  /// pairwise, three times (Lemire, "Quickly parsing eight digits", 2018; from memory).
  ///
  /// @param n 1 to 8
  static int digits(byte[] b, int at, int n) {
    int spare = (8 - n) * 8;
    long w = word(b, at) << spare;
    if (spare > 0) {
      w |= ZEROS >>> n * 8;
    }
    if ((w & w + SIXES & HIGH_HALVES) != ZEROS) {
      return -1;
    }
    w = ((w & 0x0F0F0F0F0F0F0F0FL) * 2561) >>> 8;
    w = ((w & 0x00FF00FF00FF00FFL) * 6553601) >>> 16;
    return (int) (((w & 0x0000FFFF0000FFFFL) * 42949672960001L) >>> 32);
  }
}
