package ell.core.revise;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.beep.BeepCheck;
import ell.core.beep.BeepList;
import ell.core.board.Block;
import ell.core.board.Joint;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.Ladder;
import ell.core.power.LadderProposal;
import ell.core.quantity.Verdict;
import ell.core.revise.difference.RevisionDifference;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.testng.annotations.Test;

/// What an erratum asks of other stages, and the list held against the next drawing: on a small
/// board that can be followed by eye.
public class ErrataTest {
  private static final OffsetDateTime AT = OffsetDateTime.parse("2026-11-20T09:00:00Z");

  /// A chip whose write pin (7) hangs on the supply; the next drawing pulls it down over R2.
  private static Revision drawing(String name, String pin7, boolean pulled) {
    List<Part> parts = new ArrayList<>();
    List<Joint> joints = new ArrayList<>();
    parts.add(Drawings.part("U1", "REG", "SOT-23", 5, 5));
    parts.add(Drawings.part("U6", "EEPROM", "SOIC-8", 20, 10));
    parts.add(Drawings.part("R1", "10k", "0603", 30, 10));
    parts.add(Drawings.part("J1", "TERM", "TERM-2", 2, 20));
    String[] nets = {"A0", "A1", "A2", "GND", "SDA", "SCL", pin7, "3V3"};
    for (int i = 0; i < 8; i++) {
      joints.add(Drawings.joint("U6", String.valueOf(i + 1), nets[i], 18 + i, 10));
    }
    joints.add(Drawings.joint("R1", "1", "SDA", 30, 10));
    joints.add(Drawings.joint("R1", "2", "3V3", 31, 10));
    joints.add(Drawings.joint("J1", "1", "3V3", 2, 20));
    joints.add(Drawings.joint("J1", "2", "GND", 7, 20));
    joints.add(Drawings.joint("U1", "1", "3V3", 5, 5));
    joints.add(Drawings.joint("U1", "2", "GND", 6, 5));
    joints.add(Drawings.joint("U1", "3", "SCL", 7, 5));
    if (pulled) {
      parts.add(Drawings.part("R2", "10k", "0603", 34, 14));
      joints.add(Drawings.joint("R2", "1", pin7, 34, 14));
      joints.add(Drawings.joint("R2", "2", "GND", 35, 14));
    }
    return new Revision("GAUGE", name, parts, joints, new Outline(List.of()));
  }

  private static final Revision A = drawing("A", "3V3", false);

  private static Logged logged(long n, Entry e) {
    return new Logged(n, AT.plusMinutes(n), "01", e);
  }

  private static Erratum said(Entry.Erratum e, String... says) {
    List<Logged> log = new ArrayList<>(List.of(logged(1, e)));
    for (String s : says) {
      String[] w = s.split(" ", 2);
      log.add(logged(log.size() + 1L, new Entry.ErratumSaid(e.id(), w[0], w[1])));
    }
    return Errata.of(log).all().getFirst();
  }

  private static Entry.Erratum writePin() {
    return new Entry.Erratum(
        "E1",
        "U6.7 hangs on 3V3",
        "GAUGE",
        List.of("A"),
        "",
        List.of("U6.7"),
        "fails",
        List.of("lift U6.7", "wire U6.7 GND"),
        "",
        "",
        List.of(7L));
  }

  @Test
  public void whatIsSaidLaterHolds() {
    Erratum e =
        said(
            writePin(),
            "title another",
            "severity harm",
            "at U6.7 R1",
            "revisions A B",
            "fix cut U6.7 3V3",
            "taught 9, 12",
            "proof rail 3V3",
            "fixed B");
    assertEquals(e.title(), "another");
    assertEquals(e.severity(), Severity.HARM);
    assertEquals(e.places(), List.of("U6.7", "R1"));
    assertTrue(e.of("GAUGE", "B"));
    assertEquals(e.fix(), BodgeStep.all("cut U6.7 3V3"));
    assertEquals(e.taughtBy(), List.of(7L, 9L, 12L));
    assertEquals(e.shows().orElseThrow().text(), "rail 3V3");
    assertEquals(e.fixedIn(), Optional.of("B"));
    assertFalse(said(writePin(), "closed nobody writes").open());
    assertTrue(said(writePin(), "closed nobody writes", "open again").open());
    // words of a newer Ell are passed over, and what is no longer understood does not end it all
    assertEquals(
        said(writePin(), "colour red", "severity dreadful", "proof gold").severity(),
        Severity.FAILS);
    assertEquals(said(writePin(), "bodge weld it").bodge().getFirst().text(), "do weld it");
  }

