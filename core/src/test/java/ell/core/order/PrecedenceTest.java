package ell.core.order;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import ell.core.Boards;
import ell.core.RandomBoards;
import ell.core.board.Block;
import ell.core.board.PackageShape;
import ell.core.board.PackageSheet;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.order.Arrow.Why;
import ell.core.power.LadderProposal;
import ell.core.quantity.Verdict;
import ell.core.sheet.Worked;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// What comes before what: geometry worked by hand, wishes, loops, and the property that no
/// sequence breaks an arrow.
public class PrecedenceTest {
  private static BuildOrder plan(Revision r, Method m, String... wishes) {
    List<Block> blocks = Blocks.of(r, LadderProposal.of(r));
    List<Wish> wanted = new ArrayList<>();
    for (String w : wishes) {
      wanted.add(Wish.parse(w, r, blocks));
    }
    return BuildOrder.of(r, m, blocks, wanted, 1, () -> false);
  }

  private static List<String> sequence(BuildOrder o) {
    return o.steps().stream().flatMap(s -> s.parts().stream()).toList();
  }

  private static boolean arrow(BuildOrder o, String before, String after, Why why) {
    return o.arrows().stream()
        .anyMatch(a -> a.before().equals(before) && a.after().equals(after) && a.why() == why);
  }

  @DataProvider
  Object[][] methods() {
    return new Object[][] {{Method.STENCIL_PLATE}, {Method.HOT_AIR}, {Method.IRON}};
  }

  /// Whatever the board and whatever is wished: every arrow that is not said to be given up is
  /// kept, every part is placed once, and every loop names an arrow of its own.
  @Test(dataProvider = "methods")
  public void noSequenceEverBreaksAnArrow(Method method) {
    Random random = new Random(53);
    for (int round = 0; round < 60; round++) {
      Revision r = RandomBoards.make(random, 1 + random.nextInt(70));
      List<Block> blocks = Blocks.of(r, LadderProposal.of(r));
      List<String> fitted = r.parts().stream().filter(Part::fitted).map(Part::reference).toList();
      List<Wish> wishes = new ArrayList<>();
      for (int k = 0; k < random.nextInt(6) && fitted.size() > 1; k++) {
        String a = fitted.get(random.nextInt(fitted.size()));
        String b = fitted.get(random.nextInt(fitted.size()));
        switch (random.nextInt(6)) {
          case 0 -> wishes.add(new Wish(Wish.Kind.FIRST, a, ""));
          case 1 -> wishes.add(new Wish(Wish.Kind.LAST, a, ""));
          case 2 -> wishes.add(new Wish(Wish.Kind.BY_HAND, a, ""));
          case 3 ->
              wishes.add(
                  new Wish(
                      Wish.Kind.AFTER_GATE, a, blocks.get(random.nextInt(blocks.size())).gate()));
          case 4 -> wishes.add(new Wish(Wish.Kind.BY_HOUSE, round % 3 == 0 ? "surface" : a, ""));
          default -> {
            if (!a.equals(b)) {
              wishes.add(new Wish(Wish.Kind.BEFORE, a, b));
            }
          }
        }
      }
      BuildOrder o = BuildOrder.of(r, method, blocks, wishes, 1, () -> false);
      assertEquals(o.brokenBy(sequence(o)), List.of());
      assertEquals(sequence(o).stream().sorted().toList(), fitted.stream().sorted().toList());
      for (Loop l : o.loops()) {
        assertTrue(l.arrows().contains(l.dropped()), l.words());
        for (int i = 0; i < l.arrows().size(); i++) {
          assertEquals(
              l.arrows().get(i).after(),
              l.arrows().get((i + 1) % l.arrows().size()).before(),
              l.words());
        }
        assertFalse(o.arrows().contains(l.dropped()));
      }
      assertTrue(o.effort().bound() <= o.effort().seconds() + 1e-9);
    }
  }

