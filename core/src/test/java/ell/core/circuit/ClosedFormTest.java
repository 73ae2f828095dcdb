package ell.core.circuit;

import static ell.core.circuit.Fed.fed;
import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Circuits whose answer is a formula of the textbook.
public class ClosedFormTest {
  private static final double VT = 0.025852;

  /// A capacitor behind a resistor: 1 - exp(-t / RC).
  @Test
  public void aCapacitorCharges() {
    for (double tau : new double[] {1e-6, 1e-3, 1}) {
      Circuit c = new Circuit();
      c.supply("S", "in", "GND", 5, 100, 1e-3);
      c.resistor("R", "in", "a", 1000 - 2e-3);
      c.capacitor("C", "a", "GND", tau / 1000, 1e-3, 1e15);
      Run r = c.run().exact(1e-6);
      for (int i = 1; i <= 5; i++) {
        r.on(tau);
        assertEquals(r.at("a"), 5 * -Math.expm1(-i), 2e-5, i + " time constants of " + tau);
      }
      assertTrue(r.now().settled());
    }
  }

  /// A coil behind a resistor: V / R (1 - exp(-t R / L)); and the resistance of its wire counts.
  @Test
  public void aCoilTakesItsTime() {
    Circuit c = new Circuit();
    c.supply("S", "in", "GND", 12, 100, 1e-3);
    c.resistor("R", "in", "a", 9 - 1e-3);
    c.coil("L", "a", "GND", 1e-3, 3, Double.POSITIVE_INFINITY);
    Run r = c.run().exact(1e-6);
    for (int i = 1; i <= 5; i++) {
      r.on(1e-3 / 12);
      assertEquals(r.through("L"), -Math.expm1(-i), 2e-5, i + " time constants");
    }
    assertEquals(c.rest().through("L"), 1, 1e-6);
  }

  /// Coil and capacitor with little resistance ring: u = V (1 - exp(-a t) (cos w t + a / w sin w
  /// t)), a = R / 2L, w^2 = 1 / LC - a^2.
  @Test
  public void coilAndCapacitorRing() {
    double l = 10e-6;
    double cap = 1e-6;
    double ohms = 1;
    Circuit c = new Circuit();
    c.supply("S", "in", "GND", 5, 100, 1e-3);
    // the supply takes nothing back: a bleeder keeps its current above zero
    c.resistor("B", "in", "GND", 1);
    c.resistor("R", "in", "a", ohms - 3e-3);
    c.coil("L", "a", "b", l, 1e-3, Double.POSITIVE_INFINITY);
    c.capacitor("C", "b", "GND", cap, 1e-3, 1e15);
    Run r = c.run().exact(1e-7);
    double a = ohms / 2 / l;
    double w = Math.sqrt(1 / (l * cap) - a * a);
    for (int i = 1; i <= 8; i++) {
      r.on(5e-6);
      double t = 5e-6 * i;
      double want = 1 - Math.exp(-a * t) * (Math.cos(w * t) + a / w * Math.sin(w * t));
      assertEquals(r.at("b") / 5, want, 2e-3, "after " + t);
    }
  }

  /// A diode behind a resistor: I = n Vt / R W(Is R / (n Vt) exp((V + Is R) / (n Vt))) - Is.
  /// Source: Banwell and Jayakumar, Electronics Letters 36 (2000) 291, from memory.
  @Test(dataProvider = "diodes")
  public void aDiodeBehindAResistor(Diode d, double volts, double ohms) {
    Circuit c = new Circuit();
    c.resistor("R", "in", "a", ohms);
    c.diode("D", "a", "GND", d);
    Operating o = fed(c, "in", volts, 100);
    double n = d.ideality() * VT;
    double all = ohms + d.ohms() + 0.01;
    double x = Math.log(d.saturation() * all / n) + (volts + d.saturation() * all) / n;
    double want = n / all * lambertOfExp(x) - d.saturation();
    assertEquals(o.through("R"), want, 1e-7 * want + 3e-9);
    assertTrue(o.settled());
  }

  @DataProvider
  Object[][] diodes() {
    return new Object[][] {
      {Diode.SILICON, 5.0, 1000.0},
      {Diode.SILICON, 0.3, 1e5},
      {Diode.SILICON, 5.0, 1.0},
      {Diode.SCHOTTKY, 12.0, 47.0},
      {Diode.SCHOTTKY, 0.1, 10.0},
      {Diode.lamp(1.9), 3.3, 330.0},
      {Diode.lamp(3.0), 5.0, 100.0},
      {new Diode(1e-14, 1, 0.01, Double.POSITIVE_INFINITY), 40, 0.5},
    };
  }

