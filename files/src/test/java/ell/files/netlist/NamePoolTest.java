package ell.files.netlist;

import static org.testng.Assert.assertEquals;

import ell.files.EightBytes;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.testng.annotations.Test;

/// Names and digits in fixed columns, read by words, against the same read byte by byte.
public final class NamePoolTest {
  private static byte[] columns(String text) {
    byte[] b = text.getBytes(StandardCharsets.ISO_8859_1);
    byte[] roomy = Arrays.copyOf(b, b.length + EightBytes.ROOM);
    Arrays.fill(roomy, b.length, roomy.length, (byte) '7'); // what stands behind never counts
    return roomy;
  }

  /// Names as writers make them and as nobody does, some of them again: counted, with blanks in the
  /// middle, with bytes above 127 and without any, of one byte to 14; the last byte differs in its
  /// high half only.
  @Test
  public void eachNameHasOneNumber() {
    Random r = new Random(4);
    NamePool pool = new NamePool();
    Map<String, Integer> all = new LinkedHashMap<>();
    String odd = "A /_0aQ\u00b5\u00ff\u0000";
    for (int i = 0; i < 60_000; i++) {
      StringBuilder name = new StringBuilder();
      if (r.nextInt(3) == 0) {
        for (int n = r.nextInt(15); n > 0; n--) {
          name.append(odd.charAt(r.nextInt(odd.length())));
        }
      } else {
        name.append(List.of("NET", "Net-(U", "$").get(r.nextInt(3))).append(r.nextInt(20_000));
      }
      String text = " ".repeat(r.nextInt(3)) + name + " ".repeat(r.nextInt(4));
      String wanted = byHand(text);
      if (wanted.length() > 14) {
        continue;
      }
      int expected = all.computeIfAbsent(wanted, _ -> all.size());
      int before = pool.size();
      int n = pool.number(columns("xx" + text), 2, 2 + text.length());
      assertEquals(n, expected, "'" + wanted + "' of " + before);
      assertEquals(pool.name(n), wanted);
      assertEquals(pool.full(n), wanted.length() == 14, wanted);
      assertEquals(pool.number(wanted), n, "by its string");
    }
    assertEquals(pool.size(), all.size());
  }

  private static String byHand(String text) {
    int from = 0;
    int to = text.length();
    while (from < to && text.charAt(from) == ' ') {
      from++;
    }
    while (to > from && text.charAt(to - 1) == ' ') {
      to--;
    }
    return text.substring(from, to);
  }

  /// A long name that a record only refers to is none that could have been cut.
  @Test
  public void longNamesAreNotFull() {
    NamePool pool = new NamePool();
    pool.room(3000);
    int longOne = pool.number("A_NAME_OF_MORE_THAN_FOURTEEN");
    for (int i = 0; i < 5000; i++) {
      assertEquals(pool.number("N" + i), i + 1);
    }
    assertEquals(pool.number("A_NAME_OF_MORE_THAN_FOURTEEN"), longOne);
    assertEquals(pool.full(longOne), false);
  }

  @Test
  public void digitsAreReadAsTheLibraryReadsThem() {
    Random r = new Random(5);
    String any = "0123456789 +-/:a\u00b0";
    for (int i = 0; i < 200_000; i++) {
      int n = 1 + r.nextInt(8);
      StringBuilder s = new StringBuilder();
      for (int k = 0; k < n; k++) {
        s.append(any.charAt(r.nextInt(r.nextInt(4) == 0 ? any.length() : 10)));
      }
      int wanted = s.chars().allMatch(c -> c >= '0' && c <= '9') ? Integer.parseInt("" + s) : -1;
      assertEquals(EightBytes.number(columns("y" + s), 1, n), wanted, s.toString());
    }
  }
}
