package ell.core.circuit;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.LUDecomposition;
import org.testng.annotations.Test;

/// Circuits with a small change, against the changed circuit solved by the dense solver of a
/// reference library (Hipparchus), and against the changed circuit made anew.
public class VariantsTest {
  private static final double LEAK = 1e-9;

  private record R(String name, int a, int b, double ohms) {}

  private static String name(int node) {
    return node < 0 ? "GND" : "n" + node;
  }

  private static List<R> network(Random random, int nodes) {
    List<R> all = new ArrayList<>();
    for (int i = 0; i < 2 * nodes; i++) {
      int a = i < nodes ? i : random.nextInt(nodes);
      int b = i < nodes ? random.nextInt(i + 1) - 1 : random.nextInt(nodes + 1) - 1;
      if (a != b) {
        all.add(new R("R" + i, a, b, Math.pow(10, 1 + 4 * random.nextDouble())));
      }
    }
    return all;
  }

  private static Circuit circuit(List<R> rs, int nodes, double volts) {
    Circuit c = new Circuit();
    for (int i = 0; i < nodes; i++) {
      c.touch(name(i));
    }
    c.supply("S", "n0", "GND", volts, 1000, 0.01);
    rs.forEach(r -> c.resistor(r.name(), name(r.a()), name(r.b()), r.ohms()));
    return c;
  }

  /// Node volts by dense nodal analysis: a source of so many volts behind 0.01 ohm at node 0.
  private static double[] dense(List<R> rs, int nodes, double volts) {
    Array2DRowRealMatrix g = new Array2DRowRealMatrix(nodes, nodes);
    for (int i = 0; i < nodes; i++) {
      g.addToEntry(i, i, LEAK);
    }
    g.addToEntry(0, 0, 100);
    for (R r : rs) {
      double s = 1 / r.ohms();
      g.addToEntry(r.a(), r.a(), s);
      if (r.b() >= 0) {
        g.addToEntry(r.b(), r.b(), s);
        g.addToEntry(r.a(), r.b(), -s);
        g.addToEntry(r.b(), r.a(), -s);
      }
    }
    ArrayRealVector right = new ArrayRealVector(nodes);
    right.setEntry(0, 100 * volts);
    return new LUDecomposition(g).getSolver().solve(right).toArray();
  }

  @Test
  public void resistorsGoComeAndChange() {
    for (int seed = 0; seed < 60; seed++) {
      Random random = new Random(seed);
      int nodes = 4 + random.nextInt(25);
      List<R> rs = network(random, nodes);
      double volts = 1 + 10 * random.nextDouble();
      Variants v = new Variants(circuit(rs, nodes, volts));
      for (int k = 0; k < 12; k++) {
        List<R> changed = new ArrayList<>(rs);
        Change c = v.change();
        R gone = rs.get(random.nextInt(rs.size()));
        if (random.nextBoolean()) {
          changed.remove(gone);
          c.without(gone.name());
        } else {
          changed.remove(gone);
          changed.add(new R(gone.name(), gone.a(), gone.b(), 10 * gone.ohms()));
          c.value(gone.name(), 10 * gone.ohms());
        }
        int a = random.nextInt(nodes);
        int b = random.nextInt(nodes);
        if (a != b) {
          changed.add(new R("bridge", a, b, 0.3));
          c.resistor("bridge", name(a), name(b), 0.3);
        }
        double[] want = dense(changed, nodes, volts);
        AtRest got = v.with(c).orElseThrow();
        for (int i = 0; i < nodes; i++) {
          assertEquals(got.at(name(i)), want[i], 1e-9 * volts + 1e-9, "seed " + seed + " n" + i);
        }
      }
    }
  }

  @Test
  public void junctionsAndLeadsAgreeWithTheCircuitMadeAnew() {
    for (int seed = 0; seed < 40; seed++) {
      Random random = new Random(1000 + seed);
      Circuit base = new Circuit();
      Circuit anew = new Circuit();
      int n = 5 + random.nextInt(8);
      int off = random.nextInt(n);
      for (Circuit c : List.of(base, anew)) {
        c.supply("S", "v", "GND", 5, 10, 0.01);
      }
      for (int i = 0; i < n; i++) {
        double ohms = 100 * (1 + random.nextInt(50));
        boolean turned = random.nextInt(4) == 0;
        base.resistor("R" + i, "v", "a" + i, ohms);
        base.diode("D" + i, "a" + i, "GND", Diode.lamp(1.9));
        // the lead of one resistor has come off; the lamp of another sits the wrong way round
        anew.resistor("R" + i, "v", i == off ? "lead" : "a" + i, ohms);
        boolean here = turned && i != off;
        anew.diode("D" + i, here ? "GND" : "a" + i, here ? "a" + i : "GND", Diode.lamp(1.9));
        if (here) {
          turns.add("D" + i);
        }
      }
      Variants v = new Variants(base);
      Change c = v.change().apart("R" + off, "a" + off, "lead");
      turns.forEach(c::turned);
      AtRest got = v.with(c).orElseThrow();
      Operating want = anew.rest();
      assertTrue(want.settled());
      for (int i = 0; i < n; i++) {
        assertEquals(got.at("a" + i), want.at("a" + i), 1e-9, "seed " + seed);
        assertEquals(got.through("D" + i), want.through("D" + i), 1e-12);
      }
      assertEquals(got.at("lead"), want.at("lead"), 1e-7);
      Operating whole = v.whole(c, 1e-6);
      assertEquals(whole.at("lead"), want.at("lead"), 1e-9);
      turns.clear();
    }
  }

