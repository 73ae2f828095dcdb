package ell.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.series.Log;
import ell.core.series.Series;
import ell.files.series.CaptureReader;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Captures as scopes write them.
public final class CaptureReaderTest {
  private static Log whole(String text) throws Exception {
    Read<Log> r = CaptureReader.read(Source.of("capture.csv", text));
    assertTrue(r instanceof Read.Whole<Log>, r.toString());
    return ((Read.Whole<Log>) r).value();
  }

  private static String refused(String text) throws Exception {
    Read<Log> r = CaptureReader.read(Source.of("capture.csv", text));
    assertTrue(r instanceof Read.Flawed<Log>, r.toString());
    return ((Read.Flawed<Log>) r).problems().toString();
  }

  @DataProvider
  Object[][] twoRows() {
    return new Object[][] {
      {"time,CH1\n0,1.5\n1e-6,2.5\n", "CH1"},
      {"Time (us),CH1 (mV)\n0,1500\n1,2500\n", "CH1"},
      {"Time (ns);A [V]\n0;1,5\n1000;2,5\n", "A"},
      {"\"Time (ms)\",\"probe 1 (V)\"\n\"0\",\"1.5\"\n\"0.001\",\"2.5\"\n", "probe 1"},
      {"# made by hand\nmodel,nothing\ntime (s),clk\n0.0,1.5E+00\n1.0E-06,2.5E+00\n", "clk"},
      {"-0.5e-6,1.5\n0.5e-6,2.5\n", "CH1"},
      {"Sample Interval,1e-6\nCH1\n1.5\n2.5\n", "CH1"},
      {"increment = 1us\nstart = -5us\nvolts\n1.5\n2.5\n", "volts"},
      {"Sample Rate: 1 MHz\nX (V)\n1.5\n2.5\n", "X"},
      {"index,time,CH1\n0,0,1.5\n1,1e-6,2.5\n", "CH1"},
      {"t\tu\n0\t1.5\n1e-6\t2.5", "u"},
      {"Time (us),CH1\r\n0,1.5 V\r\n1,2.5 V\r\n", "CH1"},
    };
  }

  @Test(dataProvider = "twoRows")
  public void oneCaptureInManyWritings(String text, String name) throws Exception {
    Log log = whole(text);
    assertEquals(log.series().size(), 1, log.toString());
    Series s = log.series().getFirst();
    assertEquals(s.name(), name);
    assertEquals(s.value(0), 1.5, 1e-12);
    assertEquals(s.value(1), 2.5, 1e-12);
    assertEquals(s.second(1) - s.second(0), 1e-6, 1e-15);
  }

  @Test
  public void severalChannelsAndGaps() throws Exception {
    Log log = whole("time,CH1,CH2\n0,1,2\n1e-6,,3\n2e-6,5,4\n");
    assertEquals(log.series().size(), 2);
    assertEquals(log.series().getFirst().size(), 2);
    assertEquals(log.series().getLast().size(), 3);
    assertEquals(
        whole("increment = 1us\nstart = -5us\nvolts\n1.5\n2.5\n").series().getFirst().second(0),
        -5e-6,
        1e-15);
    Log stepped = whole("dt,2e-9\na;b\n1,5;2\n3;4,5\n");
    assertEquals(stepped.series().getLast().value(1), 4.5, 1e-12);
    assertEquals(stepped.series().getFirst().second(1), 2e-9, 1e-18);
  }

  /// Times written with too few digits: the samples lie between them, those at the end as well.
  @Test
  public void timesOfTooFewDigits() throws Exception {
    StringBuilder text = new StringBuilder("time (us),CH1\n");
    for (int i = 0; i < 40; i++) {
      text.append(i / 4).append(',').append(i % 2).append('\n');
    }
    Series s = whole(text.toString()).series().getFirst();
    for (int i = 0; i < 40; i++) {
      assertEquals(s.second(i), i * 0.25e-6, 1e-12, "sample " + i);
    }
  }

  @Test
  public void whatIsWrongIsSaidWithItsLine() throws Exception {
    String letters = refused("time,CH1\n0,1\n1e-6,abc\n2e-6,2\n");
    assertTrue(letters.contains("capture.csv, line 3"), letters);
    assertTrue(refused("time,CH1\n0,1\n1e-6,2\n0.5e-6,2\n").contains("does not go on"));
    assertTrue(refused("dt,1e-6\nCH1\n1\nx\n2\n").contains("expected 1 voltages"));
    assertTrue(refused("dt,-1\nCH1\n1\n2\n").contains("above 0"));
    assertTrue(refused("Sample Rate: 0 Hz\nCH1\n1\n2\n").contains("above 0"));
    assertTrue(refused("time (s),CH1 (A)\n0,1\n1,2\n").contains("voltage"), "amperes are no volts");
    assertTrue(refused("hello\n").contains("expected a heading"));
    assertTrue(refused("").length() > 10);
    assertTrue(refused("time,CH1\n0,1\n").contains("fewer than two rows"));
  }

