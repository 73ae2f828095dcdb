package ell.work;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.pulse.PulseFacts;
import ell.core.pulse.PulsePlan;
import ell.core.quantity.Verdict;
import ell.core.series.Series;
import ell.work.bench.SimulatedBench;
import ell.work.pulse.ScopeRun;
import ell.work.space.ActException;
import java.io.BufferedWriter;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/// Captures in the book: kept as they were, judged when they are kept, found when they were
/// changed.
public final class CapturesTest {
  private Path folder;
  private Path file;
  private Workshop w;

  @BeforeMethod
  public void open() throws Exception {
    w = Demo.workspace(true);
    file = w.book().place().fileOnly();
    folder = Files.createTempDirectory("captured");
    w.pulses().say("MG-1", "B", List.of("XIN clock=1MHz within=1000ppm family=cmos3.3"));
  }

  @AfterMethod(alwaysRun = true)
  public void close() throws Exception {
    w.close();
  }

  private Path clock(String name, double high) throws IOException {
    StringBuilder b = new StringBuilder("increment,1e-8\nstart,-1e-6\nCH1 (V)\n");
    for (int i = 0; i < 2000; i++) {
      b.append(i % 100 < 1 ? high / 2 : i % 100 < 50 ? high : 0).append('\n');
    }
    return Files.writeString(folder.resolve(name), b);
  }

  private PulsePlan plan(String board) throws Exception {
    return w.plan(w.buildOf(board)).pulse();
  }

  private Logged keep(String board, Path f) throws Exception {
    return w.captures().keep(plan(board), board, "XIN", f, Optional.empty(), 0, _ -> {});
  }

  @Test
  public void aCaptureIsKeptAsItWas() throws Exception {
    Path f = clock("good.csv", 3.3);
    Entry.Capture c = (Entry.Capture) keep("01", f).entry();
    assertEquals(c.verdict(), Optional.of(Verdict.WITHIN), c.told().toString());
    assertEquals(w.captures().body(c), Files.readAllBytes(f));
    Series s = w.captures().open(c).orElseThrow();
    assertEquals(s.size(), 2000);
    assertEquals(s.second(0), -1e-6, 1e-15);
    assertEquals(PulseFacts.of(w.state("01")).at("XIN").orElseThrow(), c);
    assertTrue(w.book().verify().ok());
    // a bad one holds the board, a good one behind it lets it go
    keep("01", clock("low.csv", 1.2));
    assertTrue(w.standing("01").phrase().contains("XIN signal"), w.standing("01").phrase());
    keep("01", f);
    assertTrue(w.state("01").findings().stream().noneMatch(x -> x.place().contains("XIN")));
  }

  @Test
  public void whatWasChangedIsFound() throws Exception {
    Entry.Capture c = (Entry.Capture) keep("01", clock("good.csv", 3.3)).entry();
    w.close();
    try (Connection db = DriverManager.getConnection("jdbc:sqlite:" + file);
        Statement s = db.createStatement()) {
      for (String trigger : List.of("update", "delete")) {
        s.executeUpdate("DROP TRIGGER photograph_no_" + trigger);
      }
      s.executeUpdate("UPDATE photograph SET body = x'1f8b' WHERE sha256 = '" + c.sha256() + "'");
    }
    w = Workshop.open(file, Clock.systemDefaultZone());
    assertFalse(w.book().verify().ok());
    ActException e = expectThrows(ActException.class, () -> w.captures().open(c));
    assertTrue(e.getMessage().contains("was changed"), e.getMessage());
  }

  @Test
  public void whatIsNoneIsRefusedWhole() throws Exception {
    int before = w.entries("01").size();
    Path letters =
        Files.writeString(folder.resolve("x.csv"), "time (s),CH1\n0,1\n1e-6,abc\n2e-6,2\n");
    ActException e = expectThrows(ActException.class, () -> keep("01", letters));
    assertTrue(e.getMessage().contains("x.csv, line 3"), e.getMessage());
    Path two =
        Files.writeString(folder.resolve("two.csv"), "time (s),A,B\n0,1,2\n1e-6,1,2\n2e-6,1,2\n");
    assertTrue(
        expectThrows(ActException.class, () -> keep("01", two)).getMessage().contains("A, B"));
    expectThrows(ActException.class, () -> keep("99", clock("y.csv", 3)));
    expectThrows(
        ActException.class,
        () ->
            w.captures()
                .keep(
                    plan("01"), "01", "NOWHERE", clock("z.csv", 3), Optional.empty(), 0, _ -> {}));
    assertEquals(w.entries("01").size(), before);
  }

  /// A file that is too large for the book: its samples lie beside it, and it is opened from there.
  @Test
  public void aLargeOneLiesBeside() throws Exception {
    Path f = folder.resolve("large.csv");
    int n = 8_000_000;
    try (BufferedWriter out = Files.newBufferedWriter(f)) {
      out.write("increment,1e-8\nCH1 (V)\n");
      for (int i = 0; i < n; i++) {
        out.write(i % 100 < 2 ? "1.6500\n" : i % 100 < 50 ? "3.3000\n" : "0.0000\n");
      }
    }
    assertTrue(Files.size(f) > ell.work.pulse.Captures.MOST_KEPT);
    List<String> told = new ArrayList<>();
    Logged l = w.captures().keep(plan("01"), "01", "XIN", f, Optional.empty(), 0, told::add);
    Entry.Capture c = (Entry.Capture) l.entry();
    assertEquals(c.sha256(), "");
    assertEquals(c.measure("frequency").orElseThrow().value(), 1e6, 1);
    Files.delete(f);
    Series s = w.captures().open(c).orElseThrow();
    assertEquals(s.size(), n);
    assertEquals(s.value(n - 1), 0.0, 1e-6);
    assertTrue(Files.isDirectory(w.captures().beside()));
    assertTrue(w.book().verify().ok());
  }

  /// A scope on the simulated bench: range and time are found, what nobody powers is told.
  @Test
  public void theScopeFindsItsSettings() throws Exception {
    w.pulses().say("MG-1", "B", List.of("XIN none"));
    try (SimulatedBench sim = SimulatedBench.start(w, 1)) {
      sim.servers().layDown("01");
      try (ScopeRun run = new ScopeRun(w.captures(), plan("01"), "01", sim.bench())) {
        Series off = run.take("3V3", ScopeRun.Look.FOUND);
        assertEquals(off.most(), 0, 0.1);
        assertTrue(run.bandwidth() > 0);
        expectThrows(ActException.class, () -> run.take("NOWHERE", ScopeRun.Look.FOUND));
        Entry.Capture c =
            (Entry.Capture) run.keep("3V3", new ScopeRun.Look(1e-3, 8, 500, false)).entry();
        assertTrue(c.told().toString().contains("nothing but 0 V"), c.told().toString());
        assertTrue(c.with().contains("simulated scope"), c.with());
      }
    }
  }
}