  private final List<String> turns = new ArrayList<>();

  @Test
  public void whatLeadsTooFarIsSaid() {
    Circuit c = new Circuit();
    c.supply("S", "v", "GND", 5, 0.1, 0.01);
    c.resistor("R1", "v", "GND", 100);
    Variants v = new Variants(c);
    Change shorted = v.change().resistor("bridge", "v", "GND", 0.1);
    assertEquals(v.with(shorted), Optional.empty(), "beyond the limit of the supply");
    Operating whole = v.whole(shorted, 1e-6);
    assertTrue(whole.limited());
    // 0.1 A over 100 and 0.1 ohm side by side
    assertEquals(whole.at("v"), 0.1 / (1 / 100.0 + 1 / 0.1), 1e-6);
    assertFalse(v.base().limited(), "what was tried leaves no trace");
    assertEquals(v.with(v.change()).orElseThrow().at("v"), 5 - 0.0005, 1e-5);
    assertThrows(IllegalArgumentException.class, () -> v.change().resistor("x", "v", "nowhere", 1));
  }

  /// Source of the reference: series and parallel resistors by Ohm's law, and dense nodal analysis.
  @Test
  public void ohmsUnderChanges() {
    Circuit chain = new Circuit();
    chain.resistor("R1", "A", "B", 100);
    chain.resistor("R2", "B", "C", 200);
    chain.resistor("R3", "A", "C", 600);
    OhmVariants o = new OhmVariants(chain);
    assertEquals(o.between("A", "C"), 200, 1e-3, "300 beside 600");
    assertEquals(o.with(o.change().without("R3")).between("A", "C"), 300, 1e-3);
    assertEquals(o.with(o.change().without("R2")).between("A", "C"), 600, 1e-3);
    assertEquals(
        o.with(o.change().without("R2").without("R3")).between("A", "C"), Double.POSITIVE_INFINITY);
    assertEquals(o.with(o.change().resistor("b", "B", "C", 200)).between("A", "C"), 150, 1e-3);
    OhmVariants.Changed lead = o.with(o.change().apart("R2", "B", "lead"));
    assertEquals(lead.between("lead", "B"), 200 + 600 + 100, 2e-3, "the long way round");
    assertEquals(lead.between("A", "C"), 600, 1e-3);
    for (int seed = 0; seed < 40; seed++) {
      Random random = new Random(seed);
      int nodes = 4 + random.nextInt(20);
      List<R> rs = network(random, nodes);
      Circuit c = circuit(rs, nodes, 1);
      OhmVariants v = new OhmVariants(c);
      R gone = rs.get(random.nextInt(rs.size()));
      List<R> left = new ArrayList<>(rs);
      left.remove(gone);
      OhmVariants.Changed changed = v.with(v.change().without(gone.name()));
      for (int k = 0; k < 10; k++) {
        int a = random.nextInt(nodes);
        int b = random.nextInt(nodes);
        double want = ohms(left, nodes, a, b);
        double got = changed.between(name(a), name(b));
        if (want > OhmVariants.OPEN) {
          assertEquals(got, Double.POSITIVE_INFINITY, "seed " + seed);
        } else {
          assertEquals(got, want, 2e-5 * want + 1e-6, "seed " + seed);
        }
      }
    }
  }

