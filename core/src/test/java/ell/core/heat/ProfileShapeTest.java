package ell.core.heat;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import org.hipparchus.analysis.solvers.BrentSolver;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Statistics of smooth profiles against brute force: the curve itself is searched and counted at a
/// thousandth of a second, its crossings are solved for with Hipparchus.
public class ProfileShapeTest {
  private static final ProfileWindow WINDOW = ProfileWindow.SAC305;

  /// A board on a plate: two rises that level off, then a fall; smooth everywhere.
  private record Curve(
      double ambient,
      double soak,
      double peak,
      double rise,
      double second,
      double fall,
      double width)
      implements DoubleUnaryOperator {
    static Curve random(long seed) {
      Random r = new Random(seed);
      return new Curve(
          18 + 5 * r.nextDouble(),
          168 + 20 * r.nextDouble(),
          232 + 25 * r.nextDouble(),
          45 + 20 * r.nextDouble(),
          230 + 40 * r.nextDouble(),
          400 + 40 * r.nextDouble(),
          14 + 6 * r.nextDouble());
    }

    private static double step(double x) {
      return 1 / (1 + Math.exp(-x));
    }

    @Override
    public double applyAsDouble(double t) {
      return ambient
          + (soak - ambient) * step((t - rise) / width)
          + (peak - soak) * step((t - second) / width)
          - (peak - ambient) * step((t - fall) / (1.2 * width));
    }
  }

  private static final double END = 620;

  private static ProfileLog.Channel sampled(Curve c, double step, boolean uneven, long seed) {
    Random r = new Random(seed);
    int n = (int) (END / step);
    double[] t = new double[n];
    double[] v = new double[n];
    for (int i = 0; i < n; i++) {
      t[i] = 1000 + i * step + (uneven ? step * 0.8 * r.nextDouble() : 0);
      v[i] = c.applyAsDouble(t[i] - 1000);
    }
    return new ProfileLog.Channel("board", t, v);
  }

  @DataProvider
  Object[][] curves() {
    Object[][] out = new Object[40][];
    for (int i = 0; i < out.length; i++) {
      out[i] = new Object[] {(long) i, i % 2 == 0 ? 0.2 : 1.0, i % 4 > 1};
    }
    return out;
  }

  private static double peakTime(Curve c) {
    double best = 0;
    for (double t = 0; t < END; t += 1e-3) {
      best = c.applyAsDouble(t) > c.applyAsDouble(best) ? t : best;
    }
    return best;
  }

  private static double crossing(Curve c, double level, double from, double to) {
    return new BrentSolver(1e-9).solve(500, t -> c.applyAsDouble(t) - level, from, to);
  }

  @Test(dataProvider = "curves")
  public void statisticsAreThoseOfTheCurve(long seed, double step, boolean uneven) {
    Curve c = Curve.random(seed);
    ProfileShape s = ProfileShape.of(sampled(c, step, uneven, seed), WINDOW);
    double top = peakTime(c);
    assertEquals(s.values.get(ProfileStatistic.PEAK), c.applyAsDouble(top), 0.05);
    // flat at the top: a sample of it may lie some way beside it
    assertEquals(s.peakAt - 1000, top, 3);

    double above = 0;
    for (double t = 0; t < END; t += 1e-3) {
      above += c.applyAsDouble(t) > WINDOW.above() ? 1e-3 : 0;
    }
    assertEquals(s.values.get(ProfileStatistic.TIME_ABOVE), above, 0.1);

    double soak = crossing(c, WINDOW.soakTo(), 0, top) - crossing(c, WINDOW.soakFrom(), 0, top);
    assertEquals(s.values.get(ProfileStatistic.SOAK_TIME), soak, 0.1);

    // a curve so smooth may be above 25 °C when the log begins: then it counts from there
    double start = c.applyAsDouble(0) > 25 ? 0 : crossing(c, 25, 0, top);
    assertEquals(s.values.get(ProfileStatistic.TIME_TO_PEAK), top - start, 3.2);
  }

  /// The steepest line of least squares over ten seconds, sought at every tenth of a second.
  @Test(dataProvider = "curves")
  public void slopesAreTheSteepestTenSeconds(long seed, double step, boolean uneven) {
    Curve c = Curve.random(seed);
    ProfileShape s = ProfileShape.of(sampled(c, step, uneven, seed), WINDOW);
    double top = peakTime(c);
    double up = steepest(c, 0, top);
    double down = -steepest(t -> -c.applyAsDouble(t), top, END - 1);
    assertEquals(s.values.get(ProfileStatistic.RAMP_UP), up, 0.02 * up + 0.01);
    assertEquals(s.values.get(ProfileStatistic.RAMP_DOWN), -down, 0.02 * Math.abs(down) + 0.01);
  }

  private static double steepest(DoubleUnaryOperator c, double from, double to) {
    double most = 0;
    for (double t = from; t + 10 <= to; t += 0.1) {
      double sxy = 0;
      double sxx = 0;
      for (int k = -50; k <= 50; k++) {
        double x = k * 0.1;
        sxy += x * c.applyAsDouble(t + 5 + x);
        sxx += x * x;
      }
      most = Math.max(most, sxy / sxx);
    }
    return most;
  }

  @Test(dataProvider = "curves")
  public void aSpikeIsLeftOutAndTold(long seed, double step, boolean uneven) {
    Curve c = Curve.random(seed);
    ProfileLog.Channel clean = sampled(c, step, uneven, seed);
    double[] t = new double[clean.size()];
    double[] v = new double[clean.size()];
    for (int i = 0; i < t.length; i++) {
      t[i] = clean.second(i);
      v[i] = clean.celsius(i);
    }
    v[t.length / 3] += 120;
    v[t.length / 2] -= 90;
    ProfileShape spiked = ProfileShape.of(new ProfileLog.Channel("board", t, v), WINDOW);
    ProfileShape plain = ProfileShape.of(clean, WINDOW);
    assertTrue(spiked.remarks.stream().anyMatch(x -> x.startsWith("2 samples leap")));
    for (ProfileStatistic s :
        new ProfileStatistic[] {
          ProfileStatistic.PEAK, ProfileStatistic.TIME_ABOVE, ProfileStatistic.SOAK_TIME
        }) {
      assertEquals(spiked.values.get(s), plain.values.get(s), 0.35, s.toString());
    }
  }

  @Test
  public void aRunThatStopsHotIsTold() {
    Curve c = Curve.random(7);
    double top = peakTime(c);
    ProfileLog.Channel whole = sampled(c, 1, false, 7);
    int n = (int) top;
    double[] t = new double[n];
    double[] v = new double[n];
    for (int i = 0; i < n; i++) {
      t[i] = whole.second(i);
      v[i] = whole.celsius(i);
    }
    ProfileShape s = ProfileShape.of(new ProfileLog.Channel("board", t, v), WINDOW);
    assertTrue(s.remarks.contains("the log ends above the liquidus"), s.remarks.toString());
  }

  @Test
  public void fewerThanFiveSamplesAreNoProfile() {
    ProfileLog.Channel c =
        new ProfileLog.Channel("b", new double[] {0, 1, 2, 3}, new double[] {1, 2, 3, 4});
    assertThrows(IllegalArgumentException.class, () -> ProfileShape.of(c, WINDOW));
  }
}
