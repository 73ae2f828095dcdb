package ell.files.series;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.series.Log;
import ell.core.series.Series;
import ell.files.Read;
import ell.files.Source;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Captures that are kept beside a workspace, and the rows that they are made of.
public final class CaptureStoreTest {
  private Path folder;

  @BeforeMethod
  public void aFolder() throws IOException {
    folder = Files.createTempDirectory("captures");
  }

  private Path file(String text) throws IOException {
    return Files.writeString(folder.resolve("clock.csv"), text);
  }

  private static String rows(int n, boolean stepped) {
    Random r = new Random(3);
    StringBuilder b =
        new StringBuilder(
            stepped ? "increment,2e-9\nstart,-1e-6\nA (V),B (mV)\n" : "time (us),A (V),B (mV)\n");
    for (int i = 0; i < n; i++) {
      if (!stepped) {
        b.append(String.format(Locale.ROOT, "%.3f,", -1 + i * 0.002));
      }
      b.append(
          String.format(
              Locale.ROOT,
              "%.4f,%.1f%n",
              i % 100 < 50 ? 0.01 * r.nextGaussian() : 3.3,
              i % 7 * 10.5));
    }
    return b.toString();
  }

  private List<Series> read(Path f) throws IOException {
    return CaptureStore.of(f, folder.resolve("kept")).read((_, _, _) -> {}, () -> false);
  }

  @DataProvider
  Object[][] forms() {
    return new Object[][] {{true}, {false}};
  }

  /// What is kept is what the reader reads; opened again it is the same.
  @Test(dataProvider = "forms")
  public void whatIsKeptIsWhatIsRead(boolean stepped) throws IOException {
    Path f = file(rows(5_000, stepped));
    List<Series> kept = read(f);
    Log log = ((Read.Whole<Log>) CaptureReader.read(Source.of(f))).value();
    assertEquals(kept.stream().map(Series::name).toList(), List.of("A", "B"));
    List<Series> again = CaptureStore.kept(folder.resolve("kept"), CaptureStore.fingerprint(f));
    for (int c = 0; c < 2; c++) {
      Series s = log.series().get(c);
      assertEquals(kept.get(c).size(), 5_000);
      assertEquals(kept.get(c).second(0), -1e-6, 1e-15);
      assertEquals(kept.get(c).step(), 2e-9, 1e-15);
      for (int i = 0; i < s.size(); i += 13) {
        assertEquals(kept.get(c).value(i), s.value(i), 1e-6);
        assertEquals(again.get(c).value(i), kept.get(c).value(i), 0);
        assertEquals(kept.get(c).second(i), s.second(i), 1e-13);
      }
      assertEquals(
          again.get(c).pyramid().range(again.get(c).samples(), 17, 4_900),
          kept.get(c).pyramid().range(kept.get(c).samples(), 17, 4_900));
    }
    assertEquals(log.series().get(1).value(3), 0.0315, 1e-7, "millivolts are volts");
  }

  /// Stopped after the first look, and gone on with: nothing is read twice, nothing is lost.
  @Test(dataProvider = "forms")
  public void readingIsStoppedAndGoesOn(boolean stepped) throws IOException {
    int n = 400_000;
    Path f = file(rows(n, stepped));
    int stops = 0;
    List<Series> all = List.of();
    while (all.isEmpty()) {
      boolean[] enough = {false};
      int[] looks = {0};
      CaptureStore store = CaptureStore.of(f, folder.resolve("kept"));
      all =
          store.read(
              (bytes, of, soFar) -> {
                assertTrue(bytes <= of);
                assertTrue(soFar.getFirst().size() > 0);
                enough[0] = ++looks[0] == 2;
              },
              () -> enough[0]);
      stops += all.isEmpty() ? 1 : 0;
      assertTrue(stops < 40, "it goes on");
    }
    assertTrue(stops > 1, "it was stopped " + stops + " times");
    Log log = ((Read.Whole<Log>) CaptureReader.read(Source.of(f))).value();
    Series wanted = log.series().getFirst();
    assertEquals(all.getFirst().size(), n);
    for (int i = 0; i < n; i += 97) {
      assertEquals(all.getFirst().value(i), wanted.value(i), 1e-6, "sample " + i);
    }
    assertEquals(all.getFirst().step(), 2e-9, 1e-14);
  }

