package ell.core.pulse;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import ell.core.catalogue.Catalogue;
import ell.core.sheet.SheetProblem;
import ell.core.sheet.Worked;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// What strips are as lines, and what a step on a line comes to.
public final class LinesTest {
  private static Worked work(String sheet, String... given) {
    Map<String, String> all = new LinkedHashMap<>();
    for (String g : given) {
      all.put(g.substring(0, g.indexOf('=')), g.substring(g.indexOf('=') + 1));
    }
    return Catalogue.work(sheet, all);
  }

  /// Source: Pozar, Microwave Engineering, example of a microstrip: er 2.20 and w/h 3.081 make 50
  /// Ω; the formulas here give 50.0 Ω and 1.88 (from memory).
  @Test
  public void aMicrostripOfTheTextbook() {
    Worked w = work("line.microstrip", "width=3.081mm", "height=1mm", "thickness=0", "er=2.20");
    assertEquals(w.number("z0"), 50.0, 0.25);
    assertEquals(w.number("erEff"), 1.88, 0.01);
    assertEquals(w.number("velocity"), 299_792_458 / Math.sqrt(w.number("erEff")), 1);
  }

  /// Wide strips are plate capacitors, narrow ones wires over their image: both limits in closed
  /// form. In air nothing slows the wave.
  @Test
  public void theLimitsOfAMicrostrip() {
    LineOnBoard wide = LineOnBoard.microstrip(1, 1e-3, 0, 1);
    // with the fringe: w/h + 1.393 + 0.667 ln(w/h + 1.444), Schneider's form for wide strips
    double u = 1000;
    assertEquals(wide.z0(), 376.73 / (u + 1.393 + 0.667 * Math.log(u + 1.444)), 1e-3 * wide.z0());
    LineOnBoard narrow = LineOnBoard.microstrip(1e-5, 1e-3, 0, 1);
    assertEquals(narrow.z0(), 60 * Math.log(8 / 0.01), 0.005 * narrow.z0());
    assertEquals(narrow.erEff(), 1, 1e-12);
    double thin = LineOnBoard.microstrip(3e-4, 2e-4, 0, 4.3).z0();
    double thick = LineOnBoard.microstrip(3e-4, 2e-4, 35e-6, 4.3).z0();
    assertTrue(thick < thin && thick > 0.9 * thin, thick + " of " + thin);
  }

  /// Source: Pozar, Microwave Engineering, the closed form for a thin strip, good to some 1 % (from
  /// memory); its example, er 2.20, b 3.2 mm, w 2.66 mm, is 50 Ω.
  @Test
  public void aStriplineOfTheTextbook() {
    for (double w : new double[] {0.1, 0.3, 0.5, 0.83, 1, 2, 5, 20, 100}) {
      double we = w - (w < 0.35 ? (0.35 - w) * (0.35 - w) : 0);
      double pozar = 30 * Math.PI / (we + 0.441);
      assertEquals(LineOnBoard.stripline(w, 1, 0, 1).z0(), pozar, 0.015 * pozar, "w/b " + w);
    }
    Worked p = work("line.stripline", "width=2.66mm", "height=3.2mm", "thickness=0", "er=2.2");
    assertEquals(p.number("z0"), 50, 0.5);
    assertEquals(p.number("erEff"), 2.2, 1e-12);
    double thin = LineOnBoard.stripline(2e-4, 1e-3, 0, 4.3).z0();
    assertEquals(LineOnBoard.stripline(2e-4, 1e-3, 1e-9, 4.3).z0(), thin, 1e-3);
    assertTrue(LineOnBoard.stripline(2e-4, 1e-3, 35e-6, 4.3).z0() < thin);
    double before = LineOnBoard.stripline(19.9999, 1, 0, 1).z0();
    assertEquals(LineOnBoard.stripline(20.0001, 1, 0, 1).z0(), before, 1e-4 * before);
  }

  /// A narrow strip is a round wire of a quarter of its width: 60 ln(4 b / π d), exact as it gets
  /// narrower (any text on wires between planes).
  @Test
  public void aNarrowStriplineIsAWire() {
    double w = 1e-3;
    assertEquals(
        LineOnBoard.stripline(w, 1, 0, 1).z0(), 60 * Math.log(4 / (Math.PI * w / 2)), 1e-3);
  }