  /// A square can of 10 mm over 0603 chips: one under its middle, one beside it by 1 mm, one by 5
  /// mm.
  @Test
  public void coversAndRoom() {
    Boards b = new Boards();
    b.part("U1").shape("20X10X9MM").at(20, 20).pads("A", "B", "C");
    b.part("R1").at(24, 20).pads("A", "B");
    b.part("R2").at(20, 26.4).pads("A", "B");
    b.part("R3").at(20, 31).pads("A", "B");
    BuildOrder o = plan(b.revision(), Method.IRON);
    assertTrue(arrow(o, "R1", "U1", Why.COVER));
    assertTrue(arrow(o, "R2", "U1", Why.ROOM), o.arrows().toString());
    assertTrue(o.arrows().stream().noneMatch(a -> a.before().equals("R3")), "5 mm is far enough");
    // hot air needs 3 mm: a part 2 mm beside is in its way, for an iron it is not
    Boards far = new Boards();
    far.part("U1").shape("20X10X9MM").at(20, 20).pads("A", "B", "C");
    far.part("R1").at(20, 27.4).pads("A", "B");
    assertTrue(arrow(plan(far.revision(), Method.HOT_AIR), "R1", "U1", Why.ROOM));
    assertTrue(plan(far.revision(), Method.IRON).arrows().isEmpty());
  }

  /// A rectangle of 20 × 4 mm turned by 45° reaches 7.07 mm along each axis with its ends: what
  /// lies inside its upright box but beside the body is not under it.
  @Test
  public void turnedBodiesCoverWhatIsUnderThem() {
    Boards b = new Boards();
    b.part("U1").shape("20X4X6MM").at(20, 20, 45, Side.FIRST).pads("A", "B", "C");
    b.part("R1").at(25, 25).pads("A", "B");
    b.part("R2").at(26, 14).pads("A", "B");
    BuildOrder o = plan(b.revision(), Method.IRON);
    assertTrue(arrow(o, "R1", "U1", Why.COVER));
    assertFalse(arrow(o, "R2", "U1", Why.COVER), "inside the box, not under the body");
    assertEquals(Bodies.outline(shape("U1", "20X4X6MM"), spot(0)).getArea(), 80, 1e-9);
    assertEquals(Bodies.outline(shape("C1", "RADIAL-10"), spot(30)).getArea(), Math.PI * 25, 0.6);
  }

  private static PackageShape shape(String ref, String name) {
    Revision r = new Boards().part(ref).shape(name).at(0, 0).done().revision();
    return r.shape(r.parts().getFirst());
  }

  private static Part.Spot spot(double turned) {
    return new Part.Spot(0, 0, turned, Side.FIRST);
  }

  @Test
  public void modulesComeLastOfTheirBlockAndSocketsBefore() {
    Boards b = new Boards();
    b.part("M1").shape("MOD-20x18x9mm").block("radio").at(20, 20).done();
    b.part("J1").shape("SOCKET").block("radio").at(12, 20).holes("A", "B", "C");
    b.part("R1").block("radio").at(50, 20).pads("A", "B");
    BuildOrder o = plan(b.revision(), Method.STENCIL_PLATE);
    assertEquals(sequence(o), List.of("R1", "J1", "M1"));
    assertTrue(arrow(o, "J1", "M1", Why.MODULE));
    assertEquals(o.placing("M1").orElseThrow().action(), Step.Action.PLUG);
  }

  @Test
  public void heatComesBeforeWhatDislikesIt() {
    Boards b = new Boards();
    b.part("U1").shape("SOIC-8").block("x").at(20, 20).pads("A", "B", "C", "D", "E", "F", "G", "H");
    b.part("LED1").shape("0603").block("x").at(20, 25).pads("A", "B");
    BuildOrder o = plan(b.revision(), Method.IRON);
    assertTrue(arrow(o, "U1", "LED1", Why.HEAT), o.arrows().toString());
    assertEquals(sequence(o), List.of("U1", "LED1"));
  }

  @Test
  public void whatWouldFallOffIsFittedLast() {
    Boards b = new Boards();
    // 2 pads of 1 mm²: up to 0.093 g hang on
    b.part("L1").shape("IND-6060").grams(0.2).at(20, 20).pads("A", "B");
    b.part("R1").at(40, 20).pads("A", "B");
    b.part("R2").at(30, 20, 0, Side.SECOND).pads("A", "B");
    assertTrue(
        plan(b.revision(), Method.STENCIL_PLATE).inPaste().contains("L1"),
        "the other side is melted first, and L1 lies on top");
    BuildOrder o = plan(b.revision(), Method.STENCIL_PLATE, "first-side first");
    assertFalse(o.inPaste().contains("L1"));
    assertTrue(o.placing("L1").orElseThrow().reasons().toString().contains("fall off"));
    Boards one = new Boards();
    one.part("L1").shape("IND-6060").grams(0.2).at(20, 20).pads("A", "B");
    one.part("R1").at(40, 20).pads("A", "B");
    assertTrue(
        plan(one.revision(), Method.STENCIL_PLATE).inPaste().contains("L1"),
        "nothing hangs when there is no second reflow");
  }

