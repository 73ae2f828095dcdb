package ell.bench;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.bench.instrument.Hands;
import ell.bench.instrument.Scope;
import ell.bench.instrument.Supply;
import ell.bench.link.BenchException;
import ell.bench.link.ScpiLink;
import ell.bench.link.TcpLink;
import ell.bench.sim.Mischief;
import ell.bench.sim.SimBench;
import ell.bench.sim.SimBoard;
import ell.core.power.Fault;
import ell.core.pulse.PulsePlan;
import ell.core.pulse.Wave;
import ell.core.series.Series;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// The scope over the simulated bench: what it samples is what the board and its line make, and how
/// its front end changes it. Source for the language: SCPI-99, IEEE 488.2 block data.
public final class ScopeTest {
  private static final int TIMEOUT = 2000;
  private SimBench bench;

  private static SimBoard board(String serial, Fault... faults) {
    SimBoard b = BenchTest.board(serial, faults);
    return new SimBoard(
        serial,
        b.revision(),
        b.ladder(),
        b.faults(),
        PulsePlan.of(
            b.revision(),
            b.ladder(),
            List.of(),
            List.of(
                "MID clock=2MHz within=100ppm family=cmos3.3 from=U1.2 driver=25ohm edge=3ns"
                    + " length=0.6m z0=120ohm velocity=0.61")),
        b.talk());
  }

  @BeforeMethod
  public void start() throws IOException {
    bench =
        SimBench.start(
            List.of(
                board("01"),
                board("02", new Fault.Dead("U1")),
                board("03", new Fault.Setting("scope", "ac")),
                board("04", new Fault.Setting("scope", "x10"))),
            7);
  }

  @AfterMethod(alwaysRun = true)
  public void stop() {
    bench.close();
  }

  private ScpiLink link(String kind) throws BenchException {
    return TcpLink.connect("127.0.0.1", bench.instrument(kind).port(), TIMEOUT);
  }

  private Series taken(String board, String place, Scope.Taking t) throws BenchException {
    try (Hands h = new Hands(link("hands"));
        Supply s = new Supply(link("supply"));
        Scope scope = new Scope(link("scope"))) {
      h.lay(board);
      s.set(5, 0.5);
      s.output(true);
      h.probe(1, place);
      scope.clear();
      return scope.take(t);
    }
  }

  private static Scope.Taking look(double span) {
    return new Scope.Taking(1, 16, 2, span, 4000, 1.5, false);
  }

  /// First peak of the open end twice the step of the divider; 4 delays from swing to swing.
  @Test
  public void theEndOfALineRings() throws BenchException {
    Series s = taken("01", "MID", look(1e-6));
    Wave w = Wave.of(s);
    assertEquals(w.frequency(), 2e6, 200);
    assertEquals(w.high(), 3.3, 0.05);
    assertEquals(s.most(), 2 * 3.3 * 120 / 145, 0.25);
    double delay = 0.6 / (0.61 * 299_792_458);
    assertEquals(w.ring().orElseThrow().frequency(), 1 / (4 * delay), 0.04 / (4 * delay));
    assertTrue(s.even());
  }

  @Test
  public void aRailRests() throws BenchException {
    Series s = taken("01", "3V3", look(1e-3));
    assertEquals(Wave.of(s).mean(), 3.3, 0.1);
    assertEquals(Wave.of(s).edges(), 0);
    assertEquals(Wave.of(taken("02", "MID", look(1e-6))).edges(), 0, "nobody drives the line");
  }

  /// The instrument's own mistakes: the mean is gone, or everything is a tenth.
  @Test
  public void theInstrumentIsWrong() throws BenchException {
    Wave ac = Wave.of(taken("03", "MID", look(4e-6)));
    assertEquals(ac.mean(), 0, 0.05);
    assertEquals(ac.amplitude(), 3.3, 0.1);
    assertEquals(Wave.of(taken("04", "MID", look(4e-6))).high(), 0.33, 0.05);
    Wave asked = Wave.of(taken("01", "MID", new Scope.Taking(1, 16, 0, 4e-6, 4000, 0, true)));
    assertEquals(asked.mean(), 0, 0.05);
  }

  /// 0.35 of its bandwidth of 200 MHz is 1.75 ns: a 3 ns edge of a matched line gets as long as the
  /// squares say.
  @Test
  public void itsBandwidth() throws BenchException {
    try (Scope scope = new Scope(link("scope"))) {
      assertEquals(scope.bandwidth(), 200e6, 1);
    }
    Series s = taken("01", "U1.2", new Scope.Taking(1, 16, 2, 100e-9, 200, 0.3, false));
    assertEquals(s.step(), 0.5e-9, 1e-15);
  }

  /// A block by hand: `#`, a digit, a count, two bytes a sample.
  @Test
  public void aBlockIsAsTheStandardSays() throws IOException {
    taken("01", "MID", look(1e-6));
    try (Socket c = new Socket("127.0.0.1", bench.instrument("scope").port())) {
      c.getOutputStream().write("INIT\nTRAC:PRE?\nTRAC?\n".getBytes(StandardCharsets.US_ASCII));
      InputStream in = c.getInputStream();
      StringBuilder preamble = new StringBuilder();
      for (int b = in.read(); b != '\n'; b = in.read()) {
        preamble.append((char) b);
      }
      assertEquals(preamble.toString().split(",").length, 5);
      assertEquals(preamble.toString().split(",")[0], "4000");
      assertEquals(new String(in.readNBytes(6), StandardCharsets.US_ASCII), "#48000");
      assertEquals(in.readNBytes(8000).length, 8000);
      assertEquals(in.read(), '\n');
    }
  }

  @Test
  public void wrongSettingsAreRefused() throws IOException {
    try (Scope s = new Scope(link("scope"))) {
      for (String wrong :
          List.of("SWE:TIME 0", "SWE:POIN 5", "VOLT:RANG -1", "INP:COUP GROUND", "INST:NSEL 9")) {
        assertTrue(
            expectThrows(BenchException.class, () -> s.command(wrong)).getMessage().contains("-2"),
            wrong);
      }
    }
    try (Socket c = new Socket("127.0.0.1", bench.instrument("scope").port());
        BufferedReader in = new BufferedReader(new InputStreamReader(c.getInputStream()))) {
      c.getOutputStream().write("TRAC?;:SYST:ERR?\n".getBytes(StandardCharsets.US_ASCII));
      assertTrue(in.readLine().startsWith("-230"), "nothing was sampled yet");
    }
    try (Hands h = new Hands(link("hands"))) {
      h.lay("01");
      expectThrows(BenchException.class, () -> h.probe(1, "NOWHERE"));
      expectThrows(BenchException.class, () -> h.probe(3, "MID"));
    }
  }

  @DataProvider
  Object[][] mischief() {
    return new Object[][] {
      {Mischief.HANG}, {Mischief.GARBAGE}, {Mischief.VANISH}, {Mischief.ENDLESS},
    };
  }

  /// Whatever the scope answers, an end comes in time, and no capture of it.
  @Test(dataProvider = "mischief")
  public void surprisesEndInTime(Mischief m) throws BenchException {
    taken("01", "MID", look(1e-6));
    bench.instrument("scope").mischief(m);
    long from = System.nanoTime();
    try (Scope s = new Scope(TcpLink.connect("127.0.0.1", bench.instrument("scope").port(), 300))) {
      expectThrows(BenchException.class, () -> s.take(look(1e-6)));
    } catch (BenchException e) {
      assertFalse(e.getMessage().isBlank());
    }
    assertTrue(System.nanoTime() - from < 15_000_000_000L);
  }
}
