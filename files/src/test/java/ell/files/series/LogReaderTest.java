package ell.files.series;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.series.Log;
import ell.core.series.Series;
import ell.files.Account;
import ell.files.Problem;
import ell.files.Read;
import ell.files.Source;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Logs of a kind that Ell has no reader for: currents, in A and mA. Numbers against the parser of
/// the language.
public class LogReaderTest {
  private static final class Currents implements Sense {
    @Override
    public String reading() {
      return "current";
    }

    @Override
    public String example() {
      return "time (s),supply (mA)";
    }

    @Override
    public String unit() {
      return "A";
    }

    @Override
    public Optional<Column> column(String heading) {
      String name = heading.replaceAll("\\s*\\(.*", "");
      if (heading.endsWith("(mA)")) {
        return Optional.of(new Column(name, x -> x * 1e-3));
      }
      return heading.endsWith("(A)") ? Optional.of(new Column(name, x -> x)) : Optional.empty();
    }

    @Override
    public Column unnamed(int place) {
      return new Column("I" + place, x -> x);
    }

    @Override
    public String withoutUnit(String cell) {
      return cell.replaceAll("\\s*a$", "");
    }
  }

  private static Read<Log> read(String text) throws IOException {
    return LogReader.read(Source.of("log.csv", text), new Currents());
  }

  private static List<Series> whole(String text) throws IOException {
    return switch (read(text)) {
      case Read.Whole<Log>(Log l, var _) -> l.series();
      case Read.Flawed<Log>(var problems) -> throw new AssertionError(problems.toString());
    };
  }

  private static Problem first(String text) throws IOException {
    return switch (read(text)) {
      case Read.Whole<Log>(Log l, var _) -> throw new AssertionError(l.toString());
      case Read.Flawed<Log>(var problems) -> problems.getFirst();
    };
  }

  @Test
  public void unitsOfAnotherKindAreScaled() throws IOException {
    List<Series> s =
        whole(
            "made up on a bench\ntime (ms);supply (mA);note;core (A)\n0;12,5;x;0,5\n20;13;y;\n30;14;;0,7\n");
    assertEquals(s.size(), 2);
    assertEquals(s.get(0).name(), "supply");
    assertEquals(s.get(0).value(0), 0.0125, 1e-12);
    assertEquals(s.get(0).second(1), 0.020, 1e-12);
    assertEquals(s.get(1).size(), 2);
    assertEquals(s.get(1).second(1), 0.030, 1e-12);
  }

  @Test
  public void whatWasNotUsedIsSaid() throws IOException {
    if (!(read("header\ntime (s),supply (mA),room\n0,1,20\n1,,21\n2,3,22\n")
        instanceof Read.Whole<Log>(Log log, Account account))) {
      throw new AssertionError("not read");
    }
    assertEquals(log.series().size(), 1);
    assertTrue(
        account.passedOver().stream().anyMatch(p -> p.toString().contains("room is no current")));
    assertTrue(
        account.passedOver().stream().anyMatch(p -> p.toString().contains("before the heading")));
    assertTrue(account.warnings().stream().anyMatch(p -> p.toString().contains("1 cell is a gap")));
  }

  @Test
  public void withoutAHeadingTheUnitThatWasTakenIsSaid() throws IOException {
    if (!(read("0\t1.5\n1\t1.6\n") instanceof Read.Whole<Log>(Log log, Account account))) {
      throw new AssertionError("not read");
    }
    assertEquals(log.series().getFirst().name(), "I1");
    assertTrue(account.warnings().getFirst().toString().contains("the others as A"));
  }

  @DataProvider
  Object[][] times() {
    return new Object[][] {
      {"0:00:59", "0:01:01", 2},
      {"23:59:58.5", "00:00:01", 2.5},
      {"2026-11-25 23:59:59", "2026-11-26 00:00:01", 2},
      {"2026-11-25T10:00:00Z", "2026-11-25T12:00:30+02:00", 30},
      {"01:30", "02:00", 30},
      {"1.5 s", "1e1", 8.5},
    };
  }

