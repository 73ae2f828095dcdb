package ell.bench;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.bench.dialect.Dialect;
import ell.bench.instrument.Hands;
import ell.bench.instrument.Meter;
import ell.bench.instrument.Supply;
import ell.bench.link.BenchException;
import ell.bench.link.TcpLink;
import ell.bench.sim.Mischief;
import ell.bench.sim.SimBench;
import ell.bench.sim.SimBoard;
import ell.core.board.Joint;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.power.Fault;
import ell.core.power.Ladder;
import ell.core.power.Ladder.Kind;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Instruments over the simulated bench. Source for the language: IEEE 488.2 common commands,
/// SCPI-99 error queue and short forms.
public class BenchTest {
  private static final int TIMEOUT = 400;
  private SimBench bench;

  /// 5 V in, a linear regulator to 3.3 V, 1 kΩ and 2.2 kΩ to ground.
  static SimBoard board(String serial, Fault... faults) {
    List<Part> parts = new ArrayList<>();
    List<Joint> joints = new ArrayList<>();
    add(parts, joints, "U1", "LDO", "5V0", "3V3", "GND");
    add(parts, joints, "R1", "1k", "3V3", "MID");
    add(parts, joints, "R2", "2k2", "MID", "GND");
    add(parts, joints, "J1", "TERM", "5V0", "GND");
    Revision r = new Revision("T", "1", parts, joints, Outline.UNKNOWN);
    Ladder l =
        new Ladder(
            List.of(
                new Ladder.RailSpec("5V0", 5, 4.75, 5.25, 0, "J1.1"),
                new Ladder.RailSpec("3V3", 3.3, 3.2, 3.4, 0, "U1.2")),
            List.of(new Ladder.Source("5V0", 5, 4.75, 5.25, 0)),
            List.of(new Ladder.Step("U1", Kind.LINEAR, "5V0", "3V3", 3.3, 0.3, 0, 0, 0, 0.5, 0)),
            List.of(new Ladder.Load("U9", "3V3", Map.of("boot", 0.01))),
            "GND",
            List.of());
    return new SimBoard(serial, r, l, List.of(faults));
  }

  private static void add(
      List<Part> parts, List<Joint> joints, String ref, String value, String... nets) {
    parts.add(
        new Part(
            ref,
            value,
            "0603",
            ref,
            "",
            true,
            false,
            List.of(),
            "",
            Optional.of(new Part.Spot(5 * parts.size(), 0, 0, Side.FIRST)),
            Double.NaN,
            Double.NaN));
    for (int i = 0; i < nets.length; i++) {
      joints.add(
          new Joint(
              ref,
              String.valueOf(i + 1),
              nets[i],
              i,
              0,
              Joint.Reach.FIRST,
              false,
              0,
              true,
              1,
              1,
              0,
              false,
              0));
    }
  }

  @BeforeMethod
  public void start() throws IOException {
    bench =
        SimBench.start(
            List.of(
                board("01"),
                board("04"),
                board("05"),
                board("06"),
                board("07"),
                board("08", new Fault.WrongValue("R1", 10), new Fault.Bridge("MID", "GND", 1)),
                board("09", new Fault.Setting("meter", "current-jack")),
                board("02", new Fault.Open("U1", "2")),
                board("03", new Fault.Bridge("3V3", "GND", 1))),
            7);
  }

  @AfterMethod(alwaysRun = true)
  public void stop() {
    bench.close();
  }

  private Supply supply() throws BenchException {
    return new Supply(TcpLink.connect("127.0.0.1", bench.instrument("supply").port(), TIMEOUT));
  }

  private Meter meter() throws BenchException {
    return new Meter(TcpLink.connect("127.0.0.1", bench.instrument("meter").port(), TIMEOUT));
  }

  private Hands hands() throws BenchException {
    return new Hands(TcpLink.connect("127.0.0.1", bench.instrument("hands").port(), TIMEOUT));
  }