  @Test
  public void aDefectTeachesAnErratumWithWhatIsKnownOfIt() {
    Logged defect =
        logged(23, new Entry.Defect("U6.7", "wrong", "tied to 3V3, so writing is never allowed"));
    Logged mended =
        logged(24, new Entry.Action("U6.7", "cut", false, "pin lifted and wired to ground"));
    Logged sister = new Logged(46, AT, "02", new Entry.Defect("U6.7", "wrong", "as on 01"));
    Entry.Erratum e = ErratumMaker.of(defect, "", A, List.of(defect, mended, sister));
    assertEquals(e.title(), "U6.7 wrong: tied to 3V3, so writing is never allowed");
    assertEquals(e.fault(), "tied U6.7 3V3");
    assertEquals(e.places(), List.of("U6.7"));
    assertEquals(e.bodge(), List.of("lift U6.7", "wire U6.7 GND"));
    assertEquals(e.taughtBy(), List.of(23L, 46L));
    // the boards that were mended before it was written down are mended
    List<Logged> log = List.of(defect, mended);
    Erratum folded =
        Errata.of(
                List.of(
                    logged(
                        50,
                        new Entry.Erratum(
                            "E1",
                            e.title(),
                            e.design(),
                            e.revisions(),
                            e.fault(),
                            e.places(),
                            e.severity(),
                            e.bodge(),
                            "",
                            "",
                            e.taughtBy()))))
            .all()
            .getFirst();
    assertEquals(Stand.of(folded, A, BoardState.of("01", log)).state(), Stand.State.DONE);
  }

  @Test
  public void itAddsItsCheckAndTakesItAwayAgain() {
    Ladder ladder = LadderProposal.of(A);
    BeepList plain = BeepList.of(A, ladder);
    Erratum e = said(writePin());
    BeepList with = ErrataBeep.with(plain, List.of(e), A, ladder);
    BeepCheck c = with.checks().getLast();
    assertEquals(c.number(), with.checks().size());
    assertEquals(c.kind(), BeepCheck.Kind.CONTINUITY);
    assertEquals(c.a().place(), "U6.7");
    assertEquals(c.netB(), "GND");
    assertFalse(c.guards());
    assertEquals(c.read(0.3).verdict(), Verdict.WITHIN);
    assertEquals(c.read(Double.POSITIVE_INFINITY).verdict(), Verdict.OUT);
    // what the drawing has of the lifted pin no longer holds; what guards ground stays
    assertTrue(
        with.checks().stream()
            .noneMatch(x ->
                x != c
                    && x.kind() == BeepCheck.Kind.CONTINUITY
                    && (x.a().place().equals("U6.7") || x.b().place().equals("U6.7"))));
    assertEquals(
        with.guarding().stream().map(BeepCheck::key).toList(),
        plain.guarding().stream().map(BeepCheck::key).toList());
    assertEquals(ErrataBeep.with(plain, List.of(), A, ladder), plain);
    BeepCheck harm =
        ErrataBeep.check(said(writePin(), "severity harm"), A, ladder, 1).orElseThrow();
    assertTrue(harm.guards(), "what may do damage stands before power");
    assertTrue(ErrataBeep.check(said(writePin(), "proof run"), A, ladder, 1).isEmpty());
  }

  @Test
  public void itsGateIsThatOfItsBlock() {
    List<Block> blocks =
        List.of(
            new Block("supply", "rails", "Rails are right.", List.of("U1", "J1")),
            new Block("memory", "writes", "It writes.", List.of("U6", "R1")));
    Erratum e = said(writePin());
    List<Block> with = ErrataGates.with(blocks, List.of(e), A);
    assertEquals(with.get(0), blocks.get(0));
    assertTrue(with.get(1).question().contains("mended of E1"), with.get(1).question());
    assertEquals(ErrataGates.of(blocks, List.of(said(writePin(), "severity annoys")), A), Map.of());
    assertEquals(ErrataGates.with(blocks, List.of(), A), blocks);
  }

  private static ChangeCheck.Change check(Erratum e, Revision next) {
    ChangeCheck c = ChangeCheck.of(List.of(e), RevisionDifference.of(A, next), A, next);
    return c.changes().getFirst();
  }

