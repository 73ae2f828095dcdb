package ell.trials.power;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.Test;

/// First power of many boards by its own rules: nobody healthy is stopped, and a fault does harm
/// only where no supply could have known it before. The same with larger numbers: `./ell bench
/// first-power`.
public final class FirstPowersTest {
  private static final int BOARDS = 20;

  /// Parts anywhere in their tolerances, loads from 0.7 to 1.3 of what was said.
  @Test
  public void nobodyHealthyIsStopped() {
    FirstPowers p = new FirstPowers();
    for (int seed = 1; seed <= BOARDS; seed++) {
      MadeBoards.Made m = MadeBoards.of(seed);
      p.healthy(m.revision(), m.ladder(), 10, seed + 100);
    }
    assertEquals(p.tried(), 10 * BOARDS);
    assertEquals(p.accused(), java.util.List.of());
    assertEquals(p.unsettled(), 0);
  }

  /// What is harmed is a lamp whose own resistor is bridged, behind a regulator that comes up all
  /// at once; or chips behind a regulator that has lost its ground. Both are seen; too late.
  @Test
  public void aFaultDoesHarmOnlyWhereNoSupplyCanKnow() {
    FirstPowers p = new FirstPowers();
    for (int seed = 1; seed <= BOARDS; seed++) {
      MadeBoards.Made m = MadeBoards.of(seed);
      p.faults(m.revision(), m.ladder(), 15, seed + 200);
    }
    assertEquals(p.tried(), 15 * BOARDS);
    assertEquals(p.unsettled(), 0);
    assertTrue(p.stopped() > 0.15 * p.tried(), "shorts are caught: " + p.stopped());
    assertTrue(p.railsOut() > 0, "opens are seen at the rails");
    assertTrue(p.harmed().size() < 0.06 * p.tried(), String.join("\n", p.harmed()));
    for (String h : p.harmed()) {
      assertTrue(
          h.matches(".*(: D[23] carries|: U\\d+ has .* over it).*") && !h.contains("not seen"), h);
    }
  }
}