  @Test
  public void aGoodBoardIsPoweredAndRead() throws BenchException {
    try (Hands h = hands();
        Supply s = supply();
        Meter m = meter()) {
      h.lay("01");
      s.makeSafe();
      s.set(5, 0.1);
      s.output(true);
      // 10 mA · (1 ± 0.24) of the load and 3.3 V / 3.2 kΩ
      assertEquals(s.amps(), 0.011, 0.003);
      assertEquals(s.volts(), 5, 0.01);
      h.touch("3V3", "GND");
      assertEquals(m.dcVolts(), 3.3, 0.06);
      h.touch("R2.1", "J1.2");
      assertEquals(m.dcVolts(), 3.3 * 2200 / 3200, 0.05);
      s.output(false);
      assertEquals(s.amps(), 0, 1e-3);
      h.touch("3V3", "GND");
      assertEquals(m.ohms(), 3200, 20);
      h.touch("MID", "GND");
      assertEquals(m.ohms(), 2200, 15);
      h.touch("5V0", "GND");
      assertEquals(m.ohms(), Double.POSITIVE_INFINITY);
      assertTrue(s.identity().contains("simulated supply"));
    }
  }

  /// By four wires the copper shows: 3V3 reads least where it touches ground, and more 60 mm off;
  /// with the leads in it both are the same.
  @Test
  public void fourWiresShowTheCopper() throws BenchException, IOException {
    SimBoard near = board("21", new Fault.Bridge("U1.2", "U1.3", 0.05));
    Revision r = near.revision();
    List<Joint> apart = new ArrayList<>();
    for (Joint j : r.joints()) {
      double x = j.xMm() + (j.part().equals("R1") ? 60 : 0);
      apart.add(
          new Joint(
              j.part(), j.pin(), j.net(), x, 0, j.reach(), false, 0, true, 1, 1, 0, false, 0));
    }
    Revision wide = new Revision("T", "1", r.parts(), apart, Outline.UNKNOWN);
    bench.close();
    bench = SimBench.start(List.of(new SimBoard("21", wide, near.ladder(), near.faults())), 7);
    try (Hands h = hands();
        Meter m = meter()) {
      h.lay("21");
      h.touch("U1.2", "GND");
      double here = m.fourWires();
      double leads = m.ohms();
      h.touch("R1.1", "GND");
      double there = m.fourWires();
      assertEquals(here, 0.05, 2e-3);
      // 59 mm of a track from 0.3 to 2 mm wide, 0.493 mΩ a square
      assertTrue(there - here > 0.013 && there - here < 0.1, here + " and " + there);
      assertEquals(leads, 0.2, 0.08);
      assertEquals(m.ohms(), leads, 0.15);
      h.touch("MID", "R2.2");
      assertEquals(m.fourWires(), 687.5, 5, "2.2 kΩ beside 1 kΩ to the rail that is on ground");
    }
  }

  /// A dialect that does not say how ohms are read by four wires is told so.
  @Test
  public void withoutALineForFourWires() throws BenchException {
    Dialect own =
        Dialect.read("{\"kind\":\"meter\",\"volts\":\"MEAS:VOLT:DC?\",\"ohms\":\"MEAS:RES?\"}");
    try (Hands h = hands();
        Meter m =
            new Meter(
                TcpLink.connect("127.0.0.1", bench.instrument("meter").port(), TIMEOUT), own)) {
      h.lay("01");
      h.touch("3V3", "GND");
      assertEquals(m.ohms(), 3200, 20);
      assertTrue(
          expectThrows(BenchException.class, m::fourWires).getMessage().contains("fourWires"));
    }
  }

  /// 0.3 A through 10 Ω are 0.9 W in what is rated 0.1 W: it gets hot, and that is told and felt.
  @Test(timeOut = 30_000)
  public void whatGetsTooHotIsToldAndFelt() throws BenchException {
    List<String> told = new java.util.concurrent.CopyOnWriteArrayList<>();
    bench.onPassed(told::add);
    try (Hands h = hands();
        Supply s = supply()) {
      h.lay("08");
      assertEquals(h.celsius("R1"), 25, 2);
      s.makeSafe();
      s.set(5, 1);
      s.output(true);
      while (told.stream().noneMatch(t -> t.startsWith("08: R1 is at "))) {
        assertEquals(s.amps(), 0.31, 0.05);
      }
      assertTrue(h.celsius("R1") > 150, "hot");
      assertEquals(h.celsius("R2"), 25, 3);
      s.output(false);
      h.lay("01");
      assertEquals(h.celsius("R1"), 25, 2);
      expectThrows(BenchException.class, () -> h.celsius("R9"));
    }
  }

