package ell.work;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.bench.Bench;
import ell.book.Build;
import ell.core.beep.BeepCheck;
import ell.core.board.Part;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.heat.Alloy;
import ell.core.kit.KitCheck;
import ell.core.look.Walk;
import ell.core.order.Method;
import ell.core.order.OrderFacts;
import ell.core.order.Step;
import ell.core.power.Ladder.RailSpec;
import ell.core.quantity.Verdict;
import ell.core.rack.Plan;
import ell.work.beep.BeepRun;
import ell.work.bench.SimulatedBench;
import ell.work.power.PowerRun;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Boards unlike the demo, walked from their files to first power, each by the way that suits it: a
/// healthy board is accused of nothing anywhere.
public class OddWalkTest {
  private static final int MOST_CHECKS = 400;

  @DataProvider
  Object[][] boards() {
    return new Object[][] {
      {OddBoard.SHIELD, Method.IRON, 1, List.of("source 5V=5V")},
      {OddBoard.CELL, Method.STENCIL_PLATE, 1, List.of("source VBUS=5V", "load U3=12mA")},
      {OddBoard.CELL, Method.HOT_AIR, 1, List.of("source VBUS=5V")},
      {OddBoard.PANEL, Method.STENCIL_PLATE, 2, List.of("source J1.1=5V,channel=1")},
    };
  }

  @Test(dataProvider = "boards", timeOut = 240_000)
  public void fromItsFilesToFirstPower(OddBoard odd, Method method, int panel, List<String> answers)
      throws Exception {
    try (Workshop w = odd.workshop()) {
      w.say(odd.design(), "1", answers);
      Build build = w.makeBuild(odd.design(), "1", 2, method, Alloy.SAC305, "", "", panel);
      Plan plan = w.plan(build);
      kit(w, build, plan);
      for (String board : build.boards()) {
        built(w, build, board);
      }
      for (String board : build.boards()) {
        looked(w, plan, board);
        powered(w, plan, board);
        assertEquals(w.state(board).findings(), List.of(), "a healthy board is accused of nothing");
        assertEquals(w.standing(board).phrase(), "rails within");
      }
      assertTrue(w.book().verify().ok());
    }
  }

  /// Nothing is on the shelf, and it is said of every code.
  private static void kit(Workshop w, Build build, Plan plan) throws Exception {
    KitCheck kit = w.stockroom().kit(build, plan);
    long codes =
        plan.revision().parts().stream().filter(Part::fitted).map(Part::code).distinct().count();
    assertEquals(kit.lines().size(), codes);
    assertEquals(kit.boardsNow(), 0);
  }

  /// Step by step on all boards together, as the tape and the window log it.
  private static void built(Workshop w, Build build, String board) throws Exception {
    Plan plan = w.plan(build);
    w.log(board, List.of(new Entry.Override("paste", "the shelf is not kept"))).orThrow();
    for (Step s : plan.order().steps()) {
      for (String b : build.boards()) {
        OrderFacts f = OrderFacts.of(w.state(b));
        if (f.done(s)) {
          continue;
        }
        assertEquals(f.next(plan.order()).orElseThrow(), s, "steps come in their order");
        w.type(b, s.gate().map(g -> "gate " + g + " holds").orElse("step " + s.number())).orThrow();
      }
    }
    assertEquals(
        OrderFacts.of(w.state(board)).placed().stream().sorted().toList(),
        plan.revision().parts().stream()
            .filter(Part::fitted)
            .map(Part::reference)
            .sorted()
            .toList());
  }

  private static void looked(Workshop w, Plan plan, String board) throws Exception {
    Walk walk = w.looking().walk(w.buildOf(board), board);
    long soldered =
        plan.revision().parts().stream()
            .filter(Part::fitted)
            .mapToLong(p -> plan.revision().jointsOf(p.reference()).size())
            .sum();
    assertTrue(walk.stops().size() + walk.hidden().size() <= soldered);
    assertTrue(walk.stops().size() > soldered / 2, walk.stops().size() + " of " + soldered);
  }

  private static void powered(Workshop w, Plan plan, String board) throws Exception {
    List<RailSpec> rails = plan.ladder().raised();
    assertFalse(rails.isEmpty());
    try (SimulatedBench sim = SimulatedBench.start(w, 5)) {
      try (BeepRun beep = new BeepRun(w.acts(), board, sim.bench())) {
        List<BeepCheck> checks = plan.beep().checks();
        for (BeepCheck c : checks.subList(0, Math.min(MOST_CHECKS, checks.size()))) {
          Entry.Check made = (Entry.Check) beep.check(c).entry();
          assertEquals(
              made.verdict(),
              Verdict.WITHIN,
              c.a().place() + " " + c.b().place() + " " + made.ohms() + " " + c.expected());
        }
      }
      List<String> ended = new ArrayList<>();
      Bench b = sim.bench();
      try (PowerRun run =
          new PowerRun(
              w.acts(),
              plan,
              board,
              new Bench(b.name(), b.addresses(), 8000, false),
              new PowerRun.Watcher() {
                @Override
                public void ended(String why, boolean surprise, boolean mayBeOn) {
                  ended.add(why);
                  assertFalse(surprise, why);
                }
              },
              2)) {
        assertTrue(run.climb(), ended.toString());
        for (RailSpec r : rails) {
          Optional<Logged> read = run.read(r);
          Entry.Reading x = (Entry.Reading) read.orElseThrow().entry();
          if (!r.guessed()) {
            assertEquals(x.verdict().orElseThrow(), Verdict.WITHIN, r.net() + " " + x.value());
          }
        }
        run.off("all rails read");
      }
      assertFalse(sim.servers().outputOn());
      assertEquals(ended, List.of("all rails read"));
    }
  }
}
