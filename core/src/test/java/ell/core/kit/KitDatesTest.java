package ell.core.kit;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import ell.core.Boards;
import ell.core.board.GateNeed;
import ell.core.board.Outline;
import ell.core.board.Revision;
import ell.core.kit.KitCheck.Stair;
import ell.core.kit.KitCheck.Verdict;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.testng.annotations.Test;

/// Worked examples of a kit over days: what comes, what expires, what is built already.
public class KitDatesTest {
  private static final LocalDate TODAY = LocalDate.parse("2026-11-25");

  private static ShelfLine line(String code, long n, long coming, int days) {
    return new ShelfLine(
        1,
        code,
        n,
        "A1",
        coming,
        coming > 0 ? Optional.of(TODAY.plusDays(days)) : Optional.empty(),
        Optional.empty());
  }

  private static Revision two() {
    return new Boards()
        .part("U1")
        .code("LDO")
        .shape("SOT-223")
        .done()
        .part("J1")
        .code("TERM")
        .shape("TERM-2")
        .done()
        .revision();
  }

  private static KitQuestion ask(
      Revision r, int boards, List<ShelfLine> shelf, String... reflowed) {
    return KitQuestion.fresh(
        r,
        boards,
        shelf,
        TODAY,
        List.of(new GateNeed("rails", Set.of("U1")), new GateNeed("all", Set.of("U1", "J1"))),
        Set.of(reflowed));
  }

  @Test
  public void theStaircaseRisesWithWhatComes() {
    List<ShelfLine> shelf = List.of(line("LDO", 4, 10, 3), line("TERM", 6, 30, 9));
    KitCheck k = KitCheck.of(ask(two(), 12, shelf));
    assertEquals(
        k.stairs(),
        List.of(
            new Stair(TODAY, 4, Optional.of("LDO")),
            new Stair(TODAY.plusDays(3), 6, Optional.of("TERM")),
            new Stair(TODAY.plusDays(9), 14, Optional.of("LDO"))));
    assertEquals(k.next(), Optional.of(new KitCheck.Limit("TERM", 6)));
    assertEquals(k.date(), Optional.of(TODAY.plusDays(9)));
    KitCheck later = KitCheck.of(ask(two(), 12, shelf).lookingAt(TODAY.plusDays(9)));
    assertEquals(later.verdict(), Verdict.START);
    assertEquals(later.boardsNow(), 14);
    assertEquals(later.lines().getFirst().onHand(), 14);
    assertEquals(later.lines().getFirst().onOrder(), 0);
  }

  @Test
  public void whatExpiresIsNotCountedAfterItsDay() {
    ShelfLine old =
        new ShelfLine(1, "LDO", 8, "A1", 0, Optional.empty(), Optional.of(TODAY.plusDays(2)));
    List<ShelfLine> shelf = List.of(old, line("LDO", 3, 0, 0), line("TERM", 50, 0, 0));
    KitCheck k = KitCheck.of(ask(two(), 5, shelf));
    assertEquals(k.verdict(), Verdict.START);
    assertEquals(
        k.stairs().stream().map(Stair::boards).toList(),
        List.of(11L, 3L),
        "the day after its last");
    assertEquals(k.stairs().getLast().from(), TODAY.plusDays(3));
    KitCheck then = KitCheck.of(ask(two(), 5, shelf).lookingAt(TODAY.plusDays(3)));
    assertEquals(then.lines().getFirst().expired(), 8);
    assertEquals(then.lines().getFirst().shortBy(), 2);
  }

  @Test
  public void whatIsOverdueHasNotCome() {
    List<ShelfLine> shelf = List.of(line("LDO", 4, 10, -3), line("TERM", 20, 0, 0));
    KitCheck k = KitCheck.of(ask(two(), 12, shelf));
    assertEquals(k.boardsNow(), 4);
    assertEquals(k.date(), Optional.empty());
    assertTrue(k.reasons().getFirst().contains("overdue since 2026-11-22"), k.reasons().toString());
  }

  @Test
  public void gatesAreReachedByTheFirstBoards() {
    List<ShelfLine> shelf = List.of(line("LDO", 7, 0, 0), line("TERM", 3, 0, 0));
    KitCheck k = KitCheck.of(ask(two(), 12, shelf, "U1"));
    assertEquals(k.gates().get(0).boards(), 7);
    assertEquals(k.gates().get(1).boards(), 3);
    assertEquals(k.verdict(), Verdict.WAIT);
    assertTrue(k.pasteStaysClosed());
    KitCheck one = KitCheck.of(ask(two(), 7, shelf, "U1"));
    assertEquals(one.verdict(), Verdict.START_UP_TO);
    assertEquals(one.gate(), Optional.of("rails"));
    assertTrue(!one.pasteStaysClosed());
  }

  @Test
  public void theRuleOfThePasteCanBeSetAside() {
    Revision r =
        new Boards()
            .part("U1")
            .code("LDO")
            .shape("SOT-223")
            .done()
            .part("U2")
            .code("MEM")
            .shape("SOIC-8")
            .done()
            .revision();
    KitQuestion q =
        KitQuestion.fresh(
            r,
            4,
            List.of(line("LDO", 4, 0, 0), line("MEM", 1, 0, 0)),
            TODAY,
            List.of(new GateNeed("rails", Set.of("U1")), new GateNeed("all", Set.of("U1", "U2"))),
            Set.of("U1", "U2"));
    assertEquals(KitCheck.of(q).verdict(), Verdict.WAIT);
    KitCheck aside =
        KitCheck.of(
            new KitQuestion(
                q.revision(),
                q.boards(),
                q.shelf(),
                q.on(),
                false,
                q.attrition(),
                q.gates(),
                q.reflowed(),
                Map.of(),
                Map.of(),
                Map.of(),
                Optional.of("memory by iron later")));
    assertEquals(aside.verdict(), Verdict.START_UP_TO);
    assertEquals(aside.gate(), Optional.of("rails"));
    assertTrue(aside.reasons().toString().contains("memory by iron later"));
  }

