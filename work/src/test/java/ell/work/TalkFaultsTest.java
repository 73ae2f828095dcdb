package ell.work;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.bench.instrument.Hands;
import ell.bench.instrument.Supply;
import ell.bench.line.LineAddress;
import ell.core.power.Fault;
import ell.core.power.FaultWords;
import ell.core.quantity.Verdict;
import ell.work.bench.SimulatedBench;
import ell.work.demo.DemoWorkspace;
import ell.work.talk.Scripts;
import ell.work.talk.TalkRun;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// The demo's scripts over the simulated line under one fault at a time: the board is loaded, or
/// the true reason is among those that are told.
public class TalkFaultsTest {
  private static final String BOARD = "01";
  private static final Path DEMO = Path.of("../demo");

  private Path folder;

  @BeforeClass
  public void make() throws Exception {
    folder = Files.createTempDirectory("talk");
    try (Workshop w = DemoWorkspace.make(folder.resolve("demo.ell"), DEMO, true)) {
      w.talks().answer("MG-1", "B", "cable", "yes");
      w.talks()
          .keepHealthy(
              "MG-1",
              "B",
              "first-load",
              "Marram MG-1 B firmware 1.4\r\nboard MG-1 B\r\nrails all there\r\n");
    }
  }

  /// A fault, the script, whether it goes through (nothing where a pin that floats decides), and
  /// what is told where it does not.
  @DataProvider(parallel = true)
  public Object[][] faults() {
    return new Object[][] {
      {"", "first-load", "yes", ""},
      {"open U4.39", "first-load", "no", "open U4.39"},
      {"open U4.40", "first-load", "no", "open U4.40"},
      {"bridge RAD_TX GND 0.5ohm", "first-load", "no", "bridge RAD_TX GND"},
      {"bridge RAD_TX RAD_RX 0.5ohm", "first-load", "no", "bridge RAD_TX RAD_RX"},
      {"tied U4.39 RAD_RX", "first-load", "no", "tied U4.39 RAD_RX"},
      {"tied U4.40 RAD_TX", "first-load", "no", "tied U4.40 RAD_TX"},
      {"missing Y1", "first-load", "no", "missing Y1"},
      {"open Y1.2", "first-load", "no", "open Y1.2"},
      {"value Y1 11.0592MHz", "first-load", "no", "value Y1"},
      {"open R16.1", "first-load", "", "open R16.1"},
      {"bridge BOOT0 3V3 0.5ohm", "first-load", "no", "BOOT0"},
      {"missing R16", "first-load", "", "missing R16"},
      {"bridge NRST GND 0.5ohm", "first-load", "no", "bridge NRST GND"},
      {"dead U4", "first-load", "no", "dead U4"},
      {"missing U6", "first-load", "yes", ""},
      {"open U6.5", "first-load", "yes", ""},
      {"firmware restarts", "first-load", "no", "every"},
      {"firmware baud 57600", "first-load", "no", "57600"},
      {"firmware hangs", "first-load", "no", "hangs"},
      {"firmware no banner", "first-load", "no", "did not begin"},
    };
  }

  @Test(dataProvider = "faults")
  public void itIsLoadedOrTheTrueReasonIsTold(
      String fault, String script, String through, String reason) throws Exception {
    TalkRun.Done d = run(fault, script);
    String told = String.join("\n", d.talk().told());
    boolean done = d.talk().verdict().orElseThrow() == Verdict.WITHIN;
    if (!through.isEmpty()) {
      assertEquals(done, through.equals("yes"), told);
    }
    assertTrue(done || told.contains(reason), told);
  }

  private TalkRun.Done run(String fault, String script) throws Exception {
    // a board that is blank each time
    Path fresh = Files.createTempDirectory("talk").resolve("ws.ell");
    Files.copy(folder.resolve("demo.ell"), fresh);
    try (Workshop w = Workshop.open(fresh, Clock.systemUTC())) {
      return run(w, fault, script);
    }
  }

  private static TalkRun.Done run(Workshop w, String fault, String script) throws Exception {
    List<Fault> all = fault.isEmpty() ? List.of() : List.of(FaultWords.parse(fault));
    Path from = DEMO.resolve("mg-1-b");
    Scripts.Opened s = Scripts.open(from.resolve(script + ".json"));
    try (SimulatedBench sim = SimulatedBench.start(w, 1, Map.of(), 20, Map.of(BOARD, all));
        Hands hands = sim.bench().need(Hands.KIND);
        Supply supply = sim.bench().need(Supply.KIND)) {
      hands.lay(BOARD);
      hands.rate(115_200);
      supply.set(12, 0.5);
      supply.output(true);
      LineAddress at = new LineAddress("tcp:" + sim.bench().addresses().get("line"));
      TalkRun run =
          new TalkRun(
              w.talks(),
              w.recordings(),
              w.acts(),
              w.plan(w.buildOf(BOARD)),
              BOARD,
              new TalkRun.Watcher() {});
      return run.run(s, at, () -> at.open(2000), List.of());
    }
  }
}
