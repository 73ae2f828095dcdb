package ell.core.order;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import ell.core.Boards;
import ell.core.RandomBoards;
import ell.core.board.Block;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.entry.BoardState;
import ell.core.entry.Logged;
import ell.core.heat.HeatFacts;
import ell.core.power.LadderProposal;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.testng.annotations.Test;

/// Ways to build that are not paste, plate and iron by one pair of hands: which side melts first,
/// sockets, parts of no place, what the assembly house has done, and panels. Rules of the trade:
/// common practice, no source.
public class OddWaysTest {
  private static BuildOrder plan(Revision r, Method m, int panel, String... wishes) {
    List<Block> blocks = Blocks.of(r, LadderProposal.of(r));
    List<Wish> wanted = new ArrayList<>();
    for (String w : wishes) {
      wanted.add(Wish.parse(w, r, blocks));
    }
    return BuildOrder.of(r, m, blocks, wanted, panel, () -> false);
  }

  private static List<Step.Action> actions(BuildOrder o) {
    return o.steps().stream().map(Step::action).toList();
  }

  private static Side firstPasted(BuildOrder o) {
    return o.steps().stream()
        .filter(s -> s.action() == Step.Action.PASTE)
        .findFirst()
        .orElseThrow()
        .side();
  }

  private static Step only(BuildOrder o, Step.Action action) {
    List<Step> found = o.steps().stream().filter(s -> s.action() == action).toList();
    assertEquals(found.size(), 1, actions(o).toString());
    return found.getFirst();
  }

  private static Boards twoSides(double tallFirst, double tallSecond) {
    Boards b = new Boards();
    b.part("U1").shape("10X10X" + tallFirst + "MM").grams(0.05).at(10, 10).pads("A", "B", "C");
    b.part("U2")
        .shape("10X10X" + tallSecond + "MM")
        .grams(0.05)
        .at(40, 10, 0, Side.SECOND)
        .pads("A", "B", "C");
    return b;
  }

  @Test
  public void theLowerSideMeltsFirst() {
    BuildOrder low = plan(twoSides(4, 1).revision(), Method.STENCIL_PLATE, 1);
    assertEquals(firstPasted(low), Side.SECOND);
    Step paste = low.steps().getFirst();
    assertTrue(paste.reasons().getFirst().contains("4.0 mm"), paste.reasons().toString());
    assertTrue(paste.reasons().getFirst().contains("1.0 mm"), paste.reasons().toString());
    assertTrue(paste.reasons().getFirst().contains("first-side first"), "how to put it right");
    assertEquals(firstPasted(plan(twoSides(1, 4).revision(), Method.STENCIL_PLATE, 1)), Side.FIRST);
    assertEquals(
        firstPasted(plan(twoSides(1, 1.2).revision(), Method.STENCIL_PLATE, 1)),
        Side.FIRST,
        "alike: the first is first");
    assertEquals(
        firstPasted(plan(twoSides(1, 4).revision(), Method.STENCIL_PLATE, 1, "second-side first")),
        Side.SECOND);
  }

  /// Alike in height, 0.5 g against 0.1 g on pads that hold both (30 g per square inch: 0.0465
  /// g/mm² on 12 mm²).
  @Test
  public void theLighterSideMeltsFirst() {
    Boards b = new Boards();
    String[] pads = {"A", "B", "C", "D", "E", "F", "G", "H", "I", "J", "K", "L"};
    b.part("U1").shape("12X4X2MM").grams(0.5).at(10, 10).pads(pads);
    b.part("U2").shape("12X4X2MM").grams(0.1).at(40, 10, 0, Side.SECOND).pads(pads);
    assertEquals(firstPasted(plan(b.revision(), Method.STENCIL_PLATE, 1)), Side.SECOND);
  }

  /// Its parts fill the second side only: the board is not turned over for nothing.
  @Test
  public void oneSideOnly() {
    Boards b = new Boards();
    b.part("R1").at(10, 10, 0, Side.SECOND).pads("A", "B");
    b.part("J1").shape("HEADER-3").at(30, 10).holes("A", "B", "C");
    BuildOrder o = plan(b.revision(), Method.STENCIL_PLATE, 1);
    assertEquals(firstPasted(o), Side.SECOND);
    assertEquals(actions(o).stream().filter(a -> a == Step.Action.REFLOW).count(), 1);
  }

  private static Boards socketed() {
    Boards b = new Boards();
    b.part("XU1")
        .value("DIP-8 socket")
        .shape("DIP-8")
        .at(20, 20)
        .holes("A", "B", "C", "D", "E", "F", "G", "H");
    b.part("U1").value("TIMER").shape("DIP-8").at(20, 20).done();
    b.part("R1").at(40, 20).holes("A", "B");
    return b;
  }

