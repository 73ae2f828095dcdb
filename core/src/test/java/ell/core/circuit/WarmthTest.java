package ell.core.circuit;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;

import java.util.List;
import org.testng.annotations.Test;

/// Warmth against its closed form: P θ (1 - exp(-t / τ)) after a step of power, and exp(-t / τ)
/// after it ended (Newton's law of cooling, any textbook).
public final class WarmthTest {
  private static final Warmth.Body R1 = new Warmth.Body("R1", 340, 2);

  private static Circuit heated() {
    Circuit c = new Circuit();
    c.supply("S", "A", Circuit.GROUND, 5, 10, 0.01);
    c.set("S", 5, 10, true);
    c.resistor("R1", "A", Circuit.GROUND, 100);
    return c;
  }

  @Test
  public void aStepOfPowerWarmsAsTheClosedFormSays() {
    Circuit c = heated();
    Run run = c.run();
    Warmth w = new Warmth(run, List.of(R1));
    double watts = Math.pow(5 * 100 / 100.01, 2) / 100;
    for (int i = 1; i <= 40; i++) {
      run.on(0.1);
      w.follow();
      assertEquals(w.of("R1"), watts * 340 * (1 - Math.exp(-0.1 * i / 2)), 0.01, "after " + i);
    }
    c.set("S", 5, 10, false);
    run.changed();
    double then = w.of("R1");
    run.on(3);
    w.follow();
    assertEquals(w.of("R1"), then * Math.exp(-3 / 2.0), 0.05);
  }

  @Test
  public void howOftenItIsAskedDoesNotMatter() {
    Run often = heated().run();
    Run once = heated().run();
    Warmth a = new Warmth(often, List.of(R1));
    Warmth b = new Warmth(once, List.of(R1));
    for (int i = 0; i < 200; i++) {
      often.on(0.01);
      a.follow();
    }
    once.on(2);
    b.follow();
    b.follow();
    assertEquals(a.of("R1"), b.of("R1"), 1e-3);
  }

  @Test
  public void everyElementOfAPartHeatsItAndNoOther() {
    Circuit c = heated();
    c.resistor("U1 load", "A", Circuit.GROUND, 50);
    c.resistor("U1", "A", Circuit.GROUND, 50);
    c.resistor("U11", "A", Circuit.GROUND, 1);
    Run run = c.run();
    Warmth w = new Warmth(run, List.of(new Warmth.Body("U1", 10, 0.01)));
    run.on(1);
    w.follow();
    double v = run.at("A");
    assertEquals(w.of("U1"), 10 * 2 * v * v / 50, 0.05);
    assertEquals(w.of("U11"), 0.0, "no body");
  }

  @Test
  public void aBodyHasASize() {
    assertThrows(IllegalArgumentException.class, () -> new Warmth.Body("R1", 0, 1));
    assertThrows(IllegalArgumentException.class, () -> new Warmth.Body("R1", 1, Double.NaN));
  }
}
