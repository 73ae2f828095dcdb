package ell.files;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.Reader;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CoderResult;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.Optional;

/// Opens text whose encoding is not said: UTF-8 or UTF-16 with or without mark, else Latin-1.
public final class TextFile {
  private static final int HEAD = 2000;

  private TextFile() {}

  /// The encoding and how many bytes of mark to skip.
  public record Encoding(Charset charset, int mark) {}

  /// Finds out how a text is encoded.
  ///
  /// @throws IOException when it cannot be read
  public static Encoding encoding(Source source) throws IOException {
    try (InputStream in = source.open()) {
      byte[] head = in.readNBytes(HEAD);
      if (head.length >= 3
          && head[0] == (byte) 0xEF
          && head[1] == (byte) 0xBB
          && head[2] == (byte) 0xBF) {
        return new Encoding(StandardCharsets.UTF_8, 3);
      }
      Optional<Charset> two = TwoBytes.of(head);
      if (two.isPresent()) {
        return new Encoding(two.get(), TwoBytes.mark(head));
      }
      return new Encoding(utf8(head, in) ? StandardCharsets.UTF_8 : StandardCharsets.ISO_8859_1, 0);
    }
  }

  private static boolean utf8(byte[] head, InputStream in) throws IOException {
    CharsetDecoder decoder =
        StandardCharsets.UTF_8.newDecoder().onMalformedInput(CodingErrorAction.REPORT);
    ByteBuffer bytes = ByteBuffer.allocate(1 << 16);
    CharBuffer chars = CharBuffer.allocate(1 << 16);
    bytes.put(head);
    boolean end = false;
    while (!end) {
      int n = in.read(bytes.array(), bytes.position(), bytes.remaining());
      end = n < 0;
      if (bytes.position() == 0 && n > 0 && LineEnds.plain(bytes.array(), n)) {
        continue; // most texts: nothing to decode
      }
      bytes.position(bytes.position() + Math.max(n, 0)).flip();
      CoderResult r = decoder.decode(bytes, chars.clear(), end);
      if (r.isError()) {
        return false;
      }
      bytes.compact();
    }
    return true;
  }

  /// Opens a text.
  ///
  /// @throws IOException when it cannot be read
  public static Reader open(Source source, Encoding encoding) throws IOException {
    InputStream in = source.open();
    in.skipNBytes(encoding.mark());
    return new BufferedReader(new InputStreamReader(in, encoding.charset()), 1 << 16);
  }
}
