package ell.work.talk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.bench.instrument.Hands;
import ell.bench.instrument.Supply;
import ell.bench.line.LineAddress;
import ell.core.entry.Entry;
import ell.core.heat.HeatFacts;
import ell.core.power.Fault;
import ell.core.power.FaultWords;
import ell.core.quantity.Verdict;
import ell.core.talk.TalkFacts;
import ell.work.OddBoards;
import ell.work.Workshop;
import ell.work.act.Outcome;
import ell.work.bench.SimulatedBench;
import ell.work.demo.DemoWorkspace;
import ell.work.space.ActException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/// Settings that stay or do not, numbers that are one board's only, links that must be so.
public class SettingsTest {
  private Workshop w;

  @BeforeMethod
  public void demo() throws Exception {
    w =
        DemoWorkspace.make(
            Files.createTempDirectory("lines").resolve("ws.ell"), Path.of("../demo"), true);
    w.talks().answer("MG-1", "B", "cable", "yes");
  }

  private TalkRun.Done run(String board, Path script, String... faults) throws Exception {
    List<Fault> all = List.of(faults).stream().map(FaultWords::parse).toList();
    try (SimulatedBench sim = SimulatedBench.start(w, 1, Map.of(), 20, Map.of(board, all));
        Supply _ = on(sim, board)) {
      LineAddress at = new LineAddress("tcp:" + sim.bench().addresses().get("line"));
      return new TalkRun(
              w.talks(),
              w.recordings(),
              w.acts(),
              w.plan(w.buildOf(board)),
              board,
              new TalkRun.Watcher() {})
          .run(Scripts.open(script), at, () -> at.open(2000), List.of());
    }
  }

  /// A board on the bench, with power until the supply is closed.
  private Supply on(SimulatedBench sim, String board) throws Exception {
    try (Hands hands = sim.bench().need(Hands.KIND)) {
      hands.lay(board);
    }
    return OddBoards.power(sim.servers(), w.ladder("MG-1", "B"));
  }

  /// The demo's first script without the wait at its end.
  private static Path load() throws Exception {
    Path folder = Files.createTempDirectory("load");
    String text = Files.readString(Path.of("../demo/mg-1-b/first-load.json"));
    Files.copy(Path.of("../demo/mg-1-b/gauge-1.4.txt"), folder.resolve("gauge-1.4.txt"));
    return Files.writeString(
        folder.resolve("first-load.json"), text.replaceAll(",\\s*\\{\"wait\"[^}]*\\}", ""));
  }

  private static final Path NUMBER = Path.of("../demo/mg-1-b/number.json");

  private void loaded(String board) throws Exception {
    assertEquals(run(board, load()).talk().verdict().orElseThrow(), Verdict.WITHIN);
  }

  private void type(String board, String line) throws Exception {
    w.type(board, line).orThrow();
  }

  @Test
  public void anOperationWaitsForItsLinks() throws Exception {
    loaded("01");
    ActException e = expectThrows(ActException.class, () -> run("01", NUMBER));
    assertTrue(e.getMessage().contains("SJ3 is closed"), e.getMessage());
    int before = w.entries("01").size();
    type("01", "SJ3 open");
    assertEquals(w.entries("01").size(), before + 2, "the change of a solder link is a heating");
    assertEquals(HeatFacts.of(w.state("01")).heatCycles().get("SJ3"), 1);
    type("01", "SJ3 open");
    assertEquals(HeatFacts.of(w.state("01")).heatCycles().get("SJ3"), 1, "it was so already");
    TalkRun.Done d = run("01", NUMBER);
    assertEquals(d.talk().verdict().orElseThrow(), Verdict.WITHIN, d.talk().told().toString());
    assertEquals(TalkFacts.of(w.state("01")).knows().orElseThrow().serial(), "01");
    assertEquals(TalkFacts.of(w.state("01")).done(), java.util.Set.of("program", "number"));
  }

  /// The same memory, protected by a mistake of the design although the book has the link open.
  @Test
  public void aMemoryThatIsProtectedIsFoundByReadingBack() throws Exception {
    loaded("01");
    type("01", "SJ3 open");
    TalkRun.Done d = run("01", NUMBER, "tied U6.7 3V3");
    String told = String.join("\n", d.talk().told()) + d.talk().steps().getLast().got();
    assertEquals(d.talk().verdict().orElseThrow(), Verdict.OUT);
    assertTrue(told.contains("not kept"), told);
    assertTrue(told.contains("tied U6.7 3V3"), told);
    assertTrue(TalkFacts.of(w.state("01")).knows().isEmpty());
  }