  @Test(dataProvider = "times")
  public void timesInAllWords(String a, String b, double apart) throws IOException {
    Series s = whole("time,supply (A)\n" + a + ",1\n" + b + ",2\n").getFirst();
    assertEquals(s.duration(), apart, 1e-6);
  }

  @DataProvider
  Object[][] flawed() {
    return new Object[][] {
      {"time (s),supply (A)\n5,1\n4,2\n", "time does not go on", 3},
      {"time (s),supply (A)\n0,1\n-1,2\n", "time does not go on", 3},
      {"time (s),supply (A)\n0,1\n1,two\n", "expected a current, found 'two'", 3},
      {"time (s),supply (A)\n0,1\nnoon,2\n", "expected a time in seconds or h:mm:ss", 3},
      {"time (s),supply (A)\n0,1\n,2\n", "no time in this row", 3},
      {"time (s),supply (A)\n0,1\n1,NaNA\n", "expected a current", 3},
      {"time (s),supply (A)\n0,1\n1,1e999\n", "expected a current", 3},
      {"time (s),room\n0,1\n1,2\n", "no column of current beside time (s)", 1},
      {"time (s),supply (A)\n0,1\n", "fewer than two rows", 0},
      {"a dog\nand a cat\n", "at least one current, such as: time (s),supply (mA)", 1},
      {"", "expected a heading", 1},
    };
  }

  @Test(dataProvider = "flawed")
  public void whatIsWrongIsSaidWithItsLine(String text, String words, int line) throws IOException {
    Problem p = first(text);
    assertTrue(p.toString().contains(words), p.toString());
    assertEquals(p.line(), line);
  }

  /// Plain numbers of every length: those that are read in place are the same double that the
  /// language's own parser gives.
  @Test
  public void plainNumbersAreTheNearestDouble() {
    Random r = new Random(5);
    int taken = 0;
    for (int i = 0; i < 200_000; i++) {
      int scale = r.nextInt(18);
      BigDecimal d = BigDecimal.valueOf(r.nextLong() >> r.nextInt(63), scale);
      String text = d.toPlainString();
      byte[] b = text.getBytes(StandardCharsets.US_ASCII);
      CellNumber cell = new CellNumber();
      if (cell.read(b, 0, b.length, (byte) ';', (byte) '.') == b.length) {
        taken++;
        double read = cell.value();
        assertEquals(Double.compare(read, Double.parseDouble(text)) == 0 || read == 0, true, text);
      }
    }
    assertTrue(taken > 60_000, taken + " were read in place");
  }

  @Test
  public void whatIsNoPlainNumberIsLeftToOthers() {
    for (String t :
        List.of(
            "",
            "+",
            "-",
            ".",
            "1e",
            "1e+",
            "1e5x",
            "e5",
            "1e400",
            "1..2",
            "1.2.3",
            "0x10",
            "1 2",
            "12345678901234567",
            "1,5")) {
      byte[] b = t.getBytes(StandardCharsets.US_ASCII);
      assertEquals(new CellNumber().read(b, 0, b.length, (byte) ';', (byte) '.'), -1, t);
    }
    byte[] comma = "-1,5;7".getBytes(StandardCharsets.US_ASCII);
    CellNumber cell = new CellNumber();
    assertEquals(cell.read(comma, 0, comma.length, (byte) ';', (byte) ','), 4);
    assertEquals(cell.value(), -1.5);
  }

  /// A file longer than the reader's buffer, with rows over its edge.
  @Test
  public void rowsOverTheEdgeOfTheBuffer() throws IOException {
    StringBuilder s = new StringBuilder("time (s),supply (mA)\r\n");
    int n = 150_000;
    for (int i = 0; i < n; i++) {
      s.append(String.format(Locale.ROOT, "%.2f,%d\r%n", i * 0.01, i % 977).replace("\r\r", "\r"));
    }
    Series one = whole(s.toString()).getFirst();
    assertEquals(one.size(), n);
    for (int i = 0; i < n; i += 1013) {
      assertEquals(one.value(i), i % 977 * 1e-3, 1e-12);
      assertEquals(one.second(i), i * 0.01, 1e-9);
    }
    assertFalse(one.name().isEmpty());
  }
}