  /// Measured at a bench: common practice, no source.
  @Test
  public void aLineFromItsStep() {
    Worked w =
        work(
            "line.from-step",
            "seriesResistance=100",
            "plateau=1.8",
            "final=3.3",
            "roundTrip=6.6ns",
            "length=60cm");
    assertEquals(w.number("z0"), 120, 1e-9);
    assertEquals(w.number("velocity"), 18.2e7, 0.05e7);
    assertEquals(w.number("velocityFactor"), 0.61, 0.005);
    assertEquals(w.number("erEff"), 2.7, 0.05);
    assertThrows(
        SheetProblem.class,
        () -> work("line.from-step", "seriesResistance=100", "plateau=3.4", "final=3.3"));
    SheetProblem e =
        org.testng.Assert.expectThrows(
            SheetProblem.class,
            () ->
                work(
                    "line.from-step",
                    "seriesResistance=100",
                    "plateau=1.8",
                    "final=3.3",
                    "roundTrip=1ns",
                    "length=1m"));
    assertTrue(e.getMessage().contains("as fast as light"), e.getMessage());
  }

  @Test
  public void howLongALineIs() {
    Worked d = work("line.delay", "length=60cm", "erEff=2.7");
    assertEquals(d.number("delay"), 0.6 * Math.sqrt(2.7) / 299_792_458, 1e-15);
    Worked l = work("line.long", "length=20cm", "erEff=2.25", "riseTime=3ns");
    assertEquals(l.number("delay"), 1.0007e-9, 1e-12); // 20 cm at two thirds of light
    assertEquals(l.results().get("roundTripRule"), "short");
    assertEquals(l.results().get("sixthRule"), "long");
    assertEquals(l.number("longest"), 0.29979, 1e-4);
    assertEquals(work("line.series", "z0=120", "driverResistance=15").number("nearest"), 110.0);
    assertEquals(work("line.series", "z0=50", "driverResistance=60").number("resistance"), 0.0);
  }

  @SuppressWarnings("unchecked")
  private static Map<String, Object> place(Worked w, int i) {
    return (Map<String, Object>) ((List<Object>) w.results().get("places")).get(i);
  }

  private static double value(Worked w, int place, String key) {
    return (double) place(w, place).get(key);
  }

  /// Measured at a bench, common practice, no source: with 100 Ω a line of 120 Ω and 6.6 ns there
  /// and back shows a plateau of 1.8 V; taps at a third and two thirds see step and return 4.4 and
  /// 2.2 ns apart, and may be 12 ns between 0.8 and 2.0 V at 10 ns/V.
  @Test
  public void theCuredLineOfTheBench() {
    Worked w =
        work(
            "line.bounce",
            "swing=3.3",
            "sourceResistance=0",
            "seriesResistance=100",
            "z0=120",
            "delay=3.3ns",
            "taps=1/3,2/3",
            "vmax=5.5");
    assertEquals(value(w, 1, "dwell"), 4.4e-9, 1e-12);
    assertEquals(value(w, 2, "dwell"), 2.2e-9, 1e-12);
    assertEquals(value(w, 1, "allowed"), 12e-9, 1e-15);
    assertEquals(value(w, 3, "peak"), 3.6, 1e-9); // 1.8 doubles at the open end
    assertEquals(place(w, 3).get("verdict"), "within");
    assertEquals(w.results().get("verdict"), "within");
    @SuppressWarnings("unchecked")
    Map<String, Object> window = (Map<String, Object>) w.results().get("window");
    double low = (double) window.get("low");
    double high = (double) window.get("high");
    assertTrue(low > 10 && low < 100 && high > 240, low + "..." + high);
    assertEquals((double) window.get("nearest"), 120.0);
  }

  /// The same without a resistor: about 6 V at the end, then 1.7 to 1.9, 4.3, 2.9, 3.8, 3.2 for a
  /// final 3.4 V: above an input that bears 5.5 V, and back below 2.0 V.
  @Test
  public void theRingingLineOfTheBench() {
    Bounce b =
        new Bounce(
            3.4, 20, 120, 3.3e-9, 0.05, 0, Double.POSITIVE_INFINITY, 0, Double.POSITIVE_INFINITY);
    Bounce.Course c = b.lattice(1);
    double[] seen = {6.0, 1.8, 4.3, 2.9, 3.8, 3.2};
    double[] room = {0.6, 0.2, 0.2, 0.2, 0.2, 0.2};
    for (int i = 0; i < seen.length; i++) {
      assertEquals(volts(c, (2 * i + 2) * 3.3e-9), seen[i], room[i], "bounce " + i);
    }
    Arrives a = Arrives.of(1, c, new Arrives.Input(0.8, 2.0, 10e-9, 5.5), 3.4);
    assertEquals(a.verdict().key(), "out");
    assertEquals(a.crossings(), 2, "a counter there would count twice");
    assertTrue(a.peak() > 5.5 && a.dip() < 2.0, a.toString());
  }