  /// Every second write is lost at the joint of the memory's data: how many were kept is said with
  /// what it tells of the chance.
  @Test
  public void tenWereSentAndSomeWereKept() throws Exception {
    loaded("01");
    type("01", "SJ3 open");
    Path f = Files.createTempDirectory("set").resolve("s.json");
    StringBuilder s =
        new StringBuilder(
            "[{\"send\":\"ver?\\r\",\"expect\":\"firmware\",\"retries\":4,\"within\":1},{\"settings\":{");
    for (int i = 0; i < 10; i++) {
      s.append(i == 0 ? "" : ",")
          .append("\"k")
          .append(i)
          .append("\":\"")
          .append(i + 1)
          .append("\"");
    }
    Files.writeString(f, s + "},\"within\":1}]");
    TalkRun.Done d = run("01", f, "sometimes 0.5 open U6.5");
    String got = d.talk().steps().getLast().got();
    assertEquals(d.talk().verdict().orElseThrow(), Verdict.OUT, got);
    assertTrue(got.matches("(?s)10 were sent, [1-9] were kept.*chance of.*clean writes.*"), got);
  }

  @Test
  public void aNumberIsOneBoardsOnly() throws Exception {
    w.log("01", List.of(new Entry.Knows("U6", "01", "B")));
    Outcome other = w.log("02", List.of(new Entry.Knows("U6", "01", "B")));
    assertTrue(other instanceof Outcome.Refused r && r.refusal().rule().equals("number"));
    assertTrue(w.log("02", List.of(new Entry.Knows("U6", "02", "B"))) instanceof Outcome.Done);
    assertTrue(
        w.log("02", List.of(new Entry.Knows("U6", "03", "B"))) instanceof Outcome.Refused,
        "that of a board that was never written is its own too");
  }

  /// A board on the bench that holds the number of another one is not written over.
  @Test
  public void theWrongBoardIsNotWrittenOver() throws Exception {
    loaded("01");
    type("01", "SJ3 open");
    w.log("01", List.of(new Entry.Knows("U6", "01", "B")));
    loaded("02");
    type("02", "SJ3 open");
    // board 01 lies on the bench, and the maker says that it is 02
    try (SimulatedBench sim = SimulatedBench.start(w, 1);
        Supply _ = on(sim, "01")) {
      LineAddress at = new LineAddress("tcp:" + sim.bench().addresses().get("line"));
      TalkRun.Done d =
          new TalkRun(
                  w.talks(),
                  w.recordings(),
                  w.acts(),
                  w.plan(w.buildOf("02")),
                  "02",
                  new TalkRun.Watcher() {})
              .run(Scripts.open(NUMBER), at, () -> at.open(2000), List.of());
      assertEquals(d.talk().verdict().orElseThrow(), Verdict.OUT);
      assertTrue(
          d.talk().steps().getLast().got().contains("board 01"), d.talk().steps().toString());
      assertFalse(d.knows().isPresent());
    }
  }

  @Test
  public void brownOutBeginsAnew() throws Exception {
    try (SimulatedBench sim = SimulatedBench.start(w, 1);
        Supply s = on(sim, "01")) {
      LineAddress at = new LineAddress("tcp:" + sim.bench().addresses().get("line"));
      StringBuilder heard = new StringBuilder();
      try (Terminal t =
          new Terminal(
              w.recordings(),
              w.acts(),
              "01",
              at,
              () -> at.open(2000),
              new Terminal.Watcher() {
                @Override
                public void heard(String text) {
                  heard.append(text);
                }

                @Override
                public void line(boolean there, String words) {}
              })) {
        for (int i = 0; i < 4; i++) {
          int before = i;
          long until = System.nanoTime() + 5_000_000_000L;
          while (heard.toString().split("no program", -1).length - 1 <= before
              && System.nanoTime() < until) {
            Thread.sleep(20);
          }
          s.select(1);
          s.set(4, 0.5); // too little for 3.3 V behind two regulators
          Thread.sleep(60);
          s.set(12, 0.5);
        }
        Entry.Talk e = (Entry.Talk) t.end().entry();
        assertTrue(
            e.told().toString().contains("'loader 1: no program' came"), e.told().toString());
      }
    }
  }
}