  @Test
  public void theListIsHeldAgainstTheNextDrawing() {
    Revision b = drawing("B", "WP", true);
    Erratum fix = said(writePin(), "fix cut U6.7 3V3; add 10k U6.7 GND");
    assertEquals(check(fix, b).state(), ChangeCheck.State.DONE);
    assertTrue(check(fix, b).evidence().getFirst().contains("U6.7 from 3V3 to WP"));
    // half of it
    assertEquals(check(fix, drawing("B", "WP", false)).state(), ChangeCheck.State.PARTLY);
    // nothing of it
    assertEquals(check(fix, drawing("B", "3V3", false)).state(), ChangeCheck.State.FORGOTTEN);
    // by its bodge: the pin is not on ground itself
    assertEquals(check(said(writePin()), b).state(), ChangeCheck.State.PARTLY);
    assertEquals(
        check(said(writePin()), drawing("B", "GND", false)).state(), ChangeCheck.State.DONE);
    // words cannot be held against files, and that is said
    ChangeCheck.Change words = check(said(writePin(), "fix a switch for writing"), b);
    assertEquals(words.state(), ChangeCheck.State.PARTLY);
    assertTrue(words.evidence().toString().contains("nothing says what it should be"));
    ChangeCheck.Change byWord = check(said(writePin(), "fix a switch for writing", "fixed B"), b);
    assertEquals(byWord.state(), ChangeCheck.State.DONE);
    assertTrue(byWord.evidence().toString().contains("the files do not show it"));
  }

  @Test
  public void whatNobodyAskedForIsTold() {
    Revision b = drawing("B", "WP", true);
    RevisionDifference d = RevisionDifference.of(A, b);
    ChangeCheck none = ChangeCheck.of(List.of(), d, A, b);
    assertEquals(none.unexplained().size(), 2, none.unexplained().toString());
    Erratum fix = said(writePin(), "fix cut U6.7 3V3; add 10k U6.7 GND");
    assertEquals(ChangeCheck.of(List.of(fix), d, A, b).unexplained(), List.of());
    Erratum other =
        said(
            new Entry.Erratum(
                "E2",
                "R1 is too large",
                "GAUGE",
                List.of("A"),
                "value R1 10k",
                List.of("R1"),
                "fails",
                List.of(),
                "",
                "",
                List.of()));
    ChangeCheck c = ChangeCheck.of(List.of(other), d, A, b);
    assertEquals(c.changes().getFirst().state(), ChangeCheck.State.FORGOTTEN);
    assertEquals(c.unexplained().size(), 2);
  }

  /// A drawing that was numbered and named anew is held against the list all the same.
  @Test
  public void newNamesDoNotHideWhatWasDone() {
    Revision b = drawing("B", "WP", true);
    Erratum fix = said(writePin(), "fix cut U6.7 3V3; add 10k U6.7 GND");
    for (int i = 0; i < 20; i++) {
      Revision named = new Drawings.Edited(b, i).renumbered().renamed().drawing();
      ChangeCheck c = ChangeCheck.of(List.of(fix), RevisionDifference.of(A, named), A, named);
      assertEquals(c.changes().getFirst().state(), ChangeCheck.State.DONE, c.toString());
      assertEquals(c.unexplained(), List.of());
    }
  }

  @Test
  public void boardsThatFailAlikeSuggestSomething() {
    List<BoardState> boards = new ArrayList<>();
    for (int i = 0; i < 4; i++) {
      List<Logged> log = new ArrayList<>();
      log.add(new Logged(10 * i + 1, AT, "0" + i, new Entry.Defect("U6.3", "bridge", "")));
      if (i < 2) {
        log.add(new Logged(10 * i + 2, AT, "0" + i, new Entry.Fitted("R1", "R10K-B", "ran out")));
      }
      boards.add(BoardState.of("0" + i, log));
    }
    List<Improvements.Suggestion> all =
        Improvements.of(A, boards, List.of(), List.of("points below"));
    assertEquals(all.size(), 3, all.toString());
    assertEquals(all.getFirst().taughtBy(), List.of(1L, 11L, 21L, 31L));
    assertEquals(all.get(1).title(), "second source for R1: R10K-B");
    Erratum taken =
        said(
            new Entry.Erratum(
                "E3",
                "gaps",
                "GAUGE",
                List.of("A"),
                "",
                List.of("U6"),
                "wish",
                List.of(),
                "",
                "",
                List.of(11L)));
    assertEquals(Improvements.of(A, boards, List.of(taken), List.of()).size(), 1);
  }