  @DataProvider
  Object[][] wrong() {
    return new Object[][] {
      {"time (s),A\n0,1\n1,2\n2,x\n", "line 4"},
      {"time (s),A\n0,1\n1,2\n0.5,3\n", "line 4: times must rise"},
      {"time (s),A\n0,1\n1,2\n7,3\n", "evenly apart"},
      {"time (s),A\n0,1\n", "fewer than two"},
      {"hello\nworld\n", "expected"},
      {"increment,-1\nA\n1\n2\n", "above 0"},
      {"increment,1\nA\n1\n1e300\n2\n", "no scope shows that"},
      {"time (s),A\n0,1\n1,1e200\n2,1\n", "no scope shows that"},
    };
  }

  @Test(dataProvider = "wrong")
  public void whatIsNoCaptureIsRefused(String text, String says) throws IOException {
    Path f = file(text);
    IOException e = expectThrows(IOException.class, () -> read(f));
    assertTrue(e.getMessage().contains(says), e.getMessage());
    if (says.startsWith("no scope")) {
      assertTrue(CaptureReader.read(Source.of(f)) instanceof Read.Flawed<Log>, "by both readers");
    }
    assertTrue(
        CaptureStore.kept(folder.resolve("kept"), CaptureStore.fingerprint(f)).isEmpty(),
        "nothing half of it counts as kept");
  }

  @Test
  public void missingSamplesAreTold() throws IOException {
    StringBuilder b = new StringBuilder("time (s),A,B\n");
    for (int i = 0; i < 100; i++) {
      b.append(i).append(',').append(i == 50 ? "" : "1.5").append(",2\n");
    }
    CaptureStore store = CaptureStore.of(file(b.toString()), folder.resolve("kept"));
    List<Series> s = store.read((_, _, _) -> {}, () -> false);
    assertEquals(s.getFirst().value(50), 1.5, 0);
    assertTrue(store.told().getFirst().startsWith("1 samples are missing"));
  }

  @Test
  public void anotherFileHasAnotherFingerprint() throws IOException {
    Path a = file(rows(100, true));
    String before = CaptureStore.fingerprint(a);
    Files.writeString(a, Files.readString(a).replaceFirst("3\\.3000", "3.3001"));
    assertNotEquals(CaptureStore.fingerprint(a), before);
    assertTrue(CaptureStore.kept(folder, "../../etc").isEmpty());
  }

  /// Rows are the numbers that the JDK reads in them, whatever their form.
  @Test
  public void rowsAreTheirNumbers() throws IOException {
    Random r = new Random(11);
    StringBuilder text = new StringBuilder();
    List<double[]> wanted = new ArrayList<>();
    String[] forms = {"%.0f", "%.1f", "%.4f", "%.9f", "%.3e", "%+.2f", "%.15f", "%12.3f"};
    for (int i = 0; i < 60_000; i++) {
      String a = String.format(Locale.ROOT, forms[r.nextInt(8)], 2000 * (r.nextDouble() - 0.5));
      String b = String.format(Locale.ROOT, forms[r.nextInt(8)], 0.02 * r.nextGaussian());
      wanted.add(new double[] {Double.parseDouble(a.strip()), Double.parseDouble(b.strip())});
      text.append(a).append(',').append(b).append(i % 5 == 0 ? ",more" : "");
      text.append(i % 3 == 0 ? "\r\n" : "\n");
      if (i % 1000 == 0) {
        text.append("# a remark\n\n");
      }
    }
    List<double[]> got = new ArrayList<>();
    RowScanner s = new RowScanner(2, ',', false);
    s.scan(
        new ByteArrayInputStream(text.toString().getBytes(StandardCharsets.US_ASCII)),
        0,
        0,
        new RowScanner.Rows() {
          @Override
          public boolean rows(double[][] cells, int count, int[] lines, long before) {
            for (int i = 0; i < count; i++) {
              got.add(new double[] {cells[0][i], cells[1][i]});
            }
            return true;
          }

          @Override
          public boolean odd(long line, String odd) {
            throw new AssertionError("line " + line + ": " + odd);
          }
        },
        () -> false);
    assertEquals(got.size(), wanted.size());
    for (int i = 0; i < got.size(); i++) {
      assertEquals(got.get(i)[0], wanted.get(i)[0], 0, "row " + i);
      assertEquals(got.get(i)[1], wanted.get(i)[1], 0, "row " + i);
    }
    assertEquals(s.bytes(), text.length());
  }

