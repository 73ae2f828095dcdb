package ell.core.series;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.Random;
import org.testng.annotations.Test;

/// Extremes of stretches against a plain walk through them; pictures that lose no spike.
public final class PyramidTest {
  private static float[] noise(int n, long seed) {
    Random r = new Random(seed);
    float[] v = new float[n];
    for (int i = 0; i < n; i++) {
      v[i] = (float) r.nextGaussian();
    }
    return v;
  }

  @Test
  public void extremesOfAnyStretch() {
    for (int n : new int[] {1, 63, 64, 65, 1023, 1024, 1025, 70_001}) {
      float[] v = noise(n, n);
      Series s = Series.even("x", 0, 1, v);
      Random r = new Random(7);
      for (int k = 0; k < 300; k++) {
        int a = r.nextInt(n);
        int b = a + 1 + r.nextInt(n - a);
        float least = Float.POSITIVE_INFINITY;
        float most = Float.NEGATIVE_INFINITY;
        for (int i = a; i < b; i++) {
          least = Math.min(least, v[i]);
          most = Math.max(most, v[i]);
        }
        float[] got = s.pyramid().range(s.samples(), a, b);
        assertEquals(got[0], least, 0f, n + ": " + a + " to " + b);
        assertEquals(got[1], most, 0f, n + ": " + a + " to " + b);
      }
      assertTrue(Float.isNaN(s.pyramid().range(s.samples(), n, n)[0]));
    }
  }

  @Test
  public void whatWasKeptIsTheSame() {
    float[] v = noise(10_007, 3);
    Series s = Series.even("x", 0, 1, v);
    Pyramid p = s.pyramid();
    Pyramid again = Pyramid.of(p.least(), p.most(), s.samples());
    for (int a = 0; a < v.length; a += 997) {
      assertEquals(again.range(s.samples(), a, v.length), p.range(s.samples(), a, v.length));
    }
    assertThrows(
        IllegalArgumentException.class, () -> Pyramid.of(new float[3], new float[3], s.samples()));
  }

  /// One sample of a million stands out: it is in every picture that it lies in, and where it is.
  @Test
  public void noSpikeIsLost() {
    float[] v = noise(1_000_000, 5);
    v[654_321] = 100;
    v[123_457] = -100;
    Series s = Series.even("x", 2, 1e-6, v);
    for (double wide : new double[] {1, 0.7, 0.35}) {
      for (int columns : new int[] {1, 300, 1200}) {
        double from = 2 + 0.654321 - wide * 0.4;
        int[] kept = Thinning.of(s, from, from + wide, columns);
        boolean high = false;
        int before = -1;
        for (int i : kept) {
          high |= i == 654_321;
          assertTrue(i > before, "rising");
          before = i;
        }
        assertTrue(high, wide + " s on " + columns);
        assertTrue(kept.length <= 4 * (columns + 2));
      }
    }
  }

  @Test
  public void evenReadingsAreFoundByTime() {
    Series s = Series.even("x", -0.3, 0.1, noise(50, 1));
    for (int i = 0; i < 50; i++) {
      assertEquals(s.firstFrom(s.second(i)), i);
      assertEquals(s.firstFrom(s.second(i) + 0.05), i + 1);
      assertEquals(s.at(s.second(i)), s.value(i), 1e-12);
    }
    assertEquals(s.firstFrom(-1), 0);
    assertEquals(s.firstFrom(100), 50);
    assertEquals(s.duration(), 4.9, 1e-12);
    double[] sum = {0};
    s.each(
        1,
        (v, first, n) -> {
          for (int i = 0; i < n; i++) {
            assertEquals(v[i], s.value(first + i));
            sum[0]++;
          }
        });
    assertEquals(sum[0], 50.0);
    assertThrows(IllegalArgumentException.class, () -> Series.even("x", 0, 0, new float[2]));
  }
}