  /// A lead in the current jack joins what the tips touch: the meter shows next to nothing, and the
  /// regulator gives all it can.
  @Test
  public void aLeadInTheCurrentJackShortsWhatItTouches() throws BenchException {
    try (Hands h = hands();
        Supply s = supply();
        Meter m = meter()) {
      h.lay("09");
      s.makeSafe();
      s.set(5, 1);
      s.output(true);
      assertEquals(s.amps(), 0.011, 0.003, "nothing is touched yet");
      h.touch("3V3", "GND");
      assertEquals(m.dcVolts(), 0.025, 0.02, "0.5 A over 50 mΩ");
      assertEquals(s.amps(), 0.5, 0.03);
      s.output(false);
      assertTrue(m.ohms() < 0.4, "it measures its own shunt");
    }
  }

  @Test
  public void faultsShowAtTheMeter() throws BenchException {
    try (Hands h = hands();
        Supply s = supply();
        Meter m = meter()) {
      h.lay("02");
      s.makeSafe();
      s.set(5, 0.1);
      s.output(true);
      h.touch("3V3", "GND");
      assertEquals(m.dcVolts(), 0, 0.01);
      s.output(false);
      h.lay("03");
      h.touch("3V3", "GND");
      assertEquals(m.ohms(), 1, 0.4);
      s.set(5, 0.1);
      s.output(true);
      assertEquals(s.amps(), 0.1, 2e-3);
    }
  }

  @Test
  public void aBoardReadsTheSameEachTimeAndBoardsDiffer() throws BenchException, IOException {
    double first = rail("01");
    bench.close();
    start();
    assertEquals(rail("01"), first, 2e-3, "from the seed");
    double least = first;
    double most = first;
    for (String board : List.of("04", "05", "06", "07")) {
      double v = rail(board);
      least = Math.min(least, v);
      most = Math.max(most, v);
    }
    assertTrue(most - least > 2e-3, "parts have tolerances: " + least + " V to " + most + " V");
    assertTrue(most - least < 0.3, "healthy boards differ by no more than their parts may");
  }

  private double rail(String board) throws BenchException {
    try (Hands h = hands();
        Supply s = supply();
        Meter m = meter()) {
      h.lay(board);
      s.makeSafe();
      s.set(5, 0.1);
      s.output(true);
      h.touch("3V3", "GND");
      return m.dcVolts();
    }
  }

  @Test
  public void wrongCommandsLandInTheErrorQueue() throws BenchException {
    try (Supply s = supply();
        Hands h = hands()) {
      BenchException e = expectThrows(BenchException.class, () -> s.command("VOLT 99"));
      assertTrue(e.getMessage().contains("-222"), e.getMessage());
      assertTrue(
          expectThrows(BenchException.class, () -> s.command("FROB 1"))
              .getMessage()
              .contains("-113"));
      assertTrue(
          expectThrows(BenchException.class, () -> s.command("OUTP MAYBE"))
              .getMessage()
              .contains("-104"));
      assertTrue(
          expectThrows(BenchException.class, () -> h.lay("99")).getMessage().contains("-224"));
      assertTrue(
          expectThrows(BenchException.class, () -> h.touch("3V3", "GND"))
              .getMessage()
              .contains("-221"));
      s.command("VOLT 5"); // the queue is empty again
    }
  }

  /// Long and short forms, several commands on a line, lower case: as any client may send.
  @Test
  public void anyClientCanTalkToIt() throws IOException {
    try (Socket s =
        new Socket(InetAddress.getLoopbackAddress(), bench.instrument("supply").port())) {
      OutputStream out = s.getOutputStream();
      BufferedReader in =
          new BufferedReader(
              new java.io.InputStreamReader(s.getInputStream(), StandardCharsets.US_ASCII));
      out.write(
          "*RST;*CLS\nSOURce:VOLTage:LEVel 4.5\ncurr 0.25; :volt?; CURRent?\n"
              .getBytes(StandardCharsets.US_ASCII));
      assertEquals(in.readLine(), "4.500000E+00;2.500000E-01");
      out.write(
          "syst:err?\r\n*opc?\nnonsense\nSYSTem:ERRor:NEXT?\n".getBytes(StandardCharsets.US_ASCII));
      assertEquals(in.readLine(), "0,\"No error\"");
      assertEquals(in.readLine(), "1");
      assertTrue(in.readLine().startsWith("-113"));
    }
  }

  @DataProvider
  Object[][] mischief() {
    return new Object[][] {
      {Mischief.HANG, "did not answer"}, {Mischief.GARBAGE, ""}, {Mischief.VANISH, ""},
    };
  }