  /// Changed at random, a file is read or refused with a sentence; never anything else.
  @Test
  public void whateverIsInAFile() throws IOException {
    byte[] good = rows(300, false).getBytes(StandardCharsets.UTF_8);
    Random r = new Random(5);
    for (int k = 0; k < 400; k++) {
      byte[] b = good.clone();
      for (int j = r.nextInt(6); j >= 0; j--) {
        b[r.nextInt(k % 2 == 0 ? b.length : 80)] = (byte) r.nextInt(128);
      }
      Path f = folder.resolve("m" + k + ".csv");
      Files.write(f, b);
      CaptureReader.read(Source.of(f));
      try {
        List<Series> s = read(f);
        assertTrue(s.isEmpty() || s.getFirst().size() > 1);
      } catch (IOException e) {
        assertTrue(e.getMessage() != null && !e.getMessage().isBlank());
      }
    }
  }

  @Test
  public void whatIsWrittenIsReadBack() throws IOException {
    float[] v = new float[500];
    for (int i = 0; i < v.length; i++) {
      v[i] = (float) Math.sin(i * 0.1) * 1e-3f;
    }
    Series even = Series.even("CH1", -2.5e-6, 1e-9, v);
    double[] t = {0, 1e-3, 1.7e-3, 9e-3};
    Series uneven = new Series("CH2", t, new double[] {0, 1, 2, 1.5});
    for (Series s : List.of(even, uneven)) {
      Log log =
          ((Read.Whole<Log>) CaptureReader.read(Source.of("x.csv", CaptureWriter.csv(s)))).value();
      Series got = log.series().getFirst();
      assertEquals(got.name(), s.name());
      assertEquals(got.size(), s.size());
      for (int i = 0; i < s.size(); i++) {
        assertEquals(got.second(i), s.second(i), 1e-13);
        assertEquals(got.value(i), s.value(i), 1e-9);
      }
    }
  }

  private static byte[] block(String preamble, String head, int... bytes) {
    byte[] text = (preamble + "\n" + head).getBytes(StandardCharsets.US_ASCII);
    byte[] all = java.util.Arrays.copyOf(text, text.length + bytes.length);
    for (int i = 0; i < bytes.length; i++) {
      all[text.length + i] = (byte) bytes[i];
    }
    return all;
  }

  /// Codes of 16 and of 8 bits, definite and indefinite. Source: IEEE 488.2, 8.7.9 and 8.7.10.
  @Test
  public void aBlockAsItCame() throws IOException {
    byte[] wide = block("3,1E-9,-1E-9,0.001,0.5", "#16", 0, 100, 0xff, 0x9c, 0, 0, '\n');
    Series s =
        ((Read.Whole<Log>) CaptureReader.read(Source.of("x.bin", wide)))
            .value()
            .series()
            .getFirst();
    assertEquals(s.value(0), 0.6, 1e-6);
    assertEquals(s.value(1), 0.4, 1e-6);
    assertEquals(s.second(2), 1e-9, 1e-18);
    byte[] narrow = block("4,1E-6,0,0.1,0", "#0", 1, 2, 255, 10, '\n');
    s =
        ((Read.Whole<Log>) CaptureReader.read(Source.of("x.bin", narrow)))
            .value()
            .series()
            .getFirst();
    assertEquals(s.value(2), -0.1, 1e-6);
    for (byte[] wrong :
        List.of(
            block("3,1E-9,0,0.001,0", "#16", 0, 1),
            block("5,1E-9,0,0.001,0", "#16", 0, 1, 2, 3, 4, 5),
            block("3,0,0,0.001,0", "#13", 0, 1, 2),
            block("3,1E-9,0,0.001,0", "#99"))) {
      assertTrue(CaptureReader.read(Source.of("x.bin", wrong)) instanceof Read.Flawed<Log>);
    }
  }
}