  /// 30 g per square inch is 30 / 645.16 mm² = 0.0465 g/mm²; common practice, no source.
  @Test
  public void fallOffSheet() {
    assertEquals(FallOff.LIMIT, 0.0465, 1e-4);
    Worked w = OrderSheets.all().getFirst().work(Map.of("massGrams", "0.93", "padAreaMm2", "20"));
    assertEquals(w.number("ratio"), 0.0465, 1e-9);
    assertEquals(w.verdict().orElseThrow(), Verdict.WITHIN);
    assertEquals(
        OrderSheets.all()
            .getFirst()
            .work(Map.of("massGrams", "1", "padAreaMm2", "20"))
            .verdict()
            .orElseThrow(),
        Verdict.OUT);
  }

  @Test
  public void aWishThatBreaksARuleIsTold() {
    Boards b = new Boards();
    b.part("U1").shape("20X10X9MM").at(20, 20).pads("A", "B", "C");
    b.part("R1").at(24, 20).pads("A", "B");
    b.part("R2").at(60, 20).pads("A", "B");
    Revision r = b.revision();
    BuildOrder o = plan(r, Method.IRON, "U1 before R1");
    assertEquals(o.loops().size(), 1);
    Loop l = o.loops().getFirst();
    assertTrue(l.byWish());
    assertEquals(l.dropped().why(), Why.COVER);
    assertTrue(o.mind().getFirst().startsWith("a wish breaks a rule"), o.mind().toString());
    assertTrue(sequence(o).indexOf("U1") < sequence(o).indexOf("R1"), "and it is followed");
    assertEquals(sequence(plan(r, Method.IRON, "R2 first")).getFirst(), "R2");
    assertEquals(sequence(plan(r, Method.IRON, "R2 last")).getLast(), "R2");
    // two wishes against each other: one of them is given up, and said
    BuildOrder both = plan(r, Method.IRON, "R1 before R2", "R2 before R1");
    assertEquals(both.loops().getFirst().dropped().why(), Why.WISH);
  }

  @Test
  public void wishesAgainstThePasteAndForGates() {
    Boards b = new Boards();
    b.part("U1").shape("SOIC-8").block("supply").at(20, 20).pads("A", "B", "C");
    b.part("J1").shape("HDR").block("supply").at(60, 20).holes("A", "B");
    b.part("D1").shape("SMA").block("rest").at(40, 20).pads("A", "B");
    Revision r = b.revision();
    BuildOrder o = plan(r, Method.STENCIL_PLATE, "J1 before U1");
    assertTrue(o.mind().toString().contains("cannot be followed"), o.mind().toString());
    BuildOrder hand = plan(r, Method.STENCIL_PLATE, "D1 by-hand");
    assertFalse(hand.inPaste().contains("D1"));
    assertEquals(hand.placing("D1").orElseThrow().action(), Step.Action.SOLDER);
    BuildOrder late = plan(r, Method.IRON, "J1 after rails");
    int gate =
        late.steps().stream()
            .filter(s -> s.gate().equals(Optional.of("rails")))
            .findFirst()
            .orElseThrow()
            .number();
    assertTrue(late.placing("J1").orElseThrow().number() > gate);
    assertTrue(late.mind().toString().contains("asked without it"), late.mind().toString());
    for (String wrong :
        List.of("X9 first", "J1", "J1 sideways", "J1 before", "J1 before J1", "J1 after never")) {
      assertThrows(IllegalArgumentException.class, () -> plan(r, Method.IRON, wrong));
    }
  }

  @Test
  public void aHiddenTestPointIsTold() {
    Boards b = new Boards();
    b.part("U1").shape("20X10X9MM").block("supply").at(20, 20).pads("3V3", "GND", "IN");
    b.part("TP1").at(24, 20).off().pads("3V3");
    BuildOrder o = plan(b.revision(), Method.IRON);
    assertTrue(o.mind().toString().contains("U1 hides TP1"), o.mind().toString());
  }

  @Test
  public void gatesNeedWhatLiesUnderTheirParts() {
    Boards b = new Boards();
    b.part("U1").shape("20X10X9MM").block("supply").at(20, 20).pads("A", "B", "C");
    b.part("R1").block("rest").at(24, 20).pads("A", "B");
    b.part("R2").block("rest").at(60, 20).pads("A", "B");
    BuildOrder o = plan(b.revision(), Method.IRON);
    assertEquals(o.gateNeeds().getFirst().parts(), Set.of("U1", "R1"), "R1 lies under U1");
    assertTrue(sequence(o).indexOf("R1") < sequence(o).indexOf("U1"));
  }