  @Test(dataProvider = "mischief", timeOut = 30_000)
  public void surprisesEndInAnExceptionInTime(Mischief m, String says) throws BenchException {
    try (Hands h = hands();
        Supply s = supply()) {
      h.lay("01");
      s.makeSafe();
      s.set(5, 0.1);
      s.output(true);
      bench.instrument("supply").mischief(m);
      long before = System.nanoTime();
      BenchException e =
          expectThrows(
              BenchException.class,
              () -> {
                for (int i = 0; i < 3; i++) {
                  s.amps();
                }
              });
      assertTrue(e.getMessage().contains(says), e.getMessage());
      assertTrue(System.nanoTime() - before < 3_000_000_000L);
    }
  }

  @Test(timeOut = 15_000)
  public void theSupplyGoesOffByItself() throws Exception {
    try (Hands h = hands()) {
      h.lay("01");
    }
    try (Supply s = supply()) {
      s.set(5, 0.1);
      s.output(true);
      assertTrue(bench.outputOn());
    }
    for (int i = 0; bench.outputOn() && i < 100; i++) {
      Thread.sleep(20);
    }
    assertFalse(bench.outputOn(), "its last client is gone");
    try (Supply s = supply()) {
      s.set(5, 0.1);
      s.output(true);
      Thread.sleep(3700);
      assertFalse(bench.outputOn(), "nobody spoke to it for three seconds");
    }
  }

  @Test
  public void ohmsOnAPoweredBoardAreRefused() throws BenchException {
    try (Hands h = hands();
        Supply s = supply();
        Meter m = meter()) {
      h.lay("01");
      s.set(5, 0.1);
      s.output(true);
      h.touch("3V3", "GND");
      expectThrows(BenchException.class, m::ohms);
    }
  }

  @Test
  public void noInstrumentIsToldWithItsAddress() throws IOException {
    int free;
    try (ServerSocket s = new ServerSocket(0)) {
      free = s.getLocalPort();
    }
    BenchException e =
        expectThrows(BenchException.class, () -> TcpLink.connect("127.0.0.1", free, TIMEOUT));
    assertTrue(e.getMessage().contains("127.0.0.1:" + free), e.getMessage());
  }

  /// An instrument that sends a line without an end, and one that sends far too much.
  @Test(timeOut = 30_000)
  public void endlessAnswersAreCutOff() throws Exception {
    for (String flood : List.of("1.2", "9".repeat(10_000))) {
      try (ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
        Thread.ofVirtual()
            .start(() -> {
              try (Socket s = server.accept()) {
                s.getOutputStream().write(flood.getBytes(StandardCharsets.US_ASCII));
                s.getOutputStream().flush();
                Thread.sleep(2000);
              } catch (Exception e) {
                // the client hung up, as it should
              }
            });
        try (Supply s = new Supply(TcpLink.connect("127.0.0.1", server.getLocalPort(), TIMEOUT))) {
          BenchException e = expectThrows(BenchException.class, s::amps);
          assertTrue(
              e.getMessage().contains("did not answer") || e.getMessage().contains("more than"),
              e.getMessage());
        }
      }
    }
  }

  /// A supply that says other numbers than it was set to.
  @Test(timeOut = 30_000)
  public void aSupplyThatWasNotSetIsFound() throws Exception {
    try (ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      Thread.ofVirtual()
          .start(() -> {
            try (Socket s = server.accept();
                BufferedReader in =
                    new BufferedReader(
                        new java.io.InputStreamReader(
                            s.getInputStream(), StandardCharsets.US_ASCII))) {
              String line;
              while ((line = in.readLine()) != null) {
                if (line.endsWith("?")) {
                  s.getOutputStream()
                      .write(
                          (line.startsWith("SYST") ? "+0,\"No error\"\n" : "7\n")
                              .getBytes(StandardCharsets.US_ASCII));
                }
              }
            } catch (IOException e) {
              // the client hung up
            }
          });
      try (Supply s = new Supply(TcpLink.connect("127.0.0.1", server.getLocalPort(), TIMEOUT))) {
        BenchException e = expectThrows(BenchException.class, () -> s.set(5, 0.1));
        assertTrue(e.getMessage().contains("was set to"), e.getMessage());
        assertTrue(
            expectThrows(BenchException.class, () -> s.output(true))
                .getMessage()
                .contains("expected 0 or 1"));
      }
    }
  }
}
