package ell.core.pulse;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertSame;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import ell.core.catalogue.Catalogue;
import ell.core.pulse.BranchedLine.Stub;
import ell.core.sheet.SheetProblem;
import ell.core.sheet.Worked;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.hipparchus.complex.Complex;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Lines with branches and with a termination of resistor and capacitor, against the line's
/// equations at many frequencies, put together again: another way altogether.
public final class BranchedLineTest {
  private static final double OPEN = Double.POSITIVE_INFINITY;

  private static Bounce line(double source, double rise) {
    return new Bounce(3.3, source, 100, 3e-9, 0.02, rise, OPEN, 0, OPEN);
  }

  private static double value(Bounce.Course c, double t) {
    double[] s = c.seconds();
    int k = 0;
    while (k + 1 < s.length && s[k + 1] < t) {
      k++;
    }
    if (k + 1 >= s.length) {
      return c.last();
    }
    double wide = s[k + 1] - s[k];
    double f = wide > 0 ? Math.clamp((t - s[k]) / wide, 0, 1) : 1;
    return c.volts()[k] + f * (c.volts()[k + 1] - c.volts()[k]);
  }

  /// With nothing on it, it is the lattice.
  @Test
  public void nothingHangsOnIt() {
    for (double source : new double[] {10, 100, 300}) {
      Bounce b = line(source, 1.6e-9);
      assertSame(BranchedLine.of(b, List.of(), OPEN, 0), b);
      for (double at : new double[] {0, 0.37, 1}) {
        Bounce.Course exact = b.lattice(at);
        Bounce.Course stepped = new BranchedLine(b, List.of(), OPEN, 0).at(List.of(at)).getFirst();
        for (double t = 0; t < 60e-9; t += 0.11e-9) {
          assertEquals(value(stepped, t), value(exact, t), 0.005 * 3.3, at + " at " + t);
        }
      }
    }
  }

  @DataProvider
  Object[][] lines() {
    return new Object[][] {
      {25.0, List.of(new Stub(0.5, 0.4e-9, 100, 0)), OPEN, 0.0},
      {40.0, List.of(new Stub(0.3, 0.5e-9, 80, 5e-12), new Stub(0.8, 0.3e-9, 120, 0)), OPEN, 0.0},
      {20.0, List.of(), 100.0, 100e-12},
      {30.0, List.of(new Stub(0.6, 0.45e-9, 100, 3e-12)), 90.0, 60e-12},
    };
  }

  /// The difference lies below 0.5 % of the swing everywhere.
  @Test(dataProvider = "lines")
  public void asTheEquationsSay(double source, List<Stub> stubs, double ohms, double farads) {
    Bounce b = line(source, 2.4e-9);
    BranchedLine l = new BranchedLine(b, stubs, ohms, farads);
    double period = 1.2e-6;
    for (double at : new double[] {0, 0.45, 1}) {
      Bounce.Course stepped = l.at(List.of(at)).getFirst();
      int n = 1100;
      double[] t = new double[n];
      double[] v = new double[n];
      double rests = transfer(b, stubs, ohms, farads, at, 1).getReal();
      for (int i = 0; i < n; i++) {
        t[i] = i * 0.1e-9;
        v[i] = 3.3 / 2 * rests;
      }
      double ramp = b.ramp();
      for (int k = 1; k < 6001; k += 2) {
        double w = 2 * Math.PI * k / period;
        double x = w * ramp / 2;
        Complex h = transfer(b, stubs, ohms, farads, at, w);
        double size = 2 * 3.3 / (Math.PI * k) * Math.sin(x) / x * h.norm();
        double phase = h.getArgument();
        for (int i = 0; i < n; i++) {
          v[i] += size * Math.sin(w * (t[i] - ramp / 2) + phase);
        }
      }
      for (int i = 0; i < n; i++) {
        assertEquals(value(stepped, t[i]), v[i], 0.005 * 3.3, "at " + at + ", " + t[i] + " s");
      }
    }
  }

  /// Volts at a place over the driver's, from the far end back to the source.
  private static Complex transfer(
      Bounce b, List<Stub> stubs, double ohms, double farads, double at, double w) {
    Complex g = new Complex(-Math.log(1 - b.loss()), w * b.delay());
    java.util.TreeSet<Double> cuts = new java.util.TreeSet<>(List.of(0.0, 1.0, at));
    stubs.forEach(s -> cuts.add(s.at()));
    Complex y = farads > 0 ? new Complex(ohms, -1 / (w * farads)).reciprocal() : Complex.ZERO;
    Complex ratio = Complex.ONE; // volts at the place by those at the point in hand
    double here = 1;
    for (double next : cuts.descendingSet()) {
      if (next < here) {
        // back along a stretch: V(next) = V (cosh g + Y Z sinh g)
        Complex gl = g.multiply(here - next);
        Complex grows = gl.cosh().add(y.multiply(b.z0()).multiply(gl.sinh()));
        if (here <= at) {
          ratio = ratio.divide(grows);
        }
        Complex th = gl.tanh();
        y = y.add(th.divide(b.z0())).divide(y.multiply(b.z0()).multiply(th).add(1));
        here = next;
      }
      for (Stub s : stubs) {
        if (s.at() == here) {
          Complex gs = new Complex(0, w * s.delay()).tanh();
          Complex tip = new Complex(0, w * s.farads());
          y = y.add(tip.add(gs.divide(s.z0())).divide(tip.multiply(s.z0()).multiply(gs).add(1)));
        }
      }
    }
    return ratio.divide(y.multiply(b.source()).add(1));
  }

  private static Worked work(String... given) {
    Map<String, String> all = new LinkedHashMap<>();
    for (String g : given) {
      all.put(g.substring(0, g.indexOf('=')), g.substring(g.indexOf('=') + 1));
    }
    return Catalogue.work("line.bounce", all);
  }

  /// A resistor of the line with a capacitor in series at the end cures it as one at the source
  /// does, and draws nothing once it has settled.
  @Test
  public void aTerminationOfBoth() {
    String[] bare = {"swing=3.3", "sourceResistance=20", "z0=100", "delay=3ns", "riseTime=2ns"};
    Worked rings = work(bare);
    Worked cured =
        work(
            "swing=3.3",
            "sourceResistance=20",
            "z0=100",
            "delay=3ns",
            "riseTime=2ns",
            "endResistance=100",
            "endCapacitance=200pF");
    assertTrue(peak(rings) > 5, "open " + peak(rings));
    assertTrue(peak(cured) < 3.6, "terminated " + peak(cured));
    assertEquals(cured.number("final"), 3.3, 0.02);
    assertTrue(
        peak(
                work(
                    "swing=3.3",
                    "sourceResistance=100",
                    "z0=100",
                    "delay=3ns",
                    "riseTime=2ns",
                    "stubs=0.5:500ps"))
            > 3.4,
        "a branch rings on a matched line");
    for (String wrong : List.of("stubs=0.5", "stubs=2:1ns", "stubs=0.5:-1ns", "endResistance=50")) {
      assertThrows(
          SheetProblem.class,
          () -> work("swing=3.3", "sourceResistance=20", "z0=100", "delay=3ns", wrong));
    }
  }

  private static double peak(Worked w) {
    List<?> places = (List<?>) w.results().get("places");
    return (double) ((Map<?, ?>) places.getLast()).get("peak");
  }
}
