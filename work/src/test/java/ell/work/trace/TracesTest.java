package ell.work.trace;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.entry.Entry;
import ell.core.trace.Choice;
import ell.core.trace.Suspect;
import ell.core.trace.TraceFacts;
import ell.core.trace.Traced;
import ell.work.Workshop;
import ell.work.act.Outcome;
import ell.work.demo.DemoWorkspace;
import ell.work.space.ActException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/// What the books of a bench add to a search, and what a search adds to the book.
public class TracesTest {
  private Workshop w;

  @BeforeMethod
  public void demo() throws Exception {
    w =
        DemoWorkspace.make(
            Files.createTempDirectory("traces").resolve("ws.ell"), Path.of("../demo"), true);
  }

  @AfterMethod(alwaysRun = true)
  public void close() throws Exception {
    w.close();
  }

  private void type(String board, String... lines) throws Exception {
    for (String l : lines) {
      assertTrue(w.type(board, l) instanceof Outcome.Done, l);
    }
  }

  private Suspect suspect(String board, String words) throws Exception {
    return w.traces().suspects(board).stream()
        .filter(s -> s.words().equals(words))
        .findFirst()
        .orElseThrow();
  }

  private static double chance(Traced t, Predicate<String> which) {
    return t.suspects().stream()
        .filter(r -> which.test(r.fault()))
        .mapToDouble(Traced.Ranked::chance)
        .sum();
  }

  @Test
  public void theBookOfThisVeryBoardIsInTheChances() throws Exception {
    double plain = suspect("06", "open U7.3").prior();
    type("06", "U7 reflowed");
    assertEquals(suspect("06", "open U7.3").prior(), 3 * plain, 1e-9);
    // 07 was printed with thin paste at J2.3, and 06 with joined paste at U4.13
    assertTrue(
        suspect("06", "bridge U4.13 U4.14 0.3ohm").prior()
            > 20 * suspect("08", "bridge U4.13 U4.14 0.3ohm").prior());
    // 05 has another crystal than the bill says
    assertTrue(
        suspect("05", "value Y1 11059200").prior()
            > 15 * suspect("06", "value Y1 11059200").prior());
    double dead = suspect("06", "dead U7").prior();
    type("01", "U7 dead", "U3 dead");
    assertTrue(suspect("06", "dead U7").prior() > dead, "what was counted on another board");
    List<String> told = w.traces().of("06", 1).told();
    assertTrue(
        told.stream().anyMatch(s -> s.startsWith("not fitted yet")), "J2 and others: " + told);
    assertFalse(
        w.traces().suspects("06").stream().anyMatch(s -> s.words().equals("missing J2")),
        "no suspect that is known");
  }

  @Test
  public void aFindingIsAnEntryAndTakesItselfBack() throws Exception {
    assertEquals(
        expectThrows(ActException.class, () -> w.traces().find("06", Optional.empty()))
            .getMessage()
            .split(":")[0],
        "nothing is likely enough yet");
    type("06", "3V3A 0.0", "FB1.2 C9.1 open", "FB1.2 C9.1 open", "3V3 3.31", "FB1.1 3.31");
    Traced t = w.traces().of("06", 5);
    assertEquals(t.finding().orElseThrow().suspect().words(), "open FB1.2");
    int before = w.entries("06").size();
    w.traces().find("06", Optional.empty()).orThrow();
    Entry.Found f = TraceFacts.of(w.state("06")).last().orElseThrow();
    assertEquals(f.fault(), "open FB1.2");
    assertEquals(f.place(), "FB1.2");
    assertFalse(f.design());
    assertTrue(f.chance() > 0.9 && f.chance() <= 1);
    assertTrue(f.again().contains("3V3A ?"), f.again().toString());
    for (long e : f.evidence()) {
      assertTrue(w.entries("06").stream().anyMatch(l -> l.number() == e), "entry " + e);
    }
    assertEquals(w.entries("06").size(), before + 1);
    double sister = suspect("07", "open FB1.2").prior();
    long number = w.entries("06").getLast().number();
    type("06", "strike " + number);
    assertEquals(suspect("07", "open FB1.2").prior(), sister / 5, 1e-9, "it is taken back");
    assertTrue(TraceFacts.of(w.state("06")).found().isEmpty());
    // mended, it closes what it opened
    w.traces().find("06", Optional.empty()).orThrow();
    assertTrue(w.state("06").findings().stream().anyMatch(x -> x.what().equals("open FB1.2")));
    type("06", "FB1 resoldered", "3V3A 3.29");
    assertFalse(w.state("06").findings().stream().anyMatch(x -> x.what().equals("open FB1.2")));
    Traced good = w.traces().of("06", 1);
    assertTrue(chance(good, "healthy"::equals) > 0.4, good.suspects().getFirst().toString());
    assertTrue(chance(good, "open FB1.2"::equals) < 0.01);
  }

  @Test
  public void chancesThatAreSaidAreKept() throws Exception {
    w.traces().setPrior("06", "dead U7", Optional.of(0.2));
    assertEquals(suspect("06", "dead U7").prior(), 0.2);
    assertEquals(suspect("07", "dead U7").prior(), 0.2, "for the revision");
    assertEquals(suspect("06", "dead U7").factors().getFirst().why(), "as you said it");
    w.traces().setPrior("06", "dead U7", Optional.empty());
    assertTrue(suspect("06", "dead U7").prior() < 0.01);
    for (double wrong : new double[] {0, 1, -1, 2, Double.NaN}) {
      expectThrows(
          ActException.class, () -> w.traces().setPrior("06", "dead U7", Optional.of(wrong)));
    }
    expectThrows(ActException.class, () -> w.traces().setPrior("06", "dead U99", Optional.of(0.1)));
    expectThrows(ActException.class, () -> w.traces().setPrior("06", "rubbish", Optional.of(0.1)));
  }

  @Test
  public void linksThatStandAreTheBoard() throws Exception {
    assertTrue(w.traces().suspects("06").stream().anyMatch(s -> s.words().equals("link SJ3 open")));
    type("06", "SJ3 open");
    assertTrue(
        w.traces().suspects("06").stream().anyMatch(s -> s.words().equals("link SJ3 closed")),
        "the other way round");
  }

  @Test
  public void onlyWhatInstrumentsShowIsMeasured() throws Exception {
    List<Choice> all = w.traces().of("06", Traces.ALL).next();
    assertTrue(all.stream().anyMatch(c -> TraceRun.can(c.probe())));
    assertTrue(all.stream().anyMatch(c -> !TraceRun.can(c.probe())));
    assertTrue(all.size() >= w.traces().of("06", 7).next().size());
    assertEquals(w.traces().of("06", 7).next().size(), Math.min(7, all.size()));
  }

  /// Working out one board leaves nothing in another.
  @Test
  public void boardsDoNotMix() throws Exception {
    Traced before = w.traces().of("A01", 3);
    type("06", "3V3 0.0");
    w.traces().of("06", 3);
    Traced after = w.traces().of("A01", 3);
    for (int i = 0; i < 20; i++) {
      String fault = before.suspects().get(i).fault();
      assertEquals(chance(after, fault::equals), before.suspects().get(i).chance(), 1e-9, fault);
    }
  }
}
