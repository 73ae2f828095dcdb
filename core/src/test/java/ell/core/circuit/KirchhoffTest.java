package ell.core.circuit;

import static ell.core.circuit.Fed.fed;
import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Whatever the network, what flows into a node flows out of it (Kirchhoff, 1845), and what the
/// supply gives is what the parts turn into heat (Joule). Worked here from the voltages alone.
public class KirchhoffTest {
  private record Arm(String a, String b, double ohms) {}

  private record Draw(String node, double amps, double full) {
    /// Nothing below a quarter of its full volts, then smoothly up to all of it.
    double at(double volts) {
      double x = Math.clamp((volts / full - 0.25) / 0.75, 0, 1);
      return amps * (3 * x * x - 2 * x * x * x);
    }
  }

  /// Every node leaks 1 nS so that none floats; no network here has more than 40 nodes.
  private static final double LEAKS = 40e-9;

  private final List<Arm> arms = new ArrayList<>();
  private final List<Draw> draws = new ArrayList<>();

  @DataProvider
  Object[][] seeds() {
    Object[][] out = new Object[40][];
    for (int i = 0; i < out.length; i++) {
      out[i] = new Object[] {i};
    }
    return out;
  }

  private Circuit make(Random random, int nodes, boolean loads) {
    arms.clear();
    draws.clear();
    Circuit n = new Circuit();
    for (int i = 1; i < nodes; i++) {
      arm(n, "n" + i, "n" + random.nextInt(i), random);
    }
    for (int i = 0; i < nodes; i++) {
      String b = random.nextInt(3) == 0 ? "GND" : "n" + random.nextInt(nodes);
      arm(n, "n" + random.nextInt(nodes), b, random);
    }
    arm(n, "n" + (nodes - 1), "GND", random);
    if (loads) {
      for (int i = 0; i < nodes / 3; i++) {
        Draw d = new Draw("n" + random.nextInt(nodes), 1e-3 * random.nextDouble(), 1.5);
        draws.add(d);
        n.load("L" + i, d.node(), "GND", d.amps(), d.full());
      }
    }
    return n;
  }

  private void arm(Circuit n, String a, String b, Random random) {
    double ohms = Math.pow(10, 1 + 3 * random.nextDouble());
    n.resistor("R" + arms.size(), a, b, ohms);
    if (!a.equals(b)) {
      arms.add(new Arm(a, b, ohms));
    }
  }

  private double sumInto(String node, Operating s) {
    double sum = 0;
    for (Arm r : arms) {
      double amps = (s.at(r.a()) - s.at(r.b())) / r.ohms();
      sum += r.b().equals(node) ? amps : r.a().equals(node) ? -amps : 0;
    }
    for (Draw d : draws) {
      if (d.node().equals(node)) {
        sum -= d.at(s.at(node));
      }
    }
    return sum;
  }

  @Test(dataProvider = "seeds")
  public void whatFlowsInFlowsOut(int seed) {
    Random random = new Random(seed);
    int nodes = 4 + random.nextInt(30);
    Circuit n = make(random, nodes, seed % 2 == 1);
    Operating s = fed(n, "n0", 3 + 9 * random.nextDouble(), 10);
    assertTrue(s.settled());
    for (int i = 1; i < nodes; i++) {
      assertEquals(sumInto("n" + i, s), 0, 2e-8, "at n" + i);
    }
    assertEquals(sumInto("n0", s), -s.through(Fed.SUPPLY), 2e-8, "the supply gives the rest");
  }

  @Test(dataProvider = "seeds")
  public void whatTheSupplyGivesIsHeat(int seed) {
    Random random = new Random(1000 + seed);
    Circuit n = make(random, 4 + random.nextInt(20), seed % 2 == 1);
    Operating s = fed(n, "n0", 12, 10);
    double heat = 0;
    for (Arm r : arms) {
      heat += Math.pow(s.at(r.a()) - s.at(r.b()), 2) / r.ohms();
    }
    for (Draw d : draws) {
      heat += s.at(d.node()) * d.at(s.at(d.node()));
    }
    assertEquals(s.at("n0") * s.through(Fed.SUPPLY), heat, heat * 1e-6 + 144 * LEAKS);
  }

  /// Without loads everything scales with the voltage (superposition).
  @Test(dataProvider = "seeds")
  public void twiceTheVoltageIsTwiceTheCurrent(int seed) {
    Random random = new Random(2000 + seed);
    Circuit n = make(random, 4 + random.nextInt(20), false);
    double one = fed(n, "n0", 1, 10).through(Fed.SUPPLY);
    assertEquals(fed(n, "n0", 2, 10).through(Fed.SUPPLY), 2 * one, one * 1e-9 + 1e-12);
    assertEquals(fed(n, "n0", 0, 10).through(Fed.SUPPLY), 0, 1e-8);
  }

  /// The limit is held whatever hangs on it, and the voltage is then what the limit leaves.
  @Test(dataProvider = "seeds")
  public void theLimitIsHeld(int seed) {
    Random random = new Random(3000 + seed);
    Circuit n = make(random, 4 + random.nextInt(20), false);
    double free = fed(n, "n0", 5, 10).through(Fed.SUPPLY);
    Operating s = fed(n, "n0", 5, free / 4);
    assertTrue(s.limited());
    assertEquals(s.through(Fed.SUPPLY), free / 4, free * 1e-5);
    assertEquals(s.at("n0"), 5.0 / 4, 5e-3 + 5.0 * free);
    Operating enough = fed(n, "n0", 5, free * 1.01);
    assertEquals(enough.limited(), false);
  }

  /// The resistance that the beeper's solver finds is the one that the power solver shows.
  @Test(dataProvider = "seeds")
  public void bothSolversAgree(int seed) {
    Random random = new Random(4000 + seed);
    Circuit n = make(random, 4 + random.nextInt(20), false);
    Resistance g = Resistance.of(n);
    Operating s = fed(n, "n0", 1, 10);
    double ohms = g.between("n0", "GND");
    assertEquals(s.at("n0") / s.through(Fed.SUPPLY), ohms, ohms * (1e-6 + ohms * LEAKS));
  }

  /// Two regulators in a row: what the first gives is what the second takes, with its own current.
  @Test
  public void regulatorsInARow() {
    for (double amps : new double[] {1e-3, 1e-2, 0.1, 0.3}) {
      Circuit n = new Circuit();
      n.regulator("A", "in", "mid", new Regulator(5, 0.5, 1, 2e-3, 0.9));
      n.regulator("B", "mid", "out", new Regulator(3.3, 0.3, 1, 1e-3, 0));
      n.load("L", "out", "GND", amps, 1);
      Operating s = fed(n, "in", 12, 2);
      assertTrue(s.settled());
      assertEquals(s.through("B"), amps, 1e-6);
      assertEquals(s.through("A"), amps + 1e-3, 1e-6);
      double in = s.at("mid") * (amps + 1e-3) / (0.9 * s.at("in")) + 2e-3;
      assertEquals(s.through(Fed.SUPPLY), in, in * 1e-3);
    }
  }
}
