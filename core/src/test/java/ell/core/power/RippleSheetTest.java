package ell.core.power;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.catalogue.Catalogue;
import ell.core.sheet.Worked;
import java.util.Map;
import org.testng.annotations.Test;

/// Ripple by the sheet, against the current of a coil that is followed in time.
public final class RippleSheetTest {
  private static Worked work(double vin, double vout, double esr, double load) {
    return Catalogue.work(
        "power.ripple",
        Map.of(
            "vin", vin + "",
            "vout", vout + "",
            "inductance", "10uH",
            "frequency", "500kHz",
            "capacitance", "22uF",
            "esr", esr + "",
            "current", load + ""));
  }

  @Test
  public void byHand() {
    Worked w = work(12, 5, 0, 0);
    // 7 V over 10 µH for 5/12 of 2 µs
    assertEquals(w.number("coilRipple"), 7 * (5.0 / 12) * 2e-6 / 10e-6, 1e-9);
    assertEquals(w.number("ripple"), w.number("coilRipple") * 2e-6 / (8 * 22e-6), 1e-9);
  }

  /// A coil's current that rises and falls flows into the capacitor less the load: the volts are
  /// followed in small steps until they repeat. The sheet's sum is not less, and little more.
  @Test
  public void againstTheCourseInTime() {
    for (double[] x :
        new double[][] {{12, 5, 0.01, 0.8}, {12, 3.3, 0.1, 0.5}, {3.3, 5, 0.02, 0.4}}) {
      double seen = followed(x[0], x[1], x[2], x[3]);
      double said = work(x[0], x[1], x[2], x[3]).number("ripple");
      assertTrue(seen <= 1.02 * said && seen >= 0.55 * said, seen + " of " + said);
    }
    assertEquals(followed(12, 5, 0, 0.8), work(12, 5, 0, 0.8).number("ripple"), 2e-5);
    assertEquals(followed(3.3, 5, 0, 0.4), work(3.3, 5, 0, 0.4).number("ripple"), 3e-4);
  }

  private static double followed(double vin, double vout, double esr, double load) {
    double l = 10e-6;
    double c = 22e-6;
    double period = 2e-6;
    boolean lifts = vout > vin;
    double share = lifts ? 1 - vin / vout : vout / vin;
    int steps = 20_000;
    double dt = period / steps;
    double mean = lifts ? load / (1 - share) : load;
    double i = mean - (lifts ? vin : vin - vout) * share * period / l / 2;
    double v = 0;
    double most = Double.NEGATIVE_INFINITY;
    double least = Double.POSITIVE_INFINITY;
    for (int n = 0; n < steps; n++) {
      boolean on = n < share * steps;
      double over = lifts ? on ? vin : vin - vout : on ? vin - vout : -vout;
      double into = (lifts && on ? 0 : i) - load;
      double out = v + esr * into;
      most = Math.max(most, out);
      least = Math.min(least, out);
      i += over / l * dt;
      v += into / c * dt;
    }
    return most - least;
  }
}