  @Test
  public void whatIsPlacedIsNotNeededAgain() {
    Revision r = new Boards().part("R1").code("R10K").done().revision();
    KitQuestion q =
        new KitQuestion(
            r,
            10,
            List.of(line("R10K", 5, 0, 0)),
            TODAY,
            false,
            AttritionRules.TYPICAL,
            List.of(),
            Set.of(),
            Map.of("R1", 6L),
            Map.of("R10K", 1L),
            Map.of(),
            Optional.empty());
    KitLine l = KitCheck.of(q).lines().getFirst();
    assertEquals(l.need(), 12, "10 and the least loss of 2");
    assertEquals(l.toGo(), 5, "4 to place, and one more loss to expect");
    assertEquals(l.shortBy(), 0);
    assertEquals(KitCheck.of(q).boardsNow(), 10);
  }

  @Test
  public void sparesVariantsAndOtherLosses() {
    Revision r =
        new Boards()
            .part("R1")
            .code("R10K")
            .spares(7)
            .done()
            .part("U2")
            .code("RADIO")
            .shape("SOIC-8")
            .in("!lite")
            .done()
            .part("U3")
            .code("WIRE")
            .shape("SOIC-8")
            .in("lite")
            .done()
            .revision();
    assertEquals(r.variants(), List.of("lite"));
    KitCheck k =
        KitCheck.of(KitQuestion.fresh(r.in("lite"), 10, List.of(), TODAY, List.of(), Set.of()));
    assertEquals(k.lines().stream().map(KitLine::code).toList(), List.of("R10K", "WIRE"));
    assertEquals(k.lines().getFirst().need(), 19, "10, the least loss of 2, and 7 spares");
    AttritionRules own = AttritionRules.TYPICAL.with("small=20%/1, other=0.1");
    assertEquals(own.of(r, List.of(r.part("R1").orElseThrow())), new Attrition(0.2, 1));
    assertEquals(own.of(r, List.of(r.part("U2").orElseThrow())), new Attrition(0.1, 0));
    assertThrows(IllegalArgumentException.class, () -> own.with("small"));
    assertThrows(IllegalArgumentException.class, () -> own.with("huge=1%"));
    assertThrows(IllegalArgumentException.class, () -> own.with("small=140%"));
  }

  @Test
  public void boardsStencilAndPasteCount() {
    ShelfLine blank =
        new ShelfLine(
            1, "T-1", 3, "K", 0, Optional.empty(), Optional.empty(), ShelfLine.Kind.BLANK, 0);
    ShelfLine jar =
        new ShelfLine(
            2,
            "PASTE",
            1,
            "COLD",
            0,
            Optional.empty(),
            Optional.of(TODAY.minusDays(1)),
            ShelfLine.Kind.JAR,
            0);
    List<ShelfLine> shelf = List.of(line("LDO", 9, 0, 0), line("TERM", 9, 0, 0), blank, jar);
    KitCheck k = KitCheck.of(ask(two(), 5, shelf, "U1"));
    assertEquals(k.verdict(), Verdict.WAIT);
    assertTrue(k.reasons().toString().contains("PASTE expired on 2026-11-24"));
    assertTrue(k.reasons().toString().contains("3 on the shelf, 5 to begin"));
    KitCheck byIron = KitCheck.of(ask(two(), 3, shelf));
    assertEquals(byIron.verdict(), Verdict.START, "nothing is pasted: no paste is asked for");
  }

  /// 100 x 60 mm of 1.6 mm board at 1.85 g/cm³ are 17.76 g; a hand-made example.
  @Test
  public void whatABoardWeighs() {
    Outline edge =
        new Outline(
            List.of(
                List.of(
                    new Outline.Point(0, 0),
                    new Outline.Point(100, 0),
                    new Outline.Point(100, 60),
                    new Outline.Point(0, 60))));
    Revision bare = new Boards().part("U1").shape("SOIC-8").grams(2).done().revision();
    Revision r = new Revision("T", "1", bare.parts(), List.of(), edge);
    MassBudget m = MassBudget.of(r, Optional.of(0.030));
    assertEquals(m.board(), 0.01776, 1e-9);
    assertEquals(m.total(), 0.01976, 1e-9);
    assertEquals(m.verdict(), Optional.of(ell.core.quantity.Verdict.WITHIN));
    assertEquals(
        MassBudget.of(r, Optional.of(0.020)).verdict(),
        Optional.of(ell.core.quantity.Verdict.CLOSE));
    assertEquals(
        MassBudget.of(r, Optional.of(0.010)).verdict(), Optional.of(ell.core.quantity.Verdict.OUT));
    Revision odd = new Boards().part("M1").shape("odd").done().revision();
    assertEquals(MassBudget.of(odd, Optional.of(1.0)).unknown(), List.of("M1"));
  }

  /// (50 + 20 + 180 + 10) / (10 · 0.8) = 32.50; a hand-made example.
  @Test
  public void landedCost() {
    assertEquals(Landed.of(50, 20, 180, 10, 10, 0.8).perGoodBoard(), 32.5, 1e-12);
    assertThrows(IllegalArgumentException.class, () -> Landed.of(50, 20, 180, 10, 10, 0));
    assertThrows(IllegalArgumentException.class, () -> Landed.of(-1, 20, 180, 10, 10, 1));
  }
}
