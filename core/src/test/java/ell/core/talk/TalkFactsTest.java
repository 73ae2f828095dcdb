package ell.core.talk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.Boards;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.Ladder;
import ell.core.power.LadderProposal;
import ell.core.quantity.Verdict;
import ell.core.record.Section;
import ell.core.sheet.Sheet;
import ell.core.sheet.Worked;
import ell.core.talk.PinTable.Need;
import ell.core.talk.PinTable.Offer;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.testng.annotations.Test;

/// What the book says of links, lines and numbers; what the record says; straps by the board model;
/// the sheets.
public class TalkFactsTest {
  private final List<Logged> log = new ArrayList<>();

  private static Revision board() {
    Boards b = new Boards();
    b.part("J1").at(0, 0).holes("3V3", "GND");
    b.part("U1").value("MCU").at(10, 0).pads("3V3", "GND", "LAMP", "KEY", "OUT");
    b.part("R1").value("680").at(20, 0).pads("LAMP", "GND");
    b.part("R2").value("10k").at(25, 0).pads("KEY", "3V3");
    b.part("SJ1").at(30, 0).pads("OUT", "GND");
    b.part("C1").value("100n").at(35, 0).pads("3V3", "GND");
    return b.revision();
  }

  private static final Revision BOARD = board();
  private static final TalkPlan PLAN =
      TalkPlan.of(
          BOARD,
          List.of(
              "link SJ1 solder closed",
              "operation program open SJ1",
              "operation run closed SJ1 in M9 after program".replace("M9", "J1")));

  private TalkFacts after(Entry... more) {
    for (Entry e : more) {
      log.add(new Logged(log.size() + 1, OffsetDateTime.parse("2026-11-27T09:00:00Z"), "01", e));
    }
    return TalkFacts.of(BoardState.of("01", log));
  }

  private static Entry.Talk talk(String script, String operation, Verdict v, String firmware) {
    return new Entry.Talk(
        "sim",
        script,
        operation,
        1,
        10,
        20,
        "",
        "",
        firmware,
        0,
        0,
        List.of(),
        Optional.of(v),
        List.of());
  }

  @Test
  public void linksStandAsTheyCameUntilSomebodySaysSo() {
    log.clear();
    assertEquals(after().stand(PLAN).links(), Map.of("SJ1", true));
    TalkFacts open = after(new Entry.Stands("SJ1", "open", ""), new Entry.Stands("J1", "in", ""));
    assertEquals(open.stand(PLAN).links(), Map.of("SJ1", false));
    assertEquals(open.stand(PLAN).plugged(), Map.of("J1", true));
    TalkFacts struck = after(new Entry.Strike(1, "it was another board"));
    assertEquals(struck.stand(PLAN).links(), Map.of("SJ1", true), "what was struck counts not");
    TalkFacts plugged =
        after(
            new Entry.StepDone(9, "plug in", List.of("M1"), 0), new Entry.Stands("J1", "out", ""));
    assertEquals(plugged.stand(PLAN).plugged(), Map.of("J1", false, "M1", true));
  }

  @Test
  public void anOperationIsDoneUntilItFailsAgain() {
    log.clear();
    assertTrue(after().done().isEmpty());
    assertEquals(after(talk("load", "program", Verdict.WITHIN, "1.4")).done(), Set.of("program"));
    TalkFacts f = after(talk("load", "program", Verdict.OUT, ""));
    assertTrue(f.done().isEmpty());
    assertEquals(f.firmware(), Optional.of("1.4"), "the last that it said");
    assertEquals(f.talks().size(), 2);
    assertEquals(
        ((Entry.Talk) f.latest("load").orElseThrow().entry()).verdict(), Optional.of(Verdict.OUT));
    assertTrue(f.latest("other").isEmpty());
    BoardState held = BoardState.of("01", log);
    assertEquals(held.findings().size(), 1, "what does not do what was expected holds the board");
    after(talk("load", "program", Verdict.WITHIN, "1.5"));
    assertTrue(BoardState.of("01", log).findings().isEmpty());
  }

