package ell.core.series;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.Arrays;
import java.util.Random;
import org.hipparchus.analysis.interpolation.LinearInterpolator;
import org.hipparchus.analysis.polynomials.PolynomialSplineFunction;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Series against an interpolator of Hipparchus, and thinning against what a line through all
/// readings would cover, column by column.
public class SeriesTest {
  private static Series random(int n, long seed) {
    Random r = new Random(seed);
    double[] t = new double[n];
    double[] v = new double[n];
    double now = r.nextDouble();
    for (int i = 0; i < n; i++) {
      now += 1e-3 + r.nextDouble() * (r.nextInt(20) == 0 ? 5 : 0.1);
      t[i] = now;
      v[i] = r.nextInt(50) == 0 ? 100 * r.nextGaussian() : Math.sin(now) + 0.1 * r.nextGaussian();
    }
    return new Series("s" + seed, t, v);
  }

  @DataProvider
  Object[][] seeds() {
    Object[][] out = new Object[20][];
    Arrays.setAll(out, i -> new Object[] {i});
    return out;
  }

  @Test(dataProvider = "seeds")
  public void betweenReadingsItIsAStraightLine(int seed) {
    Series s = random(200, seed);
    double[] t = new double[s.size()];
    double[] v = new double[s.size()];
    for (int i = 0; i < t.length; i++) {
      t[i] = s.second(i);
      v[i] = s.value(i);
    }
    PolynomialSplineFunction line = new LinearInterpolator().interpolate(t, v);
    Random r = new Random(seed);
    for (int k = 0; k < 500; k++) {
      double at = t[0] + r.nextDouble() * s.duration();
      assertEquals(s.at(at), line.value(at), 1e-9);
    }
    for (int i = 0; i < t.length; i++) {
      assertEquals(s.at(t[i]), v[i]);
    }
    assertEquals(s.at(t[0] - 5), v[0]);
    assertEquals(s.at(t[t.length - 1] + 5), v[v.length - 1]);
  }

  @Test
  public void extremesAndEmptySeries() {
    Series s = new Series("a", new double[] {1, 2, 2, 4}, new double[] {3, -1, 7, 2});
    assertEquals(s.most(), 7.0);
    assertEquals(s.least(), -1.0);
    assertEquals(s.duration(), 3.0);
    Series none = new Series("none", new double[0], new double[0]);
    assertTrue(Double.isNaN(none.most()) && Double.isNaN(none.least()) && Double.isNaN(none.at(1)));
    assertEquals(none.duration(), 0.0);
    assertEquals(none.firstFrom(3), 0);
  }

  @Test
  public void aStepOfTwoValuesAtOneTimeIsAllowed() {
    Series s = new Series("step", new double[] {0, 1, 1, 2}, new double[] {0, 0, 5, 5});
    assertEquals(s.at(0.5), 0.0);
    assertEquals(s.at(1.5), 5.0);
  }

  @Test
  public void whatCanNotBeASeriesIsRefused() {
    assertThrows(
        IllegalArgumentException.class,
        () -> new Series("x", new double[] {0, 1}, new double[] {1}));
    assertThrows(
        IllegalArgumentException.class,
        () -> new Series("x", new double[] {0, 2, 1}, new double[] {1, 2, 3}));
    assertThrows(
        IllegalArgumentException.class,
        () -> new Series("x", new double[] {0, Double.NaN}, new double[] {1, 2}));
  }

  @Test
  public void itsArraysAreItsOwn() {
    double[] v = {1, 2};
    Series s = new Series("x", new double[] {0, 1}, v);
    v[0] = 99;
    assertEquals(s.value(0), 1.0);
    assertEquals(s.map(x -> 2 * x).value(1), 4.0);
    assertEquals(s.value(1), 2.0);
  }

  /// The least and the greatest of each column stay, so do the first and the last reading of it.
  @Test(dataProvider = "seeds")
  public void thinningKeepsWhatEachColumnCovers(int seed) {
    Series s = random(20_000, seed);
    Random r = new Random(seed + 100);
    double a = s.second(0) + r.nextDouble() * s.duration() * 0.3;
    double b = a + (0.05 + r.nextDouble() * 0.5) * s.duration();
    int columns = 1 + r.nextInt(900);
    int[] kept = Thinning.of(s, a, b, columns);
    assertTrue(kept.length <= 4 * (columns + 2), kept.length + " for " + columns);
    for (int i = 1; i < kept.length; i++) {
      assertTrue(kept[i] > kept[i - 1]);
    }
    double[][] all = covered(s, a, b, columns, null);
    double[][] thin = covered(s, a, b, columns, kept);
    for (int c = 0; c < columns; c++) {
      assertEquals(thin[c], all[c], "column " + c);
    }
    // the line runs to both edges when there are readings beyond them
    assertTrue(s.second(kept[0]) <= a || kept[0] == 0);
    int last = kept[kept.length - 1];
    assertTrue(s.second(last) >= b || last == s.size() - 1);
  }

  private static double[][] covered(Series s, double a, double b, int columns, int[] of) {
    double[][] out = new double[columns][];
    int n = of == null ? s.size() : of.length;
    for (int k = 0; k < n; k++) {
      int i = of == null ? k : of[k];
      double at = s.second(i);
      if (at < a || at >= b) {
        continue;
      }
      int c = (int) Math.floor((at - a) / (b - a) * columns);
      double v = s.value(i);
      if (out[c] == null) {
        out[c] = new double[] {v, v, v, v};
      }
      out[c][1] = Math.min(out[c][1], v);
      out[c][2] = Math.max(out[c][2], v);
      out[c][3] = v;
    }
    return out;
  }

  @Test
  public void aShortSeriesIsDrawnWhole() {
    Series s = random(50, 3);
    int[] kept = Thinning.of(s, s.second(0), s.second(49), 100);
    assertEquals(kept.length, 50);
  }

  @Test
  public void oneSpikeAmongAMillionIsNotLost() {
    int n = 1_000_000;
    double[] t = new double[n];
    double[] v = new double[n];
    Arrays.setAll(t, i -> i * 1e-6);
    v[654_321] = 5;
    v[654_322] = -3;
    Series s = new Series("spike", t, v);
    int[] kept = Thinning.of(s, 0, 1, 800);
    assertTrue(kept.length < 3_300);
    assertTrue(Arrays.stream(kept).anyMatch(i -> i == 654_321));
    assertTrue(Arrays.stream(kept).anyMatch(i -> i == 654_322));
  }

  @Test
  public void nothingIsDrawnWithoutAWidthOrOutside() {
    Series s = random(10, 1);
    assertThrows(IllegalArgumentException.class, () -> Thinning.of(s, 1, 1, 10));
    assertThrows(IllegalArgumentException.class, () -> Thinning.of(s, 0, 1, 0));
    assertEquals(Thinning.of(new Series("", new double[0], new double[0]), 0, 1, 10).length, 0);
  }
}