  @Test
  public void aChipIsPluggedIntoItsSocket() {
    for (Method m : Method.values()) {
      BuildOrder o = plan(socketed().revision(), m, 1);
      Step plug = only(o, Step.Action.PLUG);
      assertEquals(plug.parts(), List.of("U1"));
      assertTrue(plug.reasons().toString().contains("XU1"), plug.reasons().toString());
      assertTrue(plug.cautions().toString().contains("Power off"), plug.cautions().toString());
      assertTrue(
          o.placing("XU1").orElseThrow().number() < plug.number(), "the socket is soldered first");
      assertEquals(o.placing("XU1").orElseThrow().action(), Step.Action.SOLDER);
      assertFalse(o.inPaste().contains("U1"));
    }
  }

  /// The netlist has the same holes for both.
  @Test
  public void holesThatTwoPartsShareMakeASocket() {
    Boards b = new Boards();
    b.part("J1").value("SOCKET 1x4").shape("HEADER-4").at(20, 20).holes("A", "B", "C", "D");
    b.part("M1").shape("MOD-20x18x9mm").at(20, 20).holes("A", "B", "C", "D");
    b.part("J2").shape("HEADER-4").at(20, 50).holes("A", "B", "C", "D");
    BuildOrder o = plan(b.revision(), Method.IRON, 1);
    assertEquals(only(o, Step.Action.PLUG).parts(), List.of("M1"));
    assertEquals(o.placing("J2").orElseThrow().action(), Step.Action.SOLDER);
  }

  @Test
  public void aModuleOfItsOwnPadsIsSolderedLikeAnyPart() {
    Boards b = new Boards();
    b.part("M1").shape("MODULE-18").at(20, 20).pads("A", "B", "C", "D");
    assertEquals(
        plan(b.revision(), Method.STENCIL_PLATE, 1).placing("M1").orElseThrow().action(),
        Step.Action.PLACE);
    assertEquals(
        plan(b.revision(), Method.IRON, 1).placing("M1").orElseThrow().action(),
        Step.Action.SOLDER);
  }

  @Test
  public void whatHasNoPlaceIsAttachedLast() {
    Boards b = new Boards();
    b.part("W1").value("cable 200 mm").done();
    b.part("BT1").value("cell").done();
    b.part("R1").at(10, 10).pads("V", "GND");
    b.part("J1").shape("HEADER-3").at(30, 10).holes("V", "GND", "C");
    for (Method m : Method.values()) {
      BuildOrder o = plan(b.revision(), m, 1);
      List<Step> last = o.steps().stream().filter(s -> s.action() == Step.Action.ATTACH).toList();
      assertEquals(
          last.stream().flatMap(s -> s.parts().stream()).sorted().toList(), List.of("BT1", "W1"));
      int soldered = o.placing("J1").orElseThrow().number();
      assertTrue(last.getFirst().number() > soldered);
      assertTrue(
          o.steps().stream()
              .filter(s -> s.gate().isPresent())
              .allMatch(s -> s.number() < last.getFirst().number()),
          "no gate waits for a cable");
    }
  }

  @Test
  public void whatTheHouseFittedIsThereFirst() {
    Boards b = twoSides(1, 4);
    b.part("J1").shape("HEADER-3").at(70, 10).holes("A", "B", "C");
    for (Method m : Method.values()) {
      BuildOrder o = plan(b.revision(), m, 1, "surface by-house");
      assertEquals(o.steps().getFirst().action(), Step.Action.ARRIVE);
      assertEquals(o.arriving(), java.util.Set.of("U1", "U2"));
      assertEquals(
          actions(o).stream().filter(a -> a == Step.Action.PASTE).count(), 0, "nothing to print");
      assertEquals(o.placing("J1").orElseThrow().action(), Step.Action.SOLDER);
      assertTrue(o.inPaste().isEmpty());
      Logged arrived = new Logged(1, OffsetDateTime.MIN, "01", o.steps().getFirst().done(0));
      assertEquals(
          HeatFacts.of(BoardState.of("01", List.of(arrived))).heatCycles(),
          Map.of("U1", 1, "U2", 1),
          "the house heated them once");
    }
  }