  /// Leads that come off, of parts of one resistor or of two, alone and with a bridge or with
  /// another part gone: by dense nodal analysis with the lead as a node of its own.
  @Test
  public void ohmsBesideLeadsThatCameOff() {
    int near = 0;
    for (int seed = 0; seed < 120; seed++) {
      Random random = new Random(500 + seed);
      int nodes = 5 + random.nextInt(20);
      List<R> rs = network(random, nodes);
      Circuit c = circuit(rs, nodes, 1);
      // a part of two resistors that share a node
      int shared = random.nextInt(nodes);
      List<R> pair =
          List.of(
              new R("P one", shared, (shared + 1) % nodes, 470),
              new R("P two", shared, random.nextBoolean() ? -1 : (shared + 2) % nodes, 1500));
      pair.forEach(r -> c.resistor(r.name(), name(r.a()), name(r.b()), r.ohms()));
      List<R> all = new ArrayList<>(rs);
      all.addAll(pair);
      OhmVariants v = new OhmVariants(c);
      Change change = v.change();
      R off = random.nextInt(3) == 0 ? pair.getFirst() : rs.get(random.nextInt(rs.size()));
      int from = off.a();
      String part = off.name().split(" ")[0];
      change.apart(part, name(from), "lead");
      List<R> want = new ArrayList<>();
      for (R r : all) {
        boolean of = r.name().split(" ")[0].equals(part);
        int a = of && r.a() == from ? nodes : r.a();
        int b = of && r.b() == from ? nodes : r.b();
        want.add(b == nodes ? new R(r.name(), b, a, r.ohms()) : new R(r.name(), a, b, r.ohms()));
      }
      if (seed % 3 == 1) {
        int a = random.nextInt(nodes);
        int b = (a + 1 + random.nextInt(nodes - 1)) % nodes;
        change.resistor("bridge", name(a), name(b), 3);
        want.add(new R("bridge", a, b, 3));
      } else if (seed % 3 == 2) {
        R gone = rs.get(random.nextInt(rs.size()));
        if (!gone.name().equals(part)) {
          change.without(gone.name());
          want.removeIf(r -> r.name().equals(gone.name()));
        }
      }
      OhmVariants.Changed changed = v.with(change);
      for (int k = 0; k < 20; k++) {
        int a = k < 6 ? nodes : random.nextInt(nodes);
        int b = random.nextInt(nodes);
        double ohms = ohms(want, nodes + 1, a, b);
        double got = changed.between(a == nodes ? "lead" : name(a), name(b));
        assertEquals(
            changed.between(
                a == nodes ? changed.node("lead") : v.node(name(a)), changed.node(name(b))),
            got);
        if (ohms > OhmVariants.OPEN) {
          assertEquals(got, Double.POSITIVE_INFINITY, "seed " + seed);
        } else {
          assertEquals(got, ohms, 1e-4 * ohms + 1e-6, "seed " + seed + " " + a + " " + b);
          near++;
        }
      }
    }
    assertTrue(near > 1000, "only " + near);
  }

  /// What is asked at once is what is asked one by one, of the board, of what changed, and whole.
  @Test
  public void whatIsAskedAtOnce() {
    Circuit c = new Circuit();
    c.supply("S", "v", "GND", 5, 10, 0.01);
    for (int i = 0; i < 6; i++) {
      c.resistor("R" + i, "v", "a" + i, 330 + 100 * i);
      c.diode("D" + i, "a" + i, "GND", Diode.lamp(1.9));
      c.load("U" + i + " load", "v", "GND", 0.01 * i, 3);
    }
    Variants v = new Variants(c);
    Asked asked =
        new Asked(
            List.of("GND", "v", "a1", "nowhere"),
            List.of("S", "D2", "R3", "none"),
            List.of(List.of("R1"), List.of("U4", "U4 load"), List.of("D3", "R3"), List.of("no")));
    Change off = v.change().without("R3").apart("R2", "a2", "lead");
    Change turned = v.change().turned("D2").resistor("R1", "v", "a1", 100);
    for (AtRest s :
        List.of(
            v.base(),
            v.with(v.change()).orElseThrow(),
            v.with(off).orElseThrow(),
            v.with(turned).orElseThrow(),
            v.whole(off, 1e-6))) {
      float[] volts = new float[4];
      float[] amps = new float[4];
      float[] watts = new float[4];
      s.answer(asked, volts, amps, watts);
      assertEquals(volts, new float[] {0, (float) s.at("v"), (float) s.at("a1"), 0});
      assertEquals(
          amps,
          new float[] {
            (float) s.through("S"), (float) s.through("D2"), (float) s.through("R3"), 0
          });
      float[] want = {
        (float) s.heat("R1"),
        (float) (s.heat("U4") + s.heat("U4 load")),
        (float) (s.heat("D3") + s.heat("R3")),
        0
      };
      assertEquals(watts, want);
      assertTrue(watts[1] > 0.1f && volts[1] > 4.9f);
    }
    assertTrue(v.with(off).orElseThrow().through("R3") == 0);
  }

  private static double ohms(List<R> rs, int nodes, int a, int b) {
    if (a == b) {
      return 0;
    }
    Array2DRowRealMatrix g = new Array2DRowRealMatrix(nodes, nodes);
    for (int i = 0; i < nodes; i++) {
      g.addToEntry(i, i, LEAK);
    }
    for (R r : rs) {
      double s = 1 / r.ohms();
      g.addToEntry(r.a(), r.a(), s);
      if (r.b() >= 0) {
        g.addToEntry(r.b(), r.b(), s);
        g.addToEntry(r.a(), r.b(), -s);
        g.addToEntry(r.b(), r.a(), -s);
      }
    }
    ArrayRealVector right = new ArrayRealVector(nodes);
    right.setEntry(a, 1);
    right.setEntry(b, -1);
    double[] v = new LUDecomposition(g).getSolver().solve(right).toArray();
    return v[a] - v[b];
  }
}