  /// Lambert's W of exp(x), by halving: w + ln w = x.
  private static double lambertOfExp(double x) {
    double low = 1e-300;
    double high = Math.max(x, 1) + 1;
    for (int i = 0; i < 2000; i++) {
      double mid = x < 1 ? Math.sqrt(low * high) : (low + high) / 2;
      if (mid + Math.log(mid) > x) {
        high = mid;
      } else {
        low = mid;
      }
    }
    return (low + high) / 2;
  }

  /// What a junction was asked before does not count: in any order, near and far.
  @Test
  public void aJunctionForgets() {
    Diode d = Diode.lamp(1.9);
    Junction one = new Junction("D", 0, -1, d);
    Element.Moment rest = new Element.Moment(0, new double[0]);
    Random random = new Random(11);
    double n = d.ideality() * VT;
    double all = d.ohms();
    double v = 0;
    for (int i = 0; i < 4000; i++) {
      v =
          switch (random.nextInt(4)) {
            case 0 -> -20 + 40 * random.nextDouble();
            case 1 -> v + 0.2 * random.nextGaussian();
            case 2 -> v + 1e-3 * random.nextGaussian();
            default -> v + 1e-6 * random.nextGaussian();
          };
      double x = (v + all * d.saturation()) / n + Math.log(all * d.saturation() / n);
      double want = x < -600 ? 0 : n / all * lambertOfExp(x);
      double got = one.amps(new double[] {v}, rest) + d.saturation();
      assertEquals(got, want, 1e-10 * want + 1e-10 * d.saturation(), i + ": " + v + " V");
    }
  }

  /// A breakdown holds its volts, and the volts forwards stay what they were.
  @Test
  public void aClampHolds() {
    Circuit c = new Circuit();
    c.resistor("R", "in", "a", 100);
    c.diode("D", "GND", "a", Diode.SILICON.breaking(5.1));
    assertEquals(fed(c, "in", 9, 1).at("a"), 5.1 + VT * Math.log(38), 0.02);
    assertEquals(fed(c, "in", 4, 1).at("a"), 4, 1e-3);
    Circuit turned = new Circuit();
    turned.resistor("R", "in", "a", 100);
    turned.diode("D", "a", "GND", Diode.SILICON.breaking(5.1));
    Circuit plain = new Circuit();
    plain.resistor("R", "in", "a", 100);
    plain.diode("D", "a", "GND", Diode.SILICON);
    assertEquals(fed(turned, "in", 5, 1).at("a"), fed(plain, "in", 5, 1).at("a"), 1e-6);
  }

  /// At dropout a linear regulator gives its input less its dropout; above it, its volts. Its input
  /// current is its output current and its own.
  @Test
  public void aRegulatorAtItsDropout() {
    for (double vin : new double[] {2, 3, 3.5, 3.7, 5, 12}) {
      Circuit c = new Circuit();
      c.regulator("U", "in", "out", new Regulator(3.3, 0.3, 0.5, 2e-3, 0));
      c.resistor("R", "out", "GND", 100);
      Operating o = fed(c, "in", vin, 1);
      double want = Math.min(3.3, vin - 0.3);
      assertEquals(o.at("out"), want, 2e-3, "at " + vin);
      assertEquals(o.through("S"), o.at("out") / 100 + 2e-3, 1e-5);
      assertEquals(o.heat("U"), o.at("in") * o.through("S") - Math.pow(o.at("out"), 2) / 100, 1e-5);
    }
  }

  /// A limit that folds back leaves its share into a short.
  @Test
  public void foldingBack() {
    Circuit c = new Circuit();
    c.regulator("U", "in", "out", new Regulator(3.3, 0.3, 0.5, 0, 0).folding(0.3));
    c.resistor("R", "out", "GND", 0.001);
    assertEquals(fed(c, "in", 5, 2).through("U"), 0.15, 1e-3);
    Circuit light = new Circuit();
    light.regulator("U", "in", "out", new Regulator(3.3, 0.3, 0.5, 0, 0).folding(0.3));
    light.resistor("R", "out", "GND", 33);
    assertEquals(fed(light, "in", 5, 2).at("out"), 3.3, 5e-3);
  }

  /// An enable that is not driven keeps a regulator off.
  @Test
  public void anEnableSwitches() {
    for (double en : new double[] {0, 3}) {
      Circuit c = new Circuit();
      c.supply("E", "en", "GND", en, 0.01, 1);
      c.regulator("U", "in", "out", "GND", "en", new Regulator(3.3, 0.3, 0.5, 1e-3, 0));
      c.resistor("R", "out", "GND", 100);
      assertEquals(fed(c, "in", 5, 2).at("out"), en > 1 ? 3.3 : 0, 5e-3, "enable at " + en);
    }
  }