  /// Numbers with exponents are read as the platform reads them.
  @Test
  public void exponentsAreExact() throws Exception {
    Random random = new Random(6);
    StringBuilder text = new StringBuilder("time,CH1\n");
    double[] wanted = new double[2000];
    for (int i = 0; i < wanted.length; i++) {
      String v =
          String.format(
              java.util.Locale.ROOT,
              "%s%.6fe%d",
              random.nextBoolean() ? "-" : "",
              random.nextDouble() * 10,
              random.nextInt(21) - 12); // a scope shows less than 1e9 V
      wanted[i] = Double.parseDouble(v);
      text.append(i).append("e-9,").append(v).append('\n');
    }
    Series s = whole(text.toString()).series().getFirst();
    for (int i = 0; i < wanted.length; i++) {
      assertEquals(s.value(i), wanted[i], Math.ulp(wanted[i]), "row " + i);
    }
  }

  /// Mutated captures are read or refused with a sentence, and never anything else.
  @Test
  public void mutatedFilesDoNotBreakIt() throws Exception {
    String good = "Sample Interval,1e-6\nStart,0\ntime (us),CH1 (mV),CH2\n0,1,2\n1,3,4\n2,5,6\n";
    Random random = new Random(8);
    for (int n = 0; n < 3000; n++) {
      byte[] b = good.getBytes(java.nio.charset.StandardCharsets.UTF_8);
      for (int k = 0; k <= n % 5; k++) {
        b[random.nextInt(b.length)] = (byte) random.nextInt(256);
      }
      Read<Log> r = CaptureReader.read(Source.of("capture.csv", b));
      if (r instanceof Read.Whole<Log> w) {
        assertTrue(w.value().series().size() >= 1);
      } else {
        assertTrue(!((Read.Flawed<Log>) r).problems().isEmpty());
      }
    }
  }

  private static final String DUMP =
      """
      $date today $end
      $timescale 10 ns $end
      $scope module top $end
      $scope module cpu $end
      $var wire 1 ! clk $end
      $var wire 4 " count [3:0] $end
      $upscope $end
      $var real 64 # volts $end
      $var wire 1 % never $end
      $upscope $end
      $enddefinitions $end
      #0
      $dumpvars
      0!
      b0 "
      r0.5 #
      x%
      $end
      #5
      1!
      b1010 "
      #10
      0!
      r1.25e0 #
      #15
      1!
      bx "
      #20
      0!
      """;

  @Test
  public void aDumpOfChanges() throws Exception {
    Log log = whole(DUMP);
    assertEquals(
        log.series().stream().map(Series::name).toList(),
        java.util.List.of("cpu.clk", "cpu.count[3:0]", "volts"));
    Series clock = log.series().getFirst();
    assertEquals(clock.second(clock.firstFrom(49.9e-9)), 50e-9, 1e-15);
    assertEquals(clock.most(), 1.0);
    assertEquals(log.series().get(1).most(), 10.0);
    assertEquals(log.series().get(2).most(), 1.25);
    ell.core.pulse.Wave w = ell.core.pulse.Wave.of(clock);
    assertEquals(w.rising(), 2);
    assertEquals(w.period(), 100e-9, 1e-15);
    assertEquals(w.mean(), 0.5, 1e-12);
  }

  @Test
  public void aDumpThatIsWrong() throws Exception {
    assertTrue(
        refused(DUMP.replace("1!\nb1010", "1?\nb1010")).contains("no variable has the code"));
    assertTrue(refused(DUMP.replace("#15", "#7")).contains("does not go on"));
    assertTrue(refused(DUMP.replace("10 ns", "7 ns")).contains("time scale"));
    assertTrue(refused(DUMP.replace("b1010", "b1012")).contains("expected bits"));
    assertTrue(refused("$var wire 1 ! a $end\n#0\n0!\n").contains("nothing changes"));
    assertTrue(refused("$comment never ends\n").contains("without $end"));
    Random random = new Random(3);
    for (int n = 0; n < 3000; n++) {
      byte[] b = DUMP.getBytes(java.nio.charset.StandardCharsets.UTF_8);
      for (int k = 0; k <= n % 4; k++) {
        b[random.nextInt(b.length)] = (byte) random.nextInt(256);
      }
      Read<Log> r = CaptureReader.read(Source.of("capture.vcd", b));
      assertTrue(r instanceof Read.Whole<Log> || !((Read.Flawed<Log>) r).problems().isEmpty());
    }
  }
}
