package ell.core.jig;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Where probes come down, against closed forms and against drawing at random.
public class LandingTest {
  private static final Landing.Errors TYPICAL = new Landing.Errors(0.05, 0.08, 0.05, 0.05, 0.03);
  private static final Landing.Pins PINS = new Landing.Pins(5, 5, 95, 5);

  /// At the round pin the root sum square is that of the limits, and the worst case their sum.
  @Test
  public void atTheRoundPinNothingTurns() {
    Landing.Error e = Landing.at(5, 5, PINS, TYPICAL, 0.08);
    double rss =
        Math.sqrt(
            0.05 * 0.05 + 0.08 * 0.08 + 0.05 * 0.05 + 0.05 * 0.05 + 0.03 * 0.03 + 0.08 * 0.08);
    assertEquals(e.rss(), rss, 1e-12);
    assertEquals(e.worst(), 0.34, 1e-12);
    assertEquals(e.along(), rss / Math.sqrt(3), 1e-12);
  }

  /// Midway between the pins their plays are averaged; far beside them the board's turning counts.
  @Test
  public void playIsAveragedBetweenThePins() {
    Landing.Errors pins = new Landing.Errors(0, 0, 0, 0.1, 0);
    Landing.Error mid = Landing.at(50, 5, PINS, pins, 0);
    assertEquals(mid.across(), 0.1 / Math.sqrt(6), 1e-12);
    Landing.Error beside = Landing.at(50, 95, PINS, pins, 0);
    // height 90 over a length of 90: 0.1² (1 + 2) / 3
    assertEquals(beside.along(), 0.1, 1e-12);
    assertTrue(beside.worst() > 0.29);
    Landing.Error beyond = Landing.at(185, 5, PINS, pins, 0);
    assertEquals(beyond.across(), 0.1 * Math.sqrt(5.0 / 3), 1e-12, "a lever beyond the second pin");
  }

  /// One error is even, two alike make a triangle, sixteen of them are nearly normal: the error
  /// function's table has 68.27, 95.45 and 99.73 % within one, two and three deviations.
  @Test
  public void sumsOfEvenErrors() {
    assertEquals(new EvenSum(0.2).within(0.05), 0.25, 1e-12);
    EvenSum two = new EvenSum(0.1, 0.1);
    assertEquals(two.below(-0.1), 0.125, 1e-4);
    assertEquals(two.within(0.1), 0.75, 1e-4);
    double[] many = new double[16];
    java.util.Arrays.fill(many, Math.sqrt(3.0 / 16));
    EvenSum normal = new EvenSum(many); // its deviation is one
    assertEquals(normal.within(1), 0.6827, 6e-3);
    assertEquals(normal.within(2), 0.9545, 3e-3);
    assertEquals(normal.within(3), 0.9973, 1e-3);
    assertEquals(new EvenSum(0.3, 0).within(0.15), 0.5, 1e-12, "no error changes nothing");
    assertEquals(new EvenSum().within(0.1), 1.0);
  }

  /// A disc within the square of two even errors has its share of the area; of sixteen each it is
  /// nearly Rayleigh's, 1 − exp(−r² / 2).
  @Test
  public void discs() {
    EvenSum even = new EvenSum(0.5);
    assertEquals(even.within(even, 0.3), Math.PI * 0.09, 2e-3);
    assertEquals(even.within(even, 0.8), 1.0, 1e-9);
    double[] many = new double[16];
    java.util.Arrays.fill(many, Math.sqrt(3.0 / 16));
    EvenSum normal = new EvenSum(many);
    for (double r : new double[] {0.5, 1, 2, 3}) {
      assertEquals(normal.within(normal, r), 1 - Math.exp(-r * r / 2), 7e-3, "" + r);
    }
  }

  @DataProvider
  Object[][] pads() {
    return new Object[][] {
      {20.0, 40.0, 0.5, 0.5, true, 0.0},
      {90.0, 55.0, 0.6, 0.3, false, 30.0},
      {150.0, 60.0, 0.8, 0.8, true, 0.0},
      {60.0, 5.0, 0.3, 1.2, false, 90.0},
    };
  }

  /// Every error drawn at random, the board laid on its pins as they say: as often as the sum says.
  @Test(dataProvider = "pads")
  public void asOftenAsItIsDrawn(
      double x, double y, double w, double h, boolean round, double degrees) {
    Landing.Errors e = new Landing.Errors(0.06, 0.08, 0.06, 0.07, 0.05);
    double tilt = 0.09;
    double miss = Landing.miss(x, y, PINS, e, tilt, w, h, round, Math.toRadians(degrees));
    Random r = new Random(11);
    int n = 400_000;
    int missed = 0;
    double c = Math.cos(Math.toRadians(degrees));
    double s = Math.sin(Math.toRadians(degrees));
    for (int i = 0; i < n; i++) {
      double dx = 0;
      double dy = 0;
      for (double limit : new double[] {e.drill(), e.hole(), e.artwork(), e.guide(), tilt}) {
        double along = limit * (2 * r.nextDouble() - 1);
        double across = limit * (2 * r.nextDouble() - 1);
        // even along the pad's own axes
        dx += c * along - s * across;
        dy += s * along + c * across;
      }
      double px = e.pin() * (2 * r.nextDouble() - 1);
      double py = e.pin() * (2 * r.nextDouble() - 1);
      double slot = e.pin() * (2 * r.nextDouble() - 1);
      double turn = (slot - py) / 90;
      dx += px - turn * (y - 5);
      dy += py + turn * (x - 5);
      double u = c * dx + s * dy;
      double v = -s * dx + c * dy;
      boolean on = round ? Math.hypot(u, v) <= w / 2 : Math.abs(u) <= w / 2 && Math.abs(v) <= h / 2;
      missed += on ? 0 : 1;
    }
    double drawn = (double) missed / n;
    // what the pins do along and across hangs together far beside them, which is passed over
    assertEquals(miss, drawn, 0.05 * drawn + 4 * Math.sqrt(drawn / n) + 3e-4, miss + " " + drawn);
  }
}
