package ell.core.circuit;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.Random;
import org.testng.annotations.Test;

/// Steps that are kept short: solved in one go where slopes hardly change, and not at all while
/// nothing does. What they give is that of free steps and of closed forms.
public class ShortStepsTest {
  private static final double SHORT = 1e-5;
  private static final double OHMS = 50_000;
  private static final double FARADS = 1e-6;

  /// Every node leaks a nanosiemens.
  private static final double LEAKS = 1 + OHMS * 1e-9;

  private static final double TAU = OHMS * FARADS / LEAKS;

  private static Circuit charging() {
    Circuit c = new Circuit();
    c.supply("S", "in", "GND", 5, 1, 1e-3);
    c.resistor("R", "in", "a", OHMS);
    c.capacitor("C", "a", "GND", FARADS, 1e-3, 1e15);
    // beside it one that is charged at once, and tells nothing of how slow the other is
    c.capacitor("C1", "in", "GND", 1e-7, 0.01, 1e15);
    return c;
  }

  /// The exponential of a capacitor behind a resistor, from its beginning to long after its end.
  @Test
  public void aChargeFollowsItsExponential() {
    Circuit c = charging();
    Run r = c.run();
    for (int i = 1; i <= 200; i++) {
      r.on(TAU / 10, SHORT);
      double want = 5 / LEAKS * -Math.expm1(-r.time() / TAU);
      assertEquals(r.at("a"), want, 2e-4 * 5, "at " + r.time() / TAU + " tau");
    }
    assertEquals(r.at("a"), 5 / LEAKS, 2e-6);
    assertEquals(r.time(), 20 * TAU, 1e-9);
    assertTrue(r.steps() >= 20 * TAU / SHORT, "only " + r.steps() + " steps");
    double half = 0.5 * FARADS * 25;
    assertEquals(r.heat("R"), half, 2e-3 * half);
    assertEquals(r.energy("C") - r.heat("C"), half, 2e-3 * half);
    assertEquals(r.balance(), 0, 1e-4 * half + 2 * 1e-9 * 25 * r.time());
  }

  /// What is switched while nothing happens is followed from that moment on.
  @Test
  public void aSwitchIsSeenAtOnce() {
    Circuit c = charging();
    Run r = c.run().on(15 * TAU, SHORT);
    double began = r.at("a");
    c.set("S", 9, 1, true);
    r.changed();
    double at = r.time();
    for (int i = 1; i <= 30; i++) {
      r.on(TAU / 10, SHORT);
      double want = 9 / LEAKS + (began - 9 / LEAKS) * Math.exp(-(r.time() - at) / TAU);
      assertEquals(r.at("a"), want, 2e-4 * 9);
    }
  }

  /// From a mark that was made in the midst of steps that were not solved it goes on the same way.
  @Test
  public void aMarkHoldsWhatWasNotSolved() {
    Run r = charging().run().on(9 * TAU, SHORT);
    r.on(17 * SHORT, SHORT);
    Run.Mark mark = r.mark();
    double left = 5 / LEAKS - r.on(TAU, SHORT).at("a");
    r.back(mark);
    assertEquals(5 / LEAKS - r.on(TAU, SHORT).at("a"), left, 1e-3 * left + 1e-9);
    assertEquals(left, 5 * Math.exp(-(10 * TAU + 17 * SHORT) / TAU), 0.1 * left);
  }

  private static Circuit rising(int seed) {
    Random random = new Random(seed);
    Circuit c = new Circuit();
    c.supply("S", "in", "GND", 12, 0.5 + random.nextDouble(), 0.05);
    c.capacitor("C0", "in", "GND", 1e-5, 0.02, 1e8);
    c.diode("D", "in", "a", Diode.SCHOTTKY);
    c.regulator("U1", "a", "5", new Regulator(5, 0.5, 1, 1e-3, 0.85).rising(1e-3));
    c.capacitor("C2", "5", "GND", 2e-5 * (1 + random.nextDouble()), 0.01, 1e8);
    c.regulator("U2", "5", "3", new Regulator(3.3, 0.3, 0.3, 1e-3, 0).rising(1e-4));
    c.capacitor("C3", "3", "GND", 1e-5, 0.01, 1e8);
    c.load("L3", "3", "GND", 0.2 * random.nextDouble(), 2.3);
    c.resistor("RL", "5", "l", 330 + 500 * random.nextDouble());
    c.diode("LED", "l", "GND", Diode.lamp(2));
    c.resistor("RC", "3", "slow", 10_000);
    c.capacitor("CS", "slow", "GND", 2e-7, 0.1, 1e9);
    return c;
  }

  /// Boards that come up, by short steps and by free ones that are exact.
  @Test
  public void theyAgreeWithFreeSteps() {
    for (int seed = 0; seed < 12; seed++) {
      Run free = rising(seed).run().exact(1e-6);
      Run held = rising(seed).run();
      for (int i = 1; i <= 40; i++) {
        free.on(5e-4);
        held.on(5e-4, SHORT);
        for (String n : new String[] {"in", "a", "5", "3", "l", "slow"}) {
          assertEquals(held.at(n), free.at(n), 0.01 + 3e-3 * free.at(n), seed + " " + n + " " + i);
        }
      }
      for (String e : new String[] {"D", "U1", "U2", "L3", "RL", "LED", "RC"}) {
        assertEquals(held.heat(e), free.heat(e), 0.01 * free.heat(e), seed + " " + e);
      }
      assertEquals(held.energy("S"), free.energy("S"), -0.01 * free.energy("S"));
      assertTrue(held.settled() && free.settled());
    }
  }
}