  /// Saturated, a transistor holds its collector below its base: V_CE = Vt ln of the textbook's
  /// ratio (Sedra and Smith, Microelectronic Circuits, the saturated transistor, from memory); in
  /// its active range it passes on its gain.
  @Test
  public void aBipolarSwitch() {
    Circuit c = new Circuit();
    c.resistor("RB", "in", "b", 10e3);
    c.resistor("RC", "in", "c", 1e3);
    c.bipolar("Q", "c", "b", "GND", 100, false);
    Operating o = fed(c, "in", 5, 1);
    double forced = o.through("Q") / ((5 - o.at("b")) / 10e3);
    double reverse = 4;
    double want = VT * Math.log((1 + (forced + 1) / reverse) / (1 - forced / 100));
    assertEquals(o.at("c"), want, 1e-3);
    Circuit active = new Circuit();
    active.resistor("RB", "in", "b", 1e6);
    active.resistor("RC", "in", "c", 1e3);
    active.bipolar("Q", "c", "b", "GND", 100, false);
    Operating a = fed(active, "in", 5, 1);
    assertEquals(a.through("Q"), 100 * (5 - a.at("b")) / 1e6, 1e-6);
    Circuit pnp = new Circuit();
    pnp.resistor("RB", "b", "GND", 10e3);
    pnp.resistor("RC", "c", "GND", 1e3);
    pnp.bipolar("Q", "c", "b", "in", 100, true);
    assertEquals(5 - fed(pnp, "in", 5, 1).at("c"), want, 2e-3, "the same upside down");
  }

  /// A P channel in the way of the supply: on with its gate at ground, and its body before that;
  /// reversed it blocks.
  @Test
  public void aFieldEffectSwitch() {
    Circuit c = new Circuit();
    c.resistor("RG", "g", "GND", 10e3);
    c.fieldEffect("Q", "in", "g", "out", 1.3, 0.05, true);
    c.resistor("RL", "out", "GND", 100);
    assertEquals(fed(c, "in", 5, 1).at("out"), 5, 0.01);
    assertEquals(fed(c, "in", 1, 1).at("out"), 0.45, 0.1, "its body alone");
    Circuit off = new Circuit();
    off.resistor("RG", "g", "GND", 10e3);
    off.fieldEffect("Q", "out", "g", "GND", 1.3, 0.05, false);
    off.resistor("RL", "in", "out", 100);
    assertEquals(fed(off, "in", 5, 1).at("out"), 5, 0.01, "an N channel without a gate is off");
  }

  /// A cell gives what its resistance leaves, takes what is above it, and its charge counts down:
  /// 100 mA for 36 s are a thousandth of 1 Ah.
  @Test
  public void aCell() {
    Circuit c = new Circuit();
    c.cell("B", "bat", "GND", 3, 4.2, 0.1, 3600, 0.5);
    c.resistor("R", "bat", "GND", 35.9);
    assertEquals(c.rest().at("bat"), 3.6 * 35.9 / 36, 1e-6);
    Run r = c.run().on(36);
    assertEquals(r.through("B"), (3 + 1.2 * 0.499) / 36, 1e-5);
    Circuit charged = new Circuit();
    charged.cell("B", "bat", "GND", 3, 4.2, 0.1, 3600, 0.5);
    assertEquals(fed(charged, "bat", 3.7, 1).through("B"), -0.1 / 0.11, 1e-4);
  }

  /// A fuse that resets carries what it holds, and trips above, faster the more flows: from its
  /// heat alone, t = -T ln(1 - (I_trip / I)^2).
  @Test
  public void aFuseThatResets() {
    for (double amps : new double[] {0.4, 1.0, 2.0}) {
      Circuit c = new Circuit();
      c.supply("S", "in", "GND", 30, amps, 0.01);
      c.resettableFuse("F", "in", "a", 0.2, 0.5, 0.5);
      c.resistor("R", "a", "GND", 1);
      Run r = c.run();
      double trips = -0.5 * Math.log1p(-Math.pow(0.5 / amps, 2));
      if (amps < 0.5) {
        r.on(5);
        assertEquals(r.through("F"), amps, 1e-3);
      } else {
        r.on(0.8 * trips);
        assertEquals(r.through("F"), amps, 0.02 * amps, "before it trips at " + trips);
        r.on(0.6 * trips + 0.05);
        assertTrue(r.through("F") < 0.3 * amps, "after: " + r.through("F"));
      }
    }
  }

  /// A coil that saturates lets its current rise faster.
  @Test
  public void aCoilSaturates() {
    double[] after = new double[2];
    for (int i = 0; i < 2; i++) {
      Circuit c = new Circuit();
      c.supply("S", "in", "GND", 5, 100, 1e-3);
      c.coil("L", "in", "GND", 10e-6, 1e-3, i == 0 ? Double.POSITIVE_INFINITY : 2);
      after[i] = c.run().on(4e-6).through("L");
    }
    assertEquals(after[0], 2, 0.002);
    // F = V t, and i = F / L (1 + (F / (L s))^2)
    assertEquals(after[1], 2 * (1 + 1), 0.01);
  }
}