  /// Fisher's tea: 4 of 4 against 0 of 4 has a chance of 2/70 (NIST/SEMATECH e-Handbook, 7.3.3, and
  /// Fisher 1935, from memory).
  @Test
  public void revisionsAreToldApartOnlyWhereSoManyBoardsCan() {
    FirstPass good = new FirstPass(true, true, Map.of(), 100, 30, 0);
    FirstPass bad = new FirstPass(true, false, Map.of("bridge", 1), 100, 50, 1);
    Compared c =
        Compared.of(
            List.of(
                Compared.group("rev A", List.of(bad, bad, bad, bad)),
                Compared.group("rev B", List.of(good, good, good, good))),
            40,
            10);
    assertEquals(c.pairs().getFirst().chance(), 2.0 / 70, 1e-9);
    assertTrue(c.pairs().getFirst().words().contains("worth about 400"), c.toString());
    // half an hour at 40 and parts for 12
    assertEquals(c.groups().get(1).costing(12, 40).cost(), 32, 1e-9);
    assertEquals(c.groups().get(1).costing(Double.NaN, 40).cost(), 20, 1e-9);
    Compared few =
        Compared.of(
            List.of(
                Compared.group("rev A", List.of(bad, bad)),
                Compared.group("rev B", List.of(good, good))),
            40,
            10);
    assertFalse(few.pairs().getFirst().tells());
    assertTrue(few.pairs().getFirst().words().contains("cannot tell them apart"));
    Compared none =
        Compared.of(
            List.of(
                Compared.group("rev A", List.of()),
                Compared.group("rev B", List.of(new FirstPass(false, false, Map.of(), 0, 0, 0)))),
            0,
            0);
    assertTrue(none.pairs().getFirst().words().contains("no board was judged"));
  }

  @Test
  public void aStackHoldsUntilOneOfItIsWorkedOn() {
    Entry.Stack together =
        new Entry.Stack("station", List.of("01", "S1", "cable"), Verdict.WITHIN, "");
    List<Logged> one = new ArrayList<>(List.of(logged(5, together)));
    List<Logged> two = new ArrayList<>(List.of(new Logged(6, AT.plusMinutes(5), "S1", together)));
    Map<String, String> of = Map.of("01", "GAUGE rev A", "S1", "STAFF rev A");
    Stacks s = Stacks.of(states(one, two), of);
    assertEquals(s.tried().size(), 1, "the same trial stands in two books");
    assertTrue(s.tried().getFirst().mayShip());
    assertEquals(s.pairings().getFirst().kinds(), List.of("GAUGE rev A", "STAFF rev A", "cable"));
    two.add(new Logged(9, AT.plusMinutes(9), "S1", new Entry.Action("R1", "replaced", true, "")));
    Stacks later = Stacks.of(states(one, two), of);
    assertFalse(later.tried().getFirst().mayShip());
    assertTrue(later.tried().getFirst().changed().getFirst().contains("S1: R1 replaced"));
    assertEquals(later.with("01").size(), 1);
    two.add(new Logged(10, AT.plusMinutes(10), "S1", new Entry.Strike(9, "another board")));
    assertTrue(Stacks.of(states(one, two), of).tried().getFirst().mayShip());
  }

  private static Map<String, BoardState> states(List<Logged> one, List<Logged> two) {
    Map<String, BoardState> all = new java.util.LinkedHashMap<>();
    all.put("01", BoardState.of("01", one));
    all.put("S1", BoardState.of("S1", two));
    return all;
  }

  /// 2 wrong of 9 things in SOIC-8 (8 joints and the part) on one board; Jeffreys' mean is 2.5/10.
  @Test
  public void lessonsCountWhatWasThereAndWhatWasWrong() {
    List<Logged> log =
        List.of(
            logged(1, new Entry.StepDone(1, "solder", List.of("U6", "R1"), 0)),
            logged(2, new Entry.Defect("U6.1", "bridge", "")),
            logged(3, new Entry.Defect("U6.3", "starved", "")),
            logged(4, new Entry.Defect("R1", "wrong", "")));
    Lessons l =
        Lessons.of(
            List.of(new Lessons.Made(A, "iron", BoardState.of("01", log))),
            Map.of("10k-0603", List.of("Quay")));
    Lessons.Count soic = l.by().get(Lessons.Way.PACKAGE).getFirst();
    Lessons.Count named =
        l.by().get(Lessons.Way.PACKAGE).stream()
            .filter(c -> c.name().equals("SOIC-8"))
            .findFirst()
            .orElseThrow();
    assertTrue(soic.wrong() > 0);
    assertEquals(named.wrong(), 2);
    assertEquals(named.of(), 9);
    assertEquals(named.rate(), 0.25, 1e-12);
    assertEquals(l.by().get(Lessons.Way.SELLER).getFirst().wrong(), 1);
    assertEquals(l.by().get(Lessons.Way.METHOD).getFirst().of(), 12);
    assertTrue(l.told().getFirst().contains("no seller or several"), l.told().toString());
  }
}
