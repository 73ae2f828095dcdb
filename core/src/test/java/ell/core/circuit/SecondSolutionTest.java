package ell.core.circuit;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.EigenDecompositionSymmetric;
import org.hipparchus.linear.LUDecomposition;
import org.hipparchus.linear.RealMatrix;
import org.hipparchus.linear.RealVector;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// 500 random circuits solved a second time, by other equations and by the dense solvers of a
/// reference library (Hipparchus): those at rest with every junction split from its resistance and
/// raised from no volts in small steps, those in time by the modes of their matrix.
public class SecondSolutionTest {
  private static final double VT = 0.025852;

  @DataProvider
  Object[][] tens() {
    Object[][] all = new Object[10][];
    for (int i = 0; i < all.length; i++) {
      all[i] = new Object[] {i};
    }
    return all;
  }

  private record R(int a, int b, double ohms) {}

  private record D(int a, int middle, Diode law) {}

  @Test(dataProvider = "tens")
  public void fortyAtRest(int ten) {
    for (int seed = 40 * ten; seed < 40 * ten + 40; seed++) {
      Random random = new Random(seed);
      int nodes = 3 + random.nextInt(20);
      double volts = 0.5 + 15 * random.nextDouble();
      Circuit c = new Circuit();
      List<R> resistors = new ArrayList<>();
      List<D> diodes = new ArrayList<>();
      c.supply("S", "n0", "GND", volts, 1e6, 0.01);
      resistors.add(new R(0, -1, 0.01));
      int more = 0;
      for (int i = 1; i < 2 * nodes; i++) {
        int a = i < nodes ? i : random.nextInt(nodes);
        int b = i < nodes ? random.nextInt(i) : random.nextInt(nodes + 1) - 1;
        if (a == b) {
          continue;
        }
        if (random.nextInt(3) == 0) {
          Diode law =
              new Diode[] {Diode.SILICON, Diode.SCHOTTKY, Diode.lamp(1.9), Diode.lamp(3)}
                  [random.nextInt(4)];
          boolean turned = random.nextBoolean();
          int anode = turned ? b : a;
          int cathode = turned ? a : b;
          int middle = nodes + more++;
          c.diode("D" + i, name(anode), name(cathode), law);
          resistors.add(new R(middle, cathode, law.ohms()));
          diodes.add(new D(anode, middle, law));
        } else {
          double ohms = Math.pow(10, 1 + 4 * random.nextDouble());
          c.resistor("R" + i, name(a), name(b), ohms);
          resistors.add(new R(a, b, ohms));
        }
      }
      double[] want = second(nodes + more, nodes, resistors, diodes, volts);
      Operating o = c.rest();
      assertTrue(o.settled(), "seed " + seed);
      for (int i = 0; i < nodes; i++) {
        assertEquals(o.at(name(i)), want[i], 2e-6, "seed " + seed + ", node " + i);
      }
    }
  }

  private static String name(int node) {
    return node < 0 ? "GND" : "n" + node;
  }

  private static double[] second(int n, int leaking, List<R> rs, List<D> ds, double volts) {
    RealVector v = new ArrayRealVector(n);
    for (int part = 1; part <= 40; part++) {
      double source = volts * part / 40;
      for (int round = 0; round < 400; round++) {
        RealMatrix g = new Array2DRowRealMatrix(n, n);
        RealVector f = new ArrayRealVector(n);
        f.addToEntry(0, -source / 0.01);
        for (int i = 0; i < leaking; i++) {
          g.addToEntry(i, i, 1e-9);
          f.addToEntry(i, 1e-9 * v.getEntry(i));
        }
        for (R r : rs) {
          put(g, f, v, r.a(), r.b(), 1 / r.ohms(), (at(v, r.a()) - at(v, r.b())) / r.ohms());
        }
        for (D d : ds) {
          double nvt = d.law().ideality() * VT;
          double e = d.law().saturation() * Math.exp((at(v, d.a()) - at(v, d.middle())) / nvt);
          put(g, f, v, d.a(), d.middle(), e / nvt, e - d.law().saturation());
        }
        RealVector step = new LUDecomposition(g, 1e-300).getSolver().solve(f);
        double size = step.getLInfNorm();
        v = v.subtract(step.mapMultiply(Math.min(1, 0.1 / size)));
        if (size < 1e-10) {
          break;
        }
      }
    }
    return v.toArray();
  }

  private static double at(RealVector v, int i) {
    return i < 0 ? 0 : v.getEntry(i);
  }

  private static void put(
      RealMatrix g, RealVector f, RealVector v, int a, int b, double slope, double amps) {
    if (a >= 0) {
      g.addToEntry(a, a, slope);
      f.addToEntry(a, amps);
    }
    if (b >= 0) {
      g.addToEntry(b, b, slope);
      f.addToEntry(b, -amps);
    }
    if (a >= 0 && b >= 0) {
      g.addToEntry(a, b, -slope);
      g.addToEntry(b, a, -slope);
    }
  }

  /// Capacitors at every node, resistors between them: C v' = -G v + i. With u = C^(1/2) v the
  /// matrix is symmetric, and each of its modes decays by itself.
  @Test(dataProvider = "tens")
  public void tenInTime(int ten) {
    for (int seed = 10 * ten; seed < 10 * ten + 10; seed++) {
      Random random = new Random(900 + seed);
      int n = 2 + random.nextInt(10);
      double volts = 1 + 9 * random.nextDouble();
      Circuit c = new Circuit();
      RealMatrix g = new Array2DRowRealMatrix(n, n);
      RealVector none = new ArrayRealVector(n);
      double[] farads = new double[n];
      c.supply("S", "n0", "GND", volts, 1e6, 10);
      g.addToEntry(0, 0, 0.1);
      for (int i = 0; i < n; i++) {
        farads[i] = Math.pow(10, -8 + 2 * random.nextDouble());
        // its series resistance as good as none
        c.capacitor("C" + i, name(i), "GND", farads[i], 1e-9, 1e15);
        g.addToEntry(i, i, 1e-9);
        for (int k = 0; k < 2; k++) {
          int b = i == 0 ? -1 : random.nextInt(i);
          double ohms = Math.pow(10, 2 + 2 * random.nextDouble());
          c.resistor("R" + i + "_" + k, name(i), name(b), ohms);
          put(g, none, none, i, b, 1 / ohms, 0);
        }
      }
      RealMatrix half = new Array2DRowRealMatrix(n, n);
      for (int i = 0; i < n; i++) {
        half.setEntry(i, i, 1 / Math.sqrt(farads[i]));
      }
      EigenDecompositionSymmetric modes =
          new EigenDecompositionSymmetric(half.multiply(g).multiply(half));
      RealVector drive = new ArrayRealVector(n);
      drive.setEntry(0, volts / 10 / Math.sqrt(farads[0]));
      RealVector in = modes.getVT().operate(drive);
      Run r = c.run().exact(1e-7);
      for (double t : new double[] {1e-6, 1e-5, 1e-4, 1e-3}) {
        r.on(t - r.time());
        RealVector u = new ArrayRealVector(n);
        for (int m = 0; m < n; m++) {
          double rate = modes.getEigenvalue(m);
          u =
              u.add(
                  modes
                      .getEigenvector(m)
                      .mapMultiply(in.getEntry(m) * -Math.expm1(-rate * t) / rate));
        }
        for (int i = 0; i < n; i++) {
          assertEquals(
              r.at(name(i)),
              u.getEntry(i) / Math.sqrt(farads[i]),
              1e-6 * volts,
              "seed " + seed + ", node " + i + " at " + t);
        }
      }
    }
  }
}
