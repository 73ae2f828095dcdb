package ell.files;

import static org.testng.Assert.assertEquals;

import java.nio.charset.StandardCharsets;
import java.util.Random;
import org.testng.annotations.Test;

/// Ends of lines, sixteen bytes at a time, against the same byte by byte.
public final class LineEndsTest {
  /// Bytes around those that end a line, tabs, zeros, bytes above 127 and plain text; from each
  /// place to each.
  @Test
  public void theFirstEndIsFoundWhateverStandsAround() {
    Random r = new Random(8);
    byte[] kinds = {0, 9, 11, 12, 14, 15, (byte) 0x80, (byte) 0x8a, (byte) 0x8d, (byte) 0xff, 'x'};
    for (int round = 0; round < 3000; round++) {
      byte[] b = new byte[50 + EightBytes.ROOM];
      for (int i = 0; i < b.length; i++) {
        int kind = r.nextInt(60);
        b[i] =
            kind == 0
                ? (byte) '\n'
                : kind == 1 ? (byte) '\r' : kind < 30 ? kinds[kind % kinds.length] : (byte) 'a';
      }
      int from = r.nextInt(20);
      int end = from + r.nextInt(50 - from);
      int wanted = from;
      while (wanted < end && b[wanted] != '\n' && b[wanted] != '\r') {
        wanted++;
      }
      assertEquals(LineEnds.next(b, from, end), wanted, new String(b, StandardCharsets.ISO_8859_1));
    }
  }
}
