package ell.core.practice;

import static ell.core.trace.Tracing.LADDER;
import static ell.core.trace.Tracing.REVISION;
import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.Fault;
import ell.core.power.FaultWords;
import ell.core.trace.Clues;
import ell.core.trace.Suspects;
import ell.core.trace.Traced;
import ell.core.trace.Tracer;
import ell.core.trace.Tracing;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Hidden faults, the best run and the account of a search, on a small board.
public class SearchTest {
  private static final Suspects.Listed LISTED = Suspects.of(REVISION, LADDER, Tracing.none());

  private static Fault fault(String words) {
    return FaultWords.parse(words);
  }

  @DataProvider
  public Object[][] pairs() {
    return new Object[][] {
      {"open U1.1", "open U1.1", true},
      {"open U1.1", "open U1.2", false},
      {"open U1.1", "sometimes 0.3 open U1.1", true},
      {"short C2", "bridge 3V3 GND 0.5ohm", true},
      {"bridge U2.1 U2.2 0.3ohm", "bridge 3V3 GND 2ohm", true},
      {"value R2 100", "value R2 1M", true},
      {"value R2 100", "value R3 100", false},
      {"dead U1", "missing U1", false},
      {"resistive R1.1 100ohm", "open R1.1", true},
      {"resistive R1.1 2ohm", "open R1.1", true}, // either is soldered anew,
      {"tied U2.3 3V3", "tied U2.3 GND", true},
    };
  }

  /// Which faults are one to whoever repairs; common practice, no source.
  @Test(dataProvider = "pairs")
  public void sameToWhoeverRepairs(String a, String b, boolean same) {
    SameFault s = new SameFault(REVISION);
    assertEquals(s.same(fault(a), fault(b)), same);
    assertEquals(s.same(fault(b), fault(a)), same, "whichever is named first");
  }

  @Test
  public void whatIsHiddenIsOfItsLevelAndShows() {
    Hiding hiding = new Hiding(REVISION, LADDER, LISTED.suspects());
    for (Level level : Level.course()) {
      for (int seed = 0; seed < 5; seed++) {
        Optional<Hiding.Hidden> h = hiding.of(level, seed);
        if (h.isEmpty()) {
          continue; // a small board has not everything
        }
        Fault f = h.get().fault();
        assertEquals(
            hiding.of(level, seed).orElseThrow().fault(), f, "the same seed, the same fault");
        assertEquals(h.get().symptom().isEmpty(), level == Level.BEEP, level + " " + f);
        assertEquals(f instanceof Fault.Sometimes, level == Level.INTERMITTENT, f.toString());
        if (level == Level.BEEP) {
          // another solution: the board's rails with the fault, measured one by one
          HiddenBoard bad = new HiddenBoard(REVISION, LADDER, List.of(f), seed);
          assertTrue(bad.ohms("VIN", "GND") < 20 || bad.ohms("3V3", "GND") < 20, f.toString());
        }
      }
    }
    assertTrue(hiding.of(Level.BEEP, 1).isPresent());
    assertTrue(hiding.of(Level.RAIL, 1).isPresent());
    expectThrows(IllegalArgumentException.class, () -> Level.of(0));
    expectThrows(IllegalArgumentException.class, () -> Level.of(6));
    assertEquals(Level.of(5), Level.DESIGN);
  }

  @Test
  public void theBestRunFindsAndItsBitsAddUp() {
    Hiding hiding = new Hiding(REVISION, LADDER, LISTED.suspects());
    Hiding.Hidden h = hiding.shown(fault("open U1.1"), 3).orElseThrow();
    Tracer tracer = new Tracer(Tracing.board(), LISTED);
    BestRun best = BestRun.of(tracer, h.fault(), h.symptom(), 3);
    assertTrue(best.right(), best.found());
    assertTrue(best.bound() <= best.steps().size());
    // what was not known at first, by hand: the sum of -p log2 p over all that may be
    List<Logged> log = List.of(logged(1, h.symptom().orElseThrow()));
    Traced t =
        new Tracer(Tracing.board(), LISTED)
            .trace(Clues.of(Tracing.board(), BoardState.of("x", log)), Map.of(), Map.of(), 1);
    double bits =
        t.suspects().stream()
            .mapToDouble(Traced.Ranked::chance)
            .filter(p -> p > 0)
            .map(p -> -p * Math.log(p) / Math.log(2))
            .sum();
    assertEquals(best.begin(), bits, 0.05);
    assertEquals(
        best.minutes(), best.steps().stream().mapToDouble(BestRun.Step::minutes).sum(), 1e-9);
  }

  private static Logged logged(long n, Entry e) {
    return new Logged(n, OffsetDateTime.parse("2026-11-28T09:00:00Z").plusMinutes(n), "P01", e);
  }

  private static Account account(List<Fault> faults, boolean givenUp, Entry... entries) {
    List<Logged> log = new ArrayList<>();
    for (Entry e : entries) {
      log.add(logged(log.size() + 1, e));
    }
    Traced t =
        new Tracer(Tracing.board(), LISTED)
            .trace(Clues.of(Tracing.board(), BoardState.of("P01", log)), Map.of(), Map.of(), 1);
    return Account.of(REVISION, log, t, faults, givenUp);
  }

  @Test
  public void theAccountTellsWhatItCost() {
    Entry found =
        new Entry.Found("open U1.1", "U1.1", false, 0.95, List.of(), List.of(), List.of());
    Account a =
        account(
            List.of(fault("open U1.1")),
            false,
            new Entry.Action("C2", "replaced", true, ""),
            new Entry.Override("power", "in a hurry"),
            new Entry.Supply(
                true, 5, 0.1, Optional.empty(), Optional.empty(), Optional.empty(), "VIN"),
            Tracing.volts("VIN", 5.0),
            Tracing.volts("3V3", 0.001),
            Tracing.volts("3V3", 0.001),
            Tracing.volts("3V3", 0.001),
            found);
    assertTrue(a.over());
    assertTrue(a.right());
    assertEquals(a.parts(), List.of("C2"));
    assertTrue(a.minutes() > 14, "a replaced part takes 14 minutes: " + a.minutes());
    assertEquals(a.risks().size(), 2, a.risks().toString());
    assertTrue(a.risks().getFirst().contains("'power' was set aside"));
    assertTrue(a.risks().getLast().contains("power before anything was beeped"));
    assertTrue(a.habits().toString().contains("3V3 V was measured 3 times"), a.habits().toString());
    assertTrue(a.habits().toString().contains("C2 was replaced before anything was measured"));
    Account wrong = account(List.of(fault("dead U1")), false, Tracing.volts("3V3", 0.001), found);
    assertTrue(wrong.over());
    assertFalse(wrong.right());
    Account open = account(List.of(fault("dead U1")), false, Tracing.volts("3V3", 0.001));
    assertFalse(open.over());
    assertTrue(account(List.of(fault("dead U1")), true, Tracing.volts("3V3", 0.001)).over());
    // taken back, it was not said
    Account back =
        account(
            List.of(fault("open U1.1")),
            false,
            Tracing.volts("3V3", 0.001),
            found,
            new Entry.Strike(2, "no"));
    assertFalse(back.over());
  }
}