  @Test
  public void severalBoardsAndTheTwoSchools() {
    Boards b = new Boards();
    for (int i = 0; i < 8; i++) {
      b.part("R" + i).code("C" + i).at(4 * i, 10).pads("A", "B");
    }
    BuildOrder o = plan(b.revision(), Method.STENCIL_PLATE);
    // board after board: 10 · (120 + 8 · 21 + 480 + gates); each step on all: 8 reels once, 5 loads
    SeveralBoards s = SeveralBoards.of(o.steps(), StepTimes.TYPICAL, 10, 2, 1);
    double gates = o.steps().stream().filter(x -> x.gate().isPresent()).count();
    assertEquals(s.boardAfterBoard(), 10 * (120 + 8 * 21 + 480 + gates * 120), 1e-9);
    assertEquals(
        s.stepAfterStep(),
        10 * 120 + 9 * 4 + 8 * (15 + 10 * 6 + 9 * 4) + 5 * 480 + gates * (1200 + 36),
        1e-9);
    assertTrue(s.stepwise());
    Schools few = schools(1);
    Schools many = schools(50);
    assertTrue(few.byBlock(), "for one board no stencil is worth it");
    assertFalse(many.byBlock());
    // (5 − 30) / (20 − 25 + 0.2 · 0.4 · 60 / 2 · (1 − 1/5)) = −25 / −3.08
    double n = few.breakEven().orElseThrow();
    assertEquals(n, 25 / 3.08, 1e-9);
    // at the break-even both totals are the same, interpolated between whole numbers of boards
    Schools below = schools((int) Math.floor(n));
    Schools above = schools((int) Math.ceil(n));
    assertTrue(below.byBlock() && !above.byBlock());
  }

  private static Schools schools(int boards) {
    return new Schools(boards, 20, 25, 30, 5, 60, 5, 0.2, 0, 0.4, 6, 15, 5, List.of());
  }

  @Test
  public void faultRateLeansOnTheBook() {
    assertEquals(Schools.faultRate(0, 0), 300e-6, 1e-12);
    assertEquals(Schools.faultRate(50, 10_000), (50 + 1.5) / 15_000, 1e-12);
  }

  @Test
  public void theSheetOfPackagesCanBeExtended() {
    PackageSheet.Line own =
        PackageSheet.of("ODD-9*", "module", "9", "8", "7", "1.5", "4", "notch", "yes", "measured");
    Revision r = new Boards().part("U1").shape("ODD-9X").at(0, 0).done().revision();
    PackageShape s = r.with(PackageSheet.SHIPPED.with(List.of(own))).shape(r.parts().getFirst());
    assertEquals(s.heightMm(), 7.0);
    assertEquals(s.mark(), PackageShape.Mark.NOTCH);
    assertTrue(s.heat() && s.known());
    assertFalse(r.shape(r.parts().getFirst()).known());
    assertThrows(IllegalArgumentException.class, () -> PackageSheet.of("A", "odd", "1", "1", "1"));
    assertThrows(IllegalArgumentException.class, () -> PackageSheet.of("A", "dual", "0", "1", "1"));
    assertThrows(IllegalArgumentException.class, () -> PackageSheet.of("A", "dual"));
  }

  /// Body sizes of outline standards, from memory: JEDEC MS-012 (SOIC-8 4.9 × 3.9), MO-153
  /// (TSSOP-16 5.0 × 4.4), MS-026 (LQFP-48 7 × 7), TO-261 (SOT-223 6.5 × 3.5), DO-214AC (SMA 4.3 ×
  /// 2.6), EIA 0603 (1.6 × 0.8).
  @DataProvider
  Object[][] outlines() {
    return new Object[][] {
      {"SOIC-8", 3.9, 4.9},
      {"soic8", 3.9, 4.9},
      {"TSSOP-16", 4.4, 5.0},
      {"LQFP-48", 7.0, 7.0},
      {"SOT-223", 6.5, 3.5},
      {"SMA", 4.3, 2.6},
      {"0603", 1.6, 0.8},
      {"QFN-32", 5.0, 5.0},
      {"SOT-23-5", 2.9, 1.6},
      {"XTAL-5032", 5.0, 3.2}
    };
  }

  @Test(dataProvider = "outlines")
  public void shippedOutlines(String name, double length, double width) {
    PackageShape s = shape("U1", name);
    assertEquals(s.lengthMm(), length, 0.01);
    assertEquals(s.widthMm(), width, 0.01);
    assertFalse(s.source().isEmpty());
  }
}
