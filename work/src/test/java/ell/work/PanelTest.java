package ell.work;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.book.Build;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.heat.Alloy;
import ell.core.heat.HeatFacts;
import ell.core.order.Method;
import ell.core.order.OrderFacts;
import ell.core.order.Step;
import ell.core.print.PrintFacts;
import ell.work.act.Outcome;
import ell.work.act.RefusedException;
import ell.work.space.ActException;
import java.util.List;
import java.util.Set;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/// Boards that hang together: one print, one heat, one cut for all of them, and each its own book.
public class PanelTest {
  private Workshop w;
  private Build build;

  @BeforeMethod
  public void make() throws Exception {
    w = OddBoard.PANEL.workshop();
    build = w.makeBuild("panel", "1", 5, Method.STENCIL_PLATE, Alloy.SAC305, "P", "", 2);
  }

  @AfterMethod(alwaysRun = true)
  public void close() throws Exception {
    w.close();
  }

  private Step step(Step.Action action) throws Exception {
    return w.plan(build).order().steps().stream()
        .filter(s -> s.action() == action)
        .findFirst()
        .orElseThrow();
  }

  private void upTo(String board, Step.Action action) throws Exception {
    int last = step(action).number() - 1;
    OrderFacts f = OrderFacts.of(w.state(board));
    for (Step s : w.plan(build).order().steps().subList(0, last)) {
      if (!OrderFacts.of(w.state(board)).done(s)) {
        w.log(board, List.of(s.rest(f.placed()))).orThrow();
      }
    }
  }

  @Test
  public void whichBoardsHangTogether() throws Exception {
    assertEquals(w.panels().of(build), 2);
    assertEquals(w.panels().panel(build, "P02"), List.of("P01", "P02"));
    assertEquals(w.panels().panel(build, "P05"), List.of("P05"), "the last panel is not full");
    assertEquals(w.plan(build).panel(), 2);
    for (int wrong : new int[] {0, -1, 6}) {
      assertThrows(
          ActException.class,
          () -> w.makeBuild("panel", "1", 5, Method.IRON, Alloy.SAC305, "Q", "", wrong));
    }
    Build plain = w.makeBuild("panel", "1", 3, Method.IRON, Alloy.SAC305, "R", "", 1);
    assertEquals(w.panels().of(plain), 1, "what was refused before leaves nothing behind");
  }

  @Test
  public void aPrintIsThatOfAllOnThePanel() throws Exception {
    Step print = step(Step.Action.PASTE);
    List<Logged> all = ((Outcome.Done) w.log("P02", List.of(print.done(12)))).entries();
    assertEquals(all.getFirst().board(), "P02", "the maker's board first");
    for (String b : List.of("P01", "P02")) {
      assertTrue(OrderFacts.of(w.state(b)).done(print), b);
      assertEquals(PrintFacts.of(w.state(b)).printed(), Set.of("first"), b);
    }
    assertEquals(w.entries("P03"), List.of());
    assertTrue(w.book().verify().ok());
  }

  @Test
  public void noPanelIsHeatedBeforeEveryBoardOnItIsReady() throws Exception {
    upTo("P01", Step.Action.REFLOW);
    RefusedException no =
        expectThrows(
            RefusedException.class,
            () -> w.log("P01", List.of(step(Step.Action.REFLOW).done(0))).orThrow());
    assertEquals(no.refusal().rule(), "panel");
    assertTrue(no.getMessage().contains("board P02 hangs on the same panel"), no.getMessage());
    assertEquals(HeatFacts.of(w.state("P01")).heatCycles().size(), 0, "nothing half done");
    assertEquals(HeatFacts.of(w.state("P02")).heatCycles().size(), 0);
    upTo("P02", Step.Action.REFLOW);
    w.log("P01", List.of(step(Step.Action.REFLOW).done(0))).orThrow();
    for (String b : List.of("P01", "P02")) {
      assertEquals(HeatFacts.of(w.state(b)).heatCycles().get("D17"), 1, b);
    }
  }

  @Test
  public void theRuleIsSetAsideLikeAnyOther() throws Exception {
    upTo("P01", Step.Action.REFLOW);
    w.log("P01", List.of(new Entry.Override("panel", "P02 is scrap"))).orThrow();
    w.log("P01", List.of(step(Step.Action.REFLOW).done(0))).orThrow();
    assertTrue(OrderFacts.of(w.state("P02")).done(step(Step.Action.REFLOW)));
  }

  @Test
  public void onceCutEachBoardIsAlone() throws Exception {
    upTo("P01", Step.Action.REFLOW);
    upTo("P02", Step.Action.REFLOW);
    w.log("P02", List.of(step(Step.Action.REFLOW).done(0))).orThrow();
    w.log("P01", List.of(step(Step.Action.CUT).done(0))).orThrow();
    assertTrue(OrderFacts.of(w.state("P02")).done(step(Step.Action.CUT)), "both come apart");
    int before = w.entries("P02").size();
    w.log("P01", List.of(step(Step.Action.REFLOW).done(0))).orThrow();
    assertEquals(w.entries("P02").size(), before, "a second heat is that of one board");
  }

  @Test
  public void aPanelGoesWithTheExport() throws Exception {
    try (Workshop again = OddBoard.reopened(w)) {
      assertEquals(again.panels().of(again.build(java.util.Optional.of(build.id()))), 2);
    }
  }
}