  private static double volts(Bounce.Course c, double at) {
    double[] t = c.seconds();
    double[] v = c.volts();
    for (int i = 1; i < t.length; i++) {
      if (t[i] > at) {
        return v[i - 1] + (v[i] - v[i - 1]) * (at - t[i - 1]) / (t[i] - t[i - 1]);
      }
    }
    return v[v.length - 1];
  }

  /// Each bounce in closed form: the n-th at the far end is what the n ends before it left.
  @Test
  public void everyBounceInClosedForm() {
    double swing = 5;
    for (double r : new double[] {0, 10, 50, 200, 1e5}) {
      for (double load : new double[] {10, 50, 300, Double.POSITIVE_INFINITY}) {
        Bounce b = new Bounce(swing, r, 50, 1e-9, 0.1, 0, load, 0, Double.POSITIVE_INFINITY);
        double rs = (r - 50) / (r + 50);
        double rl = Double.isInfinite(load) ? 1 : (load - 50) / (load + 50);
        double forward = swing * 50 / (50 + r);
        double v = 0;
        Bounce.Course c = b.lattice(1);
        for (int n = 0; n < 6; n++) {
          v += forward * 0.9 * (1 + rl);
          forward *= 0.81 * rl * rs;
          assertEquals(volts(c, (2 * n + 1.5) * 1e-9), v, 1e-9 * swing, r + " " + load + " " + n);
        }
      }
    }
  }

  /// Both ways agree where both apply.
  @Test
  public void latticeAndCharacteristicsAgree() {
    for (double r : new double[] {5, 40, 150}) {
      for (double rise : new double[] {0.2e-9, 1e-9, 5e-9}) {
        Bounce b = new Bounce(3.3, r, 60, 2e-9, 0.03, rise, 1000, 0, Double.POSITIVE_INFINITY);
        List<Double> at = List.of(0.0, 0.25, 0.6, 1.0);
        List<Bounce.Course> stepped = b.inTime(at);
        for (int i = 0; i < at.size(); i++) {
          Bounce.Course exact = b.lattice(at.get(i));
          for (double t = 0.05e-9; t < 30e-9; t += 0.31e-9) {
            assertEquals(
                volts(stepped.get(i), t), volts(exact, t), 0.02 * 3.3, r + " " + rise + " " + t);
          }
        }
      }
    }
  }

  @DataProvider
  Object[][] loads() {
    return new Object[][] {
      {20.0, 50.0, 5e-12, 1e-9},
      {50.0, 50.0, 20e-12, 0.5e-9},
      {10.0, 100.0, 3e-12, 2e-9},
      {100.0, 50.0, 10e-12, 1e-9},
      {30.0, 75.0, 0.0, 1e-9}
    };
  }

  /// An independent solution: the equations of the line at each frequency of a wave that repeats
  /// itself, added up; its period is so long that every edge has died away.
  @Test(dataProvider = "loads")
  public void agreesWithTheLineEquationsByFrequency(
      double r, double z0, double farads, double rise) {
    double swing = 1;
    double delay = 2e-9;
    double loss = 0.05;
    Bounce b =
        new Bounce(
            swing,
            r,
            z0,
            delay,
            loss,
            rise,
            Double.POSITIVE_INFINITY,
            farads,
            Double.POSITIVE_INFINITY);
    List<Double> at = List.of(0.0, 0.5, 1.0);
    List<Bounce.Course> courses = b.at(at);
    double period = 400e-9;
    double ramp = rise / 0.8;
    int terms = 12_000;
    for (int p = 0; p < at.size(); p++) {
      for (double t = 0.7e-9; t < 40e-9; t += 1.3e-9) {
        double[] still = transfer(0, r, z0, delay, loss, farads, at.get(p));
        double sum = 0.5 * swing * still[0];
        for (int n = 1; n <= terms; n += 2) {
          double w = 2 * Math.PI * n / period;
          // a square wave that is high for half of its period, its edges ramps from 0 on
          double x = w * ramp / 2;
          double amount = 2 * swing / (Math.PI * n) * Math.sin(x) / x;
          double phase = -x - Math.PI / 2; // sine, delayed by half a ramp
          double[] h = transfer(w, r, z0, delay, loss, farads, at.get(p));
          double angle = w * t + phase + Math.atan2(h[1], h[0]);
          sum += amount * Math.hypot(h[0], h[1]) * Math.cos(angle);
        }
        assertEquals(volts(courses.get(p), t), sum, 0.005 * swing, at.get(p) + " at " + t);
      }
    }
  }

