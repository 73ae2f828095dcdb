package ell.core.print;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.entry.Entry;
import ell.core.entry.JarMove;
import ell.core.entry.Logged;
import ell.core.entry.PasteLook;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.testng.annotations.Test;

/// Jars over time, and what the log of prints shows.
public class PrintLogTest {
  private static final ZoneId ZONE = ZoneId.of("Europe/Berlin");
  private long number;

  private Logged jar(String at, JarMove m) {
    return new Logged(++number, OffsetDateTime.parse(at), "", new Entry.Jar("P1", m, ""));
  }

  private static JarClock clock(List<Logged> log, String now) {
    return JarClock.of(
        "P1",
        log,
        JarRules.TYPICAL,
        Optional.of(LocalDate.of(2026, 12, 31)),
        Instant.parse(now),
        ZONE);
  }

  /// The night in which clocks are set back is an hour longer than they show.
  @Test
  public void aNightWithAChangeOfClocksIsAsLongAsItIs() {
    List<Logged> log =
        List.of(
            jar("2026-10-24T20:00:00+02:00", JarMove.WARMING),
            jar("2026-10-25T06:00:00+01:00", JarMove.OPEN),
            jar("2026-10-25T07:00:00+01:00", JarMove.STENCIL),
            jar("2026-10-25T09:30:00+01:00", JarMove.FRIDGE));
    JarClock c = clock(log, "2026-10-25T12:00:00Z");
    assertEquals(
        c.out(), Duration.ofMinutes(11 * 60 + 3 * 60 + 30), "11 h by night, 3.5 h of work");
    assertEquals(c.foil(), Duration.ofMinutes(150));
    assertEquals(c.warmed(), Duration.ZERO);
    assertEquals(c.verdict(), JarClock.Verdict.USE);
  }

  @Test
  public void verdictsFollowTheLimits() {
    List<Logged> log = new ArrayList<>();
    log.add(jar("2026-11-02T08:00:00+01:00", JarMove.WARMING));
    assertEquals(clock(log, "2026-11-02T08:00:00Z").verdict(), JarClock.Verdict.WAIT);
    assertEquals(clock(log, "2026-11-02T12:00:00Z").verdict(), JarClock.Verdict.USE);
    // opened after two hours of four: test it first
    List<Logged> early = new ArrayList<>(log);
    early.add(jar("2026-11-02T10:00:00+01:00", JarMove.OPEN));
    JarClock c = clock(early, "2026-11-02T14:00:00Z");
    assertEquals(c.verdict(), JarClock.Verdict.TEST);
    early.add(jar("2026-11-02T16:00:00+01:00", JarMove.TESTED));
    assertEquals(clock(early, "2026-11-02T16:00:00Z").verdict(), JarClock.Verdict.USE);
    // on the foil for 7 of 8 hours, then 9, then 17
    log.add(jar("2026-11-02T13:00:00+01:00", JarMove.OPEN));
    log.add(jar("2026-11-02T13:30:00+01:00", JarMove.STENCIL));
    assertEquals(clock(log, "2026-11-02T19:30:00Z").verdict(), JarClock.Verdict.USE_SOON);
    assertEquals(clock(log, "2026-11-02T21:30:00Z").verdict(), JarClock.Verdict.TEST);
    assertEquals(clock(log, "2026-11-03T05:30:00Z").verdict(), JarClock.Verdict.DISCARD);
    // past its date
    assertEquals(clock(List.of(), "2027-01-01T05:30:00Z").verdict(), JarClock.Verdict.DISCARD);
    assertEquals(clock(List.of(), "2026-12-24T05:30:00Z").verdict(), JarClock.Verdict.USE_SOON);
  }

  private Logged at(int minute, Entry e) {
    return new Logged(
        ++number, OffsetDateTime.parse("2026-11-02T08:00:00Z").plusMinutes(minute), "", e);
  }

  /// Every third print after a wipe bridges at one place: the log says to wipe before it.
  @Test
  public void theLogShowsWhenToWipe() {
    Map<String, List<Logged>> log = new LinkedHashMap<>();
    for (int i = 0; i < 12; i++) {
      List<Logged> own = new ArrayList<>();
      own.add(at(10 * i, new Entry.Printed("first", i % 3 == 0, "P1")));
      if (i % 3 == 2) {
        own.add(at(10 * i + 1, new Entry.PasteSeen("U4.13", PasteLook.BRIDGED)));
      }
      if (i == 4) {
        own.add(at(10 * i + 1, new Entry.PasteSeen("U4.2", PasteLook.THIN)));
        own.add(at(10 * i + 2, new Entry.PasteSeen("U4.2", PasteLook.GOOD)));
      }
      log.put("b" + i, own);
    }
    PrintLog p = PrintLog.of(log);
    assertEquals(p.prints().size(), 12);
    assertEquals(p.prints().get(5).sinceWipe(), 2);
    assertEquals(p.faults().size(), 1, "what was put right does not count");
    assertEquals(p.faults().getFirst().place(), "U4.13");
    assertEquals(p.faults().getFirst().times(), 4);
    PrintLog.Wipe w = p.wipe().orElseThrow();
    assertEquals(w.every(), 2);
    assertEquals(w.lateBad(), 4);
    assertEquals(w.fresh(), 8);
    // 4 of 4 against 0 of 8: one way in 495
    assertEquals(w.p(), 1 / 495.0, 1e-9);
  }

  @Test
  public void chanceIsNotCalledAPattern() {
    Map<String, List<Logged>> log = new LinkedHashMap<>();
    for (int i = 0; i < 6; i++) {
      List<Logged> own = new ArrayList<>();
      own.add(at(10 * i, new Entry.Printed("first", i % 2 == 0, "")));
      if (i == 3) {
        own.add(at(10 * i + 1, new Entry.PasteSeen("R1.1", PasteLook.MISSING)));
      }
      log.put("b" + i, own);
    }
    assertFalse(PrintLog.of(log).wipe().isPresent());
    assertTrue(PrintLog.of(Map.of()).faults().isEmpty());
  }
}
