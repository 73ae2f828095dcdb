package ell.core.circuit;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.circuit.Network.Regulator;
import ell.core.circuit.Network.Solution;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Whatever the network, what flows into a node flows out of it (Kirchhoff, 1845), and what the
/// supply gives is what the parts turn into heat (Joule). Worked here from the voltages alone.
public class KirchhoffTest {
  private record Arm(String a, String b, double ohms) {}

  private record Draw(String node, double amps, double full) {}

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

  private Network make(Random random, int nodes, boolean loads) {
    arms.clear();
    draws.clear();
    Network n = new Network();
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
        n.load(d.node(), "GND", d.amps(), d.full());
      }
    }
    return n;
  }

  private void arm(Network n, String a, String b, Random random) {
    double ohms = Math.pow(10, 1 + 3 * random.nextDouble());
    n.resistor(a, b, ohms);
    if (!a.equals(b)) {
      arms.add(new Arm(a, b, ohms));
    }
  }

  private double sumInto(String node, Solution s) {
    double sum = 0;
    for (Arm r : arms) {
      double amps = (s.at(r.a()) - s.at(r.b())) / r.ohms();
      sum += r.b().equals(node) ? amps : r.a().equals(node) ? -amps : 0;
    }
    for (Draw d : draws) {
      if (d.node().equals(node)) {
        sum -= d.amps() * Math.min(1, s.at(node) / d.full());
      }
    }
    return sum;
  }

  @Test(dataProvider = "seeds")
  public void whatFlowsInFlowsOut(int seed) {
    Random random = new Random(seed);
    int nodes = 4 + random.nextInt(30);
    Network n = make(random, nodes, seed % 2 == 1);
    Solution s = n.solve("n0", 3 + 9 * random.nextDouble(), 10);
    assertTrue(s.settled());
    for (int i = 1; i < nodes; i++) {
      assertEquals(sumInto("n" + i, s), 0, 2e-8, "at n" + i);
    }
    assertEquals(sumInto("n0", s), -s.supplyAmps(), 2e-8, "the supply gives the rest");
  }

  @Test(dataProvider = "seeds")
  public void whatTheSupplyGivesIsHeat(int seed) {
    Random random = new Random(1000 + seed);
    Network n = make(random, 4 + random.nextInt(20), seed % 2 == 1);
    Solution s = n.solve("n0", 12, 10);
    double heat = 0;
    for (Arm r : arms) {
      heat += Math.pow(s.at(r.a()) - s.at(r.b()), 2) / r.ohms();
    }
    for (Draw d : draws) {
      heat += s.at(d.node()) * d.amps() * Math.min(1, s.at(d.node()) / d.full());
    }
    assertEquals(s.supplyVolts() * s.supplyAmps(), heat, heat * 1e-6 + 144 * LEAKS);
  }

  /// Without loads everything scales with the voltage (superposition).
  @Test(dataProvider = "seeds")
  public void twiceTheVoltageIsTwiceTheCurrent(int seed) {
    Random random = new Random(2000 + seed);
    Network n = make(random, 4 + random.nextInt(20), false);
    double one = n.solve("n0", 1, 10).supplyAmps();
    assertEquals(n.solve("n0", 2, 10).supplyAmps(), 2 * one, one * 1e-9 + 1e-12);
    assertEquals(n.solve("n0", 0, 10).supplyAmps(), 0, 1e-12);
  }

  /// The limit is held whatever hangs on it, and the voltage is then what the limit leaves.
  @Test(dataProvider = "seeds")
  public void theLimitIsHeld(int seed) {
    Random random = new Random(3000 + seed);
    Network n = make(random, 4 + random.nextInt(20), false);
    double free = n.solve("n0", 5, 10).supplyAmps();
    Solution s = n.solve("n0", 5, free / 4);
    assertTrue(s.limited());
    assertEquals(s.supplyAmps(), free / 4, free * 1e-5);
    assertEquals(s.supplyVolts(), 5.0 / 4, 5e-3 + 5.0 * free);
    Solution enough = n.solve("n0", 5, free * 1.01);
    assertEquals(enough.limited(), false);
  }

  /// The resistance that the beeper's solver finds is the one that the power solver shows.
  @Test(dataProvider = "seeds")
  public void bothSolversAgree(int seed) {
    Random random = new Random(4000 + seed);
    Network n = make(random, 4 + random.nextInt(20), false);
    ResistorGraph g = new ResistorGraph();
    arms.forEach(r -> g.resistor("R", r.a(), r.b(), r.ohms()));
    Solution s = n.solve("n0", 1, 10);
    double ohms = g.between("n0", "GND");
    assertEquals(s.supplyVolts() / s.supplyAmps(), ohms, ohms * (1e-6 + ohms * LEAKS));
  }

  /// Two regulators in a row: what the first gives is what the second takes, with its own current.
  @Test
  public void regulatorsInARow() {
    for (double amps : new double[] {1e-3, 1e-2, 0.1, 0.3}) {
      Network n = new Network();
      n.regulator("in", "mid", new Regulator("A", 5, 0.5, 1, 2e-3, 0.9));
      n.regulator("mid", "out", new Regulator("B", 3.3, 0.3, 1, 1e-3, 0));
      n.load("out", "GND", amps, 1);
      Solution s = n.solve("in", 12, 2);
      assertTrue(s.settled());
      assertEquals(s.regulatorAmps().get("B"), amps, 1e-6);
      assertEquals(s.regulatorAmps().get("A"), amps + 1e-3, 1e-6);
      double in = s.at("mid") * (amps + 1e-3) / (0.9 * s.at("in")) + 2e-3;
      assertEquals(s.supplyAmps(), in, in * 1e-3);
    }
  }
}
