package ell.core.talk;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Optional;

/// What is written into a board's memory so that it knows itself: `E1`, the lengths of serial and
/// revision, both in ASCII, and a CRC-16 over all of it.
///
/// @param serial 1...40 characters of ASCII
/// @param revision of the board, 1...20
public record Identity(String serial, String revision) {
  private static final int HEAD = 4;

  /// @throws IllegalArgumentException when one is empty, too long or no ASCII
  public Identity {
    check(serial, 40, "a serial");
    check(revision, 20, "a revision");
  }

  private static void check(String s, int most, String what) {
    if (s.isEmpty() || s.length() > most || !s.chars().allMatch(c -> c > ' ' && c < 0x7f)) {
      throw new IllegalArgumentException(
          what + " in a memory is 1..." + most + " characters of ASCII, found '" + s + "'");
    }
  }

  /// As it is written.
  public byte[] bytes() {
    byte[] s = serial.getBytes(StandardCharsets.US_ASCII);
    byte[] r = revision.getBytes(StandardCharsets.US_ASCII);
    byte[] all = new byte[HEAD + s.length + r.length + 2];
    all[0] = 'E';
    all[1] = '1';
    all[2] = (byte) s.length;
    all[3] = (byte) r.length;
    System.arraycopy(s, 0, all, HEAD, s.length);
    System.arraycopy(r, 0, all, HEAD + s.length, r.length);
    int crc = Crc.crc16(all, 0, all.length - 2);
    all[all.length - 2] = (byte) crc;
    all[all.length - 1] = (byte) (crc >> 8);
    return all;
  }

  /// Reads what a memory holds.
  ///
  /// @return empty when it holds none, or one that does not check
  public static Optional<Identity> read(byte[] b) {
    if (b.length < HEAD + 2 || b[0] != 'E' || b[1] != '1') {
      return Optional.empty();
    }
    int s = b[2] & 0xff;
    int r = b[3] & 0xff;
    int end = HEAD + s + r;
    if (b.length < end + 2
        || Crc.crc16(b, 0, end) != ((b[end] & 0xff) | (b[end + 1] & 0xff) << 8)) {
      return Optional.empty();
    }
    try {
      return Optional.of(
          new Identity(
              new String(Arrays.copyOfRange(b, HEAD, HEAD + s), StandardCharsets.US_ASCII),
              new String(Arrays.copyOfRange(b, HEAD + s, end), StandardCharsets.US_ASCII)));
    } catch (IllegalArgumentException e) {
      return Optional.empty();
    }
  }
}