  /// Volts at a place over those of the driver, as real and imaginary part.
  private static double[] transfer(
      double w, double r, double z0, double delay, double loss, double farads, double at) {
    double[] rl = {1, 0};
    if (farads > 0) {
      // (Z − Z0)/(Z + Z0) with Z = 1/jwC: (1 − jwCZ0)/(1 + jwCZ0)
      double x = w * farads * z0;
      rl = new double[] {(1 - x * x) / (1 + x * x), -2 * x / (1 + x * x)};
    }
    double rs = (r - z0) / (r + z0);
    double g = 1 - loss;
    double[] ahead = turn(Math.pow(g, at), -w * delay * at);
    double[] back = times(rl, turn(Math.pow(g, 2 - at), -w * delay * (2 - at)));
    double[] round = times(rl, turn(g * g * rs, -2 * w * delay));
    double[] below = {1 - round[0], -round[1]};
    double[] both = {ahead[0] + back[0], ahead[1] + back[1]};
    double size = below[0] * below[0] + below[1] * below[1];
    double first = z0 / (z0 + r);
    return new double[] {
      first * (both[0] * below[0] + both[1] * below[1]) / size,
      first * (both[1] * below[0] - both[0] * below[1]) / size
    };
  }

  private static double[] turn(double size, double angle) {
    return new double[] {size * Math.cos(angle), size * Math.sin(angle)};
  }

  private static double[] times(double[] a, double[] b) {
    return new double[] {a[0] * b[0] - a[1] * b[1], a[0] * b[1] + a[1] * b[0]};
  }

  /// A clamp holds the far end near its volts, and takes nothing where it does not conduct.
  @Test
  public void aClampHoldsTheEnd() {
    Bounce free =
        new Bounce(
            3.3, 15, 120, 3e-9, 0, 1e-9, Double.POSITIVE_INFINITY, 0, Double.POSITIVE_INFINITY);
    Bounce held = new Bounce(3.3, 15, 120, 3e-9, 0, 1e-9, Double.POSITIVE_INFINITY, 0, 3.8);
    double most = 0;
    for (double v : held.inTime(List.of(1.0)).getFirst().volts()) {
      most = Math.max(most, v);
    }
    assertTrue(most > 3.8 && most < 4.6, "it leads with some ohms: " + most);
    Bounce gentle = new Bounce(3.3, 120, 120, 3e-9, 0, 1e-9, Double.POSITIVE_INFINITY, 0, 3.8);
    assertEquals(
        volts(gentle.inTime(List.of(1.0)).getFirst(), 20e-9), 3.3, 1e-3, "it does not conduct");
    assertTrue(volts(free.lattice(1), 6e-9) > 5.5);
  }

  @Test
  public void whatIsAskedWronglyIsSaid() {
    String[] base = {"swing=3.3", "sourceResistance=10", "z0=50", "delay=1ns"};
    assertThrows(SheetProblem.class, () -> work("line.bounce", with(base, "taps=1.2")));
    assertThrows(SheetProblem.class, () -> work("line.bounce", with(base, "taps=half")));
    SheetProblem ever =
        org.testng.Assert.expectThrows(
            SheetProblem.class,
            () -> work("line.bounce", "swing=3.3", "sourceResistance=0", "z0=50", "delay=1ns"));
    assertTrue(ever.getMessage().contains("takes the wave up"), ever.getMessage());
    assertThrows(SheetProblem.class, () -> work("line.bounce", with(base, "vil=2", "vih=1")));
    Worked short1 = work("line.bounce", with(base, "loadResistance=10"));
    assertEquals(place(short1, 1).get("verdict"), "out", "it is never high");
    assertEquals(value(short1, 1, "crossings"), 0.0);
    assertTrue(!place(short1, 1).containsKey("dwell"), "and nothing infinite is shown");
  }

  private static String[] with(String[] base, String... more) {
    String[] all = java.util.Arrays.copyOf(base, base.length + more.length);
    System.arraycopy(more, 0, all, base.length, more.length);
    return all;
  }
}
