package ell.core.order;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.RandomBoards;
import ell.core.board.Block;
import ell.core.board.Joint;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.power.LadderProposal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class BuildOrderTest {
  private static BuildOrder plan(Revision r, Method m) {
    return BuildOrder.of(r, m, Blocks.of(r, LadderProposal.of(r)));
  }

  private static Part part(String ref, String shape, double x, double y, Side side, String block) {
    return new Part(
        ref,
        "v",
        shape,
        ref.replaceAll("\\d", "") + shape,
        "",
        true,
        false,
        List.of(),
        block,
        Optional.of(new Part.Spot(x, y, 0, side)),
        Double.NaN,
        Double.NaN);
  }

  private static List<Joint> two(String ref, double x, double y, boolean hole) {
    List<Joint> both = new ArrayList<>();
    for (int p = 1; p <= 2; p++) {
      both.add(
          new Joint(
              ref,
              "" + p,
              p == 1 ? "A" : "B",
              x + p,
              y,
              hole ? Joint.Reach.BOTH : Joint.Reach.FIRST,
              hole,
              hole ? 1 : 0,
              true,
              1,
              1,
              0,
              false,
              0));
    }
    return both;
  }

  @DataProvider
  Object[][] methods() {
    return new Object[][] {{Method.STENCIL_PLATE}, {Method.HOT_AIR}, {Method.IRON}};
  }

  /// Whatever the board: every fitted part exactly once, no part left off placed, every gate once
  /// and after all parts of its block and of the blocks before it, second side after the first.
  @Test(dataProvider = "methods")
  public void noSequenceBreaksItsRules(Method method) {
    Random random = new Random(17);
    for (int round = 0; round < 120; round++) {
      Revision r = RandomBoards.make(random, 1 + random.nextInt(90));
      List<Block> blocks = Blocks.of(r, LadderProposal.of(r));
      BuildOrder order = BuildOrder.of(r, method, blocks);
      Map<String, Integer> at = new HashMap<>();
      Map<String, Integer> gates = new HashMap<>();
      for (Step s : order.steps()) {
        assertEquals(s.number(), order.steps().indexOf(s) + 1);
        assertFalse(s.reasons().isEmpty(), "each step says why");
        assertTrue(s.gate().isEmpty() || s.parts().isEmpty(), "a gate places nothing");
        s.gate().ifPresent(g -> assertEquals(gates.put(g, s.number()), null));
        s.parts().forEach(p -> assertEquals(at.put(p, s.number()), null, p + " placed once"));
      }
      for (Part p : r.parts()) {
        assertEquals(at.containsKey(p.reference()), p.fitted(), p.reference());
      }
      int last = 0;
      for (Block b : blocks) {
        int gate = gates.get(b.gate());
        assertTrue(gate > last, "gates in the order of the blocks");
        b.parts().stream()
            .filter(p -> order.placing(p).orElseThrow().action() != Step.Action.ATTACH)
            .forEach(p -> assertTrue(at.get(p) < gate, p + " before gate " + b.gate()));
        last = gate;
      }
      if (method == Method.STENCIL_PLATE) {
        sidesInTurn(order);
      }
    }
  }

  private static void sidesInTurn(BuildOrder order) {
    int phase = -1;
    Side melted =
        order.steps().stream()
            .filter(s -> s.action() == Step.Action.PASTE)
            .map(Step::side)
            .findFirst()
            .orElse(Side.FIRST);
    for (Step s : order.steps()) {
      int now =
          switch (s.action()) {
            case ARRIVE -> -1;
            case PASTE, PLACE, REFLOW, TABS -> s.side() == melted ? 0 : 1;
            case CUT, SOLDER, PLUG, HOT_AIR -> 2;
            case ATTACH -> 3;
            case GATE -> phase;
          };
      assertTrue(now >= phase, "step " + s.number());
      phase = now;
    }
  }

  /// Every arrow that the planner draws is kept, or said to be dropped.
  @Test(dataProvider = "methods")
  public void whatIsCoveredComesFirst(Method method) {
    Random random = new Random(23);
    for (int round = 0; round < 60; round++) {
      Revision r = RandomBoards.make(random, 2 + random.nextInt(60));
      BuildOrder order = plan(r, method);
      if (!order.loops().isEmpty()) {
        continue;
      }
      for (Part under : r.parts()) {
        for (Part over : r.parts()) {
          if (covers(r, over, under)) {
            assertTrue(
                order.placing(under.reference()).orElseThrow().number()
                    <= order.placing(over.reference()).orElseThrow().number(),
                under.reference() + " lies under " + over.reference());
          }
        }
      }
    }
  }

  private static boolean covers(Revision r, Part over, Part under) {
    if (over == under
        || !over.fitted()
        || !under.fitted()
        || over.place().isEmpty()
        || under.place().isEmpty()
        || over.side() != under.side()
        || r.shape(over).heightMm() < r.shape(under).heightMm() + 0.05) {
      return false;
    }
    double[] o = r.shape(over).boxAt(over.place().get());
    double[] u = r.shape(under).boxAt(under.place().get());
    double cx = (u[0] + u[2]) / 2;
    double cy = (u[1] + u[3]) / 2;
    if (r.shape(over).round()) {
      return Math.hypot(cx - (o[0] + o[2]) / 2, cy - (o[1] + o[3]) / 2) < (o[2] - o[0]) / 2 * 0.98;
    }
    return cx > o[0] && cx < o[2] && cy > o[1] && cy < o[3];
  }

  @Test
  public void lowBeforeTallByIron() {
    List<Part> parts =
        List.of(
            part("C1", "RADIAL-6.3", 10, 10, Side.FIRST, ""),
            part("R1", "1206", 14, 10, Side.FIRST, ""),
            part("D1", "SMA", 10, 15, Side.FIRST, ""));
    List<Joint> joints = new ArrayList<>();
    parts.forEach(p -> joints.addAll(two(p.reference(), 10, 10, p.reference().equals("C1"))));
    BuildOrder o = plan(new Revision("T", "1", parts, joints, Outline.UNKNOWN), Method.IRON);
    List<String> sequence = o.steps().stream().flatMap(s -> s.parts().stream()).toList();
    assertEquals(sequence, List.of("R1", "D1", "C1"));
    assertTrue(
        o.placing("R1").orElseThrow().reasons().stream().anyMatch(x -> x.contains("lower than")),
        o.placing("R1").orElseThrow().reasons().toString());
  }

  @Test
  public void stencilMeltsBeforeTheIron() {
    List<Part> parts =
        List.of(
            part("J1", "HDR", 30, 30, Side.FIRST, ""),
            part("R1", "0603", 5, 5, Side.FIRST, ""),
            part("R2", "0603", 8, 5, Side.SECOND, ""));
    List<Joint> joints = new ArrayList<>();
    joints.addAll(two("J1", 30, 30, true));
    joints.addAll(two("R1", 5, 5, false));
    joints.addAll(two("R2", 8, 5, false));
    BuildOrder o =
        plan(new Revision("T", "1", parts, joints, Outline.UNKNOWN), Method.STENCIL_PLATE);
    List<Step.Action> actions = o.steps().stream().map(Step::action).toList();
    assertEquals(
        actions.subList(0, 7),
        List.of(
            Step.Action.PASTE,
            Step.Action.PLACE,
            Step.Action.REFLOW,
            Step.Action.PASTE,
            Step.Action.PLACE,
            Step.Action.REFLOW,
            Step.Action.SOLDER));
    assertEquals(o.inPaste().size(), 2);
    assertTrue(
        o.steps().get(2).cautions().getFirst().contains("burns"), "cautions stand in the step");
  }

  @Test
  public void equalPartsGoInOneGo() {
    List<Part> parts = new ArrayList<>();
    List<Joint> joints = new ArrayList<>();
    for (int i = 0; i < 30; i++) {
      String ref = (i % 2 == 0 ? "R" : "C") + (i + 1);
      parts.add(part(ref, "0603", 4 * (i % 6), 4 * (i / 6), Side.FIRST, ""));
      joints.addAll(two(ref, 4 * (i % 6), 4 * (i / 6), false));
    }
    BuildOrder o =
        plan(new Revision("T", "1", parts, joints, Outline.UNKNOWN), Method.STENCIL_PLATE);
    assertEquals(
        o.steps().stream().filter(s -> s.action() == Step.Action.PLACE).count(),
        2,
        "two reels, two steps");
  }

  @Test
  public void blocksOfTheFilesKeepTheirOrder() {
    List<Part> parts =
        List.of(
            part("U3", "SOIC-8", 30, 5, Side.FIRST, "bus"),
            part("U2", "SOIC-8", 20, 5, Side.FIRST, "controller"),
            part("U1", "SOIC-8", 10, 5, Side.FIRST, "supply"),
            part("R9", "0603", 40, 5, Side.FIRST, ""));
    List<Joint> joints = new ArrayList<>();
    parts.forEach(p -> joints.addAll(two(p.reference(), p.place().get().xMm(), 5, false)));
    Revision r = new Revision("T", "1", parts, joints, Outline.UNKNOWN);
    List<Block> blocks = Blocks.of(r, LadderProposal.of(r));
    assertEquals(
        blocks.stream().map(Block::name).toList(), List.of("supply", "controller", "bus", "rest"));
    BuildOrder o = BuildOrder.of(r, Method.IRON, blocks);
    assertEquals(
        o.steps().stream().flatMap(s -> s.parts().stream()).toList(),
        List.of("U1", "U2", "U3", "R9"));
    assertEquals(o.steps().get(1).gate(), Optional.of("rails"));
  }

  @Test
  public void nothingToBuild() {
    Revision none = new Revision("T", "1", List.of(), List.of(), Outline.UNKNOWN);
    assertTrue(plan(none, Method.STENCIL_PLATE).steps().isEmpty());
    assertEquals(plan(none, Method.IRON).minutes(), 0.0);
  }
}
