package ell.core.talk;

import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CoderResult;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;

/// Bytes as they come over a line, as text: UTF-8 where it is, `\x9f` for a byte that is none, `\0`
/// and the like for what cannot be seen; line ends as they are. A character in two pieces waits for
/// its second. Not for many threads.
public final class HeardText {
  private final CharsetDecoder decoder =
      StandardCharsets.UTF_8
          .newDecoder()
          .onMalformedInput(CodingErrorAction.REPORT)
          .onUnmappableCharacter(CodingErrorAction.REPORT);
  private byte[] begun = new byte[0];
  private long odd;

  /// The text of more bytes.
  public String take(byte[] bytes, int from, int to) {
    byte[] all = new byte[begun.length + to - from];
    System.arraycopy(begun, 0, all, 0, begun.length);
    System.arraycopy(bytes, from, all, begun.length, to - from);
    ByteBuffer in = ByteBuffer.wrap(all);
    CharBuffer out = CharBuffer.allocate(all.length + 1);
    StringBuilder text = new StringBuilder(all.length);
    while (true) {
      CoderResult r = decoder.decode(in, out, false);
      visible(out.flip(), text);
      out.clear();
      if (r.isMalformed() || r.isUnmappable()) {
        for (int i = 0; i < r.length(); i++) {
          text.append(String.format("\\x%02x", in.get()));
          odd++;
        }
        decoder.reset();
        continue;
      }
      break;
    }
    begun = new byte[in.remaining()];
    in.get(begun);
    return text.toString();
  }

  /// The text of all of some bytes.
  public static String of(byte[] bytes) {
    HeardText t = new HeardText();
    return t.take(bytes, 0, bytes.length) + t.end();
  }

  /// What was begun and never ended, as bytes.
  public String end() {
    StringBuilder s = new StringBuilder();
    for (byte b : begun) {
      s.append(String.format("\\x%02x", b));
      odd++;
    }
    begun = new byte[0];
    return s.toString();
  }

  /// How many bytes were no text so far: garbage.
  public long odd() {
    return odd;
  }

  private void visible(CharBuffer chars, StringBuilder into) {
    while (chars.hasRemaining()) {
      char c = chars.get();
      if (c == 0) {
        into.append("\\0");
        odd++;
      } else if (c < ' ' && c != '\n' && c != '\r' && c != '\t' || c == 0x7f) {
        into.append(String.format("\\x%02x", (int) c));
        odd++;
      } else {
        into.append(c);
      }
    }
  }
}