  @Test
  public void whatTheRecordSays() {
    log.clear();
    assertTrue(TalkSection.of(PLAN, after()).isEmpty());
    TalkFacts f =
        after(
            talk("load", "program", Verdict.WITHIN, "1.4"),
            new Entry.Knows("U2", "01", "B"),
            new Entry.Stands("SJ1", "open", ""),
            Entry.Talk.byHand("run", "4 uA"));
    Section s = TalkSection.of(PLAN, f).orElseThrow();
    assertEquals(s.title(), "Loading and talking");
    String all = s.toString();
    for (String x : List.of("load", "firmware 1.4", "number 01", "SJ1 open", "run done by hand")) {
      assertTrue(all.contains(x), x + " in " + all);
    }
  }

  /// 680 ohm down against 45 kohm up: 0.015 of 3.3 V is 0.05 V. 10 kohm up against 45 kohm down: 45
  /// / 55 of 3.3 V is 2.7 V.
  @Test
  public void strapsByTheBoardModel() {
    Ladder ladder = LadderProposal.of(BOARD);
    StrapOnBoard look = new StrapOnBoard(BOARD, ladder, "U1");
    Set<String> io = Set.of("out");
    PinMap.Strapped lamp =
        look.apply(new Offer("5", io, "high", "", ""), new Need("LAMP", io, "3", ""));
    assertTrue(lamp.wrong());
    assertTrue(lamp.why().contains("0.05 V of 3.30 V"), lamp.why());
    PinMap.Strapped key =
        look.apply(new Offer("5", io, "low", "", ""), new Need("KEY", io, "4", ""));
    assertTrue(key.wrong());
    assertTrue(key.why().contains("2.70 V"), key.why());
    assertFalse(
        look.apply(new Offer("5", io, "high", "", ""), new Need("KEY", io, "4", "")).wrong());
    assertFalse(
        look.apply(new Offer("5", io, "high", "", ""), new Need("NEW", io, "", "")).wrong(),
        "of what hangs on nothing yet nothing is known");
    assertTrue(
        look.apply(new Offer("5", io, "high", "", ""), new Need("KEY", io, "4", "1k GND")).wrong(),
        "what is said comes before what is drawn");
  }

  private static Worked work(String sheet, Map<String, String> inputs) {
    Sheet s =
        TalkSheets.all().stream().filter(x -> x.name().equals(sheet)).findFirst().orElseThrow();
    return s.work(inputs);
  }

  /// Four looks for sixteen, and (16 · 17 / 2 − 1) / 16 one by one; a divider by hand.
  @Test
  public void sheets() {
    Worked w = work("chain.search", Map.of("elements", "16", "minutes", "2"));
    assertEquals((double) w.results().get("looks"), 4.0, 1e-9);
    assertEquals((double) w.results().get("minutes"), 8.0, 1e-9);
    assertEquals((double) w.results().get("oneByOne"), 135 / 16.0, 1e-9);
    assertEquals((double) w.results().get("first"), 8.0, 1e-9);
    Worked p = work("pins.strap", Map.of("load", "10k", "pull", "10k"));
    assertEquals((double) p.results().get("share"), 0.5, 1e-9);
    assertEquals(p.results().get("reads"), "neither");
    Worked up = work("pins.strap", Map.of("load", "1k", "loads", "up", "pulls", "down"));
    assertEquals((double) up.results().get("level"), 3.3 * 45 / 46, 1e-9);
    assertEquals(up.results().get("reads"), "high");
  }

  @Test
  public void linesAreCutWhereTheyEnd() {
    HeardLines l = new HeardLines();
    l.add(0.1, "bo");
    l.add(0.2, "ots\nready\nha");
    assertEquals(
        l.all(0.5),
        List.of(
            new Restarts.Timed(0.2, "boots"),
            new Restarts.Timed(0.2, "ready"),
            new Restarts.Timed(0.5, "ha")));
    l.add(0.6, "x".repeat(20_000));
    assertEquals(l.all(0.7).size(), 2, "a line without an end is none");
    for (int i = 0; i < 120_000; i++) {
      l.add(1, "a\n");
    }
    assertEquals(l.all(2).size(), 100_000, "memory is bounded");
  }
}
