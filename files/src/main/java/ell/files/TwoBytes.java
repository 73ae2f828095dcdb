package ell.files;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Optional;

/// Text of two bytes a character (UTF-16), as some programs save it: told by its mark, or by the
/// zeros that every other byte of plain letters and digits then is.
public final class TwoBytes {
  private static final int HEAD = 2000;
  private static final int MOST = 64 << 20;

  /// Fewer bytes tell nothing without a mark.
  private static final int FEWEST = 16;

  private TwoBytes() {}

  /// The encoding that the beginning of a file shows, empty where it is none of two bytes.
  static Optional<Charset> of(byte[] head) {
    if (mark(head) > 0) {
      return Optional.of(
          head[0] == (byte) 0xFF ? StandardCharsets.UTF_16LE : StandardCharsets.UTF_16BE);
    }
    int n = Math.min(head.length, HEAD) / 2;
    if (2 * n < FEWEST) {
      return Optional.empty();
    }
    int first = 0;
    int second = 0;
    for (int i = 0; i < n; i++) {
      first += head[2 * i] == 0 ? 1 : 0;
      second += head[2 * i + 1] == 0 ? 1 : 0;
    }
    // nearly all of one kind, none of the other: a recording of small numbers has both
    return first == 0 && second * 10 > n * 9
        ? Optional.of(StandardCharsets.UTF_16LE)
        : second == 0 && first * 10 > n * 9
            ? Optional.of(StandardCharsets.UTF_16BE)
            : Optional.empty();
  }

  /// How many bytes of mark stand there, 2 or 0.
  static int mark(byte[] head) {
    boolean there =
        head.length >= 2
            && (head[0] == (byte) 0xFF && head[1] == (byte) 0xFE
                || head[0] == (byte) 0xFE && head[1] == (byte) 0xFF);
    return there ? 2 : 0;
  }

  /// The same text in UTF-8 for who reads it by single bytes; itself where it is that already, or
  /// too large to be held as a whole.
  ///
  /// @throws IOException when it cannot be read
  public static Source plain(Source s) throws IOException {
    try (InputStream in = s.open()) {
      byte[] head = in.readNBytes(HEAD);
      Optional<Charset> as = of(head);
      if (as.isEmpty()) {
        return s;
      }
      byte[] rest = in.readNBytes(MOST);
      if (rest.length == MOST) {
        return s;
      }
      byte[] all = new byte[head.length + rest.length];
      System.arraycopy(head, 0, all, 0, head.length);
      System.arraycopy(rest, 0, all, head.length, rest.length);
      int mark = mark(head);
      return Source.of(s.name(), new String(all, mark, all.length - mark, as.get()));
    }
  }
}
