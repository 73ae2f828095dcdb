package ell.core.talk;

import java.util.zip.CRC32;

/// Check sums of frames and images.
public final class Crc {
  private static final int POLYNOMIAL = 0x1021;
  private static final int FIRST = 0xFFFF;

  private Crc() {}

  /// CRC-16 of polynomial 0x1021, begun with 0xFFFF, not reflected, nothing added; its check value
  /// over the digits 1 to 9 is 0x29B1. Source: Catalogue of parametrised CRC algorithms,
  /// CRC-16/IBM-3740, from memory.
  ///
  /// @return 0...0xFFFF
  public static int crc16(byte[] bytes, int from, int to) {
    int c = FIRST;
    for (int i = from; i < to; i++) {
      c ^= (bytes[i] & 0xff) << 8;
      for (int b = 0; b < 8; b++) {
        c = (c & 0x8000) != 0 ? c << 1 ^ POLYNOMIAL : c << 1;
      }
    }
    return c & 0xffff;
  }

  /// CRC-32 of whole images; its check value over the digits 1 to 9 is 0xCBF43926. Source:
  /// Catalogue of parametrised CRC algorithms, CRC-32/ISO-HDLC, from memory.
  public static long crc32(byte[] bytes) {
    CRC32 c = new CRC32();
    c.update(bytes);
    return c.getValue();
  }
}