  /// 1 g on 3 mm² of pad is far over 0.0465 g/mm²: it hangs while the other side melts.
  @Test
  public void whatTheHouseFittedMayFallOff() {
    Boards b = new Boards();
    b.part("L1").shape("12X12X6MM").grams(1).at(20, 20).pads("A", "B", "C");
    b.part("R1").at(10, 10, 0, Side.SECOND).pads("A", "B");
    BuildOrder o = plan(b.revision(), Method.STENCIL_PLATE, 1, "first-side by-house");
    assertTrue(o.notes().toString().contains("L1 arrives fitted and may fall off"));
    assertEquals(firstPasted(o), Side.SECOND);
    String held = only(o, Step.Action.REFLOW).how().toString();
    assertTrue(held.contains("L1") && held.contains("6.0 mm"), held);
  }

  @Test
  public void aSideByAnotherWay() {
    BuildOrder o = plan(twoSides(1, 4).revision(), Method.STENCIL_PLATE, 1, "second-side by-hand");
    assertEquals(actions(o).stream().filter(a -> a == Step.Action.REFLOW).count(), 1);
    assertEquals(o.placing("U2").orElseThrow().action(), Step.Action.SOLDER);
  }

  @Test
  public void aPanelIsCutOnceItsPasteIsMeltedAndBeforeAnyGate() {
    Boards b = twoSides(1, 4);
    b.part("J1").shape("HEADER-3").at(70, 10).holes("A", "GND", "C");
    for (Method m : Method.values()) {
      BuildOrder o = plan(b.revision(), m, 4);
      Step cut = only(o, Step.Action.CUT);
      for (Step s : o.steps()) {
        switch (s.action()) {
          case PASTE, PLACE, REFLOW, ARRIVE, TABS ->
              assertTrue(s.number() < cut.number(), s.action().words());
          case GATE -> assertTrue(s.number() > cut.number());
          default -> {} // by hand, on either side of it
        }
      }
      assertTrue(cut.cautions().toString().contains("dust"));
      assertEquals(
          plan(b.revision(), m, 1).steps().size(), o.steps().size() - 1, "one board: no cut");
    }
  }

  /// Ten boards in panels of five, two prints and two plate loads of 120 s and 480 s, against ten.
  @Test
  public void aPanelSavesPrintsAndLoads() {
    Revision r = twoSides(1, 1).revision();
    List<Step> steps =
        plan(r, Method.STENCIL_PLATE, 5).steps().stream()
            .filter(s -> s.action() == Step.Action.PASTE || s.action() == Step.Action.REFLOW)
            .toList();
    assertEquals(steps.size(), 4);
    SeveralBoards five = SeveralBoards.of(steps, StepTimes.TYPICAL, 10, 1, 5);
    SeveralBoards one = SeveralBoards.of(steps, StepTimes.TYPICAL, 10, 1, 1);
    assertEquals(five.boardAfterBoard(), 2 * (120 + 480) * 2, 1e-9);
    assertEquals(one.boardAfterBoard(), 10 * (120 + 480) * 2, 1e-9);
    assertThrows(
        IllegalArgumentException.class, () -> SeveralBoards.of(steps, StepTimes.TYPICAL, 10, 1, 0));
  }

  @Test
  public void wordsOfAWish() {
    Revision r = twoSides(1, 4).revision();
    List<Block> blocks = Blocks.of(r, LadderProposal.of(r));
    for (String text :
        List.of(
            "U1 by-house",
            "surface by-house",
            "all by-house",
            "second-side by-hand",
            "second-side first",
            "first-side first")) {
      assertEquals(Wish.parse(text, r, blocks).text(), text);
      assertEquals(Wish.parse(text.toUpperCase(java.util.Locale.ROOT), r, blocks).text(), text);
    }
    for (String text : List.of("surface first", "all before U1", "U9 by-house", "by-house")) {
      assertThrows(IllegalArgumentException.class, () -> Wish.parse(text, r, blocks));
    }
  }

  /// Whatever the board, the panel and what arrives: every fitted part is in one step exactly.
  @Test
  public void everyPartOnceWhateverTheWay() {
    Random random = new Random(97);
    for (int round = 0; round < 60; round++) {
      Revision r = RandomBoards.make(random, 2 + random.nextInt(60));
      String[] groups = {"surface", "first-side", "second-side", "all"};
      BuildOrder o =
          plan(
              r,
              Method.values()[random.nextInt(3)],
              1 + random.nextInt(3),
              groups[random.nextInt(4)] + (random.nextBoolean() ? " by-house" : " by-hand"),
              random.nextBoolean() ? "second-side first" : "first-side first");
      assertEquals(
          o.steps().stream().flatMap(s -> s.parts().stream()).sorted().toList(),
          r.parts().stream().filter(p -> p.fitted()).map(p -> p.reference()).sorted().toList());
    }
  }
}
