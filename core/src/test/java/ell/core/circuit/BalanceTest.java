package ell.core.circuit;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.Random;
import org.testng.annotations.Test;

/// Nothing is made and nothing lost: in every transient, what the supplies give is what became heat
/// and what is stored.
public class BalanceTest {
  /// Charging a capacitor takes as much heat as it stores, whatever the resistor: C V^2 / 2.
  @Test
  public void halfOfItIsHeat() {
    for (double ohms : new double[] {1, 100, 10_000}) {
      Circuit c = new Circuit();
      c.supply("S", "in", "GND", 5, 100, 1e-3);
      c.resistor("R", "in", "a", ohms);
      c.capacitor("C", "a", "GND", 1e-6, 1e-3, 1e15);
      Run r = c.run().exact(1e-5).on(30 * ohms * 1e-6);
      double half = 0.5 * 1e-6 * 25;
      assertEquals(r.heat("R"), half, 2e-3 * half, ohms + " ohm");
      assertEquals(r.energy("C") - r.heat("C"), half, 1e-3 * half);
      assertEquals(-r.energy("S"), 2 * half, 2e-3 * half);
      // every node leaks a nanosiemens, which is no element; and its currents cancel to 1e-11 of
      // what 5 V drive through the milliohm of the supply
      double may = 2 * 1e-9 * 25 * r.time() + 1e-11 * 5000 * 5 * r.time();
      assertEquals(r.balance(), 0, 1e-6 * half + may);
    }
  }

  /// Random boards with everything on them, switched on and off again.
  @Test
  public void randomCircuitsInTime() {
    int settled = 0;
    for (int seed = 0; seed < 60; seed++) {
      Random random = new Random(seed);
      Circuit c = new Circuit();
      c.supply("S", "in", "GND", 12, 0.3 + random.nextDouble(), 0.05);
      double stored = 0;
      c.capacitor("C0", "in", "GND", 1e-5, 0.02, 1e8);
      c.diode("D", "in", "a", Diode.SCHOTTKY);
      c.capacitor("C1", "a", "GND", 1e-5 * (1 + random.nextDouble()), 0.02, 1e8);
      c.regulator("U1", "a", "sw", new Regulator(5, 0.5, 1, 1e-3, 0.85).rising(1e-3));
      c.coil("L", "sw", "5", 2.2e-5, 0.1, Double.POSITIVE_INFINITY);
      c.capacitor("C2", "5", "GND", 2e-5, 0.01, 1e8);
      c.regulator("U2", "5", "3", new Regulator(3.3, 0.3, 0.3, 1e-3, 0).rising(1e-4));
      c.capacitor("C3", "3", "GND", 1e-5, 0.01, 1e8);
      c.load("L3", "3", "GND", 0.2 * random.nextDouble(), 2.3);
      c.resistor("RL", "5", "l", 330);
      c.diode("LED", "l", "GND", Diode.lamp(2));
      for (int i = 0; i < 6; i++) {
        String n = "n" + i;
        c.resistor("R" + i, random.nextBoolean() ? "5" : "3", n, 100 + 1e4 * random.nextDouble());
        c.resistor("Q" + i, n, "GND", 100 + 1e4 * random.nextDouble());
        c.capacitor("K" + i, n, "GND", 1e-7 * random.nextDouble() + 1e-9, 0.1, 1e9);
      }
      Run r = c.run();
      r.on(4e-3);
      c.set("S", 12, 1, false);
      r.changed();
      r.on(2e-3);
      for (Element e : c.elements()) {
        stored += e instanceof Supply ? 0 : r.energy(e.name) - r.heat(e.name);
      }
      double given = -r.energy("S");
      assertTrue(given > 1e-4, "seed " + seed);
      assertEquals(r.balance(), 0, 1e-5 * given, "seed " + seed);
      double held = 0;
      for (int i = 0; i < 4; i++) {
        double v = r.at(new String[] {"in", "a", "5", "3"}[i]);
        held += 0.5 * 1e-5 * v * v;
      }
      assertTrue(stored < given && stored > 0.5 * held, "stored " + stored + " of " + given);
      settled += r.now().settled() ? 1 : 0;
    }
    assertEquals(settled, 60);
  }

  /// At rest the supply's power is the heat, on circuits of every kind.
  @Test
  public void whatGoesInIsHeatAtRest() {
    for (double volts : new double[] {0.5, 2, 4, 6, 9, 12, 18}) {
      Circuit c = new Circuit();
      c.supply("S", "in", "GND", volts, 5, 0.05);
      c.diode("D", "in", "a", Diode.SILICON);
      c.regulator("U1", "a", "5", new Regulator(5, 0.5, 1, 1e-3, 0.85));
      c.regulator("U2", "5", "3", new Regulator(3.3, 0.3, 0.3, 1e-3, 0));
      c.load("L", "3", "GND", 0.1, 2.3);
      c.resistor("RB", "5", "b", 1e4);
      c.resistor("RC", "5", "c", 470);
      c.bipolar("Q", "c", "b", "GND", 100, false);
      Operating o = c.rest();
      assertTrue(o.settled(), "at " + volts);
      double heat = o.watts().values().stream().mapToDouble(w -> w).sum();
      assertEquals(heat, o.at("in") * o.through("S"), 1e-7 + 1e-6 * heat, "at " + volts);
      assertTrue(o.watts().values().stream().allMatch(w -> w > -1e-9), o.watts().toString());
    }
  }
}
