package ell.core.pulse;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.pulse.Wanted.Driven;
import ell.core.series.Series;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.testng.annotations.Test;

/// Lines from what would be measured on them. The traces come from the line's equations at many
/// frequencies, not from what is fitted.
public final class LineFitTest {
  private static final double PERIOD = 400e-9;
  private static final int HARMONICS = 1500;

  /// Volts at a place of a line that a square wave with ramps drives, from its Fourier series and
  /// the line's equations; the first edge lies at 20 ns.
  private static double[] trace(
      double source, double z0, double delay, double loss, double ramp, double at, double[] t) {
    double alpha = -Math.log(1 - loss);
    double[] v = new double[t.length];
    for (int i = 0; i < v.length; i++) {
      v[i] = 3.3 / 2;
    }
    for (int k = 1; k < 2 * HARMONICS; k += 2) {
      double w = 2 * Math.PI * k / PERIOD;
      // of a square wave of 3.3 V with linear ramps, its middle at 20 ns
      double x = w * ramp / 2;
      double size = 2 * 3.3 / (Math.PI * k) * (x == 0 ? 1 : Math.sin(x) / x);
      // an open line: V(at) = V(in) cosh(g (1 - at)) / cosh(g), Z(in) = z0 / tanh(g)
      double[] g = {alpha, w * delay};
      double[] ratio = divide(cosh(scale(g, 1 - at)), cosh(g));
      double[] zin = divide(new double[] {z0, 0}, divide(sinh(g), cosh(g)));
      double[] in = divide(zin, new double[] {zin[0] + source, zin[1]});
      double[] h = multiply(in, ratio);
      double gain = Math.hypot(h[0], h[1]);
      double phase = Math.atan2(h[1], h[0]);
      for (int i = 0; i < t.length; i++) {
        v[i] += size * gain * Math.sin(w * (t[i] - 20e-9) + phase);
      }
    }
    return v;
  }

  private static double[] scale(double[] a, double f) {
    return new double[] {a[0] * f, a[1] * f};
  }

  private static double[] cosh(double[] a) {
    return new double[] {Math.cosh(a[0]) * Math.cos(a[1]), Math.sinh(a[0]) * Math.sin(a[1])};
  }

  private static double[] sinh(double[] a) {
    return new double[] {Math.sinh(a[0]) * Math.cos(a[1]), Math.cosh(a[0]) * Math.sin(a[1])};
  }

  private static double[] multiply(double[] a, double[] b) {
    return new double[] {a[0] * b[0] - a[1] * b[1], a[0] * b[1] + a[1] * b[0]};
  }

  private static double[] divide(double[] a, double[] b) {
    double q = b[0] * b[0] + b[1] * b[1];
    return new double[] {(a[0] * b[0] + a[1] * b[1]) / q, (a[1] * b[0] - a[0] * b[1]) / q};
  }

  private static Series measured(
      double source, double z0, double delay, double loss, double ramp, double at, long seed) {
    int n = 360;
    double[] t = new double[n];
    for (int i = 0; i < n; i++) {
      t[i] = i * 0.5e-9;
    }
    double[] v = trace(source, z0, delay, loss, ramp, at, t);
    Random r = new Random(seed);
    for (int i = 0; i < n; i++) {
      v[i] += 0.01 * r.nextGaussian();
    }
    return new Series("CH1", t, v);
  }

  private static Driven taken(double ohms, double series, double z0, double delay) {
    return new Driven(
        "U1.1", ohms, series, 2e-9, 3.3, delay * 0.6 * LineOnBoard.LIGHT, z0, 0.6, 0, 0, Map.of());
  }

  /// Twelve lines: what was put in lies within what the fit says of itself 11 times of 12 or more.
  @Test
  public void whatWasPutInIsFound() {
    Random r = new Random(4);
    int within = 0;
    int tried = 12;
    for (int k = 0; k < tried; k++) {
      double z0 = 50 + 80 * r.nextDouble();
      double source = z0 * (0.15 + r.nextDouble());
      double delay = (2.5 + 2 * r.nextDouble()) * 1e-9;
      double at = new double[] {0, 0.33, 1}[k % 3];
      Series s = measured(source, z0, delay, 0.02, 2.5e-9, at, k);
      Optional<LineFit> f = LineFit.of(s, at, taken(source * 0.8, 0, z0, delay * 1.04));
      assertTrue(f.isPresent(), "line " + k);
      boolean ratio = Math.abs(f.get().ratio() - source / z0) <= f.get().ratioU();
      boolean far = at == 1 && source > 0.85 * z0; // a matched end shows no delay
      boolean pass = far || Math.abs(f.get().delay() - delay) <= 3 * f.get().delayU() + 3e-11;
      within += ratio && pass ? 1 : 0;
    }
    assertTrue(within >= tried - 1, within + " of " + tried);
  }

  /// 25 Ω on 120 Ω were taken, 100 Ω stand there: it says so, with both ways out.
  @Test
  public void aGuessThatTheCaptureContradicts() {
    Series s = measured(100, 120, 3.3e-9, 0.01, 2.5e-9, 1, 9);
    LineFit f = LineFit.of(s, 1, taken(25, 0, 120, 3.3e-9)).orElseThrow();
    assertEquals(f.ratio(), 100 / 120.0, 0.05);
    assertEquals(f.source(), 100, 6);
    assertTrue(f.told().getFirst().startsWith("the capture contradicts"), f.told().toString());
    LineFit same = LineFit.of(s, 1, taken(25, 75, 120, 3.3e-9)).orElseThrow();
    assertEquals(same.told().stream().filter(t -> t.contains("contradicts")).count(), 0L);
    assertEquals(same.z0(), 120, 8);
  }

  /// Common practice, no source: 60 cm, 100 Ω in series, plateau 1.8 of 3.3 V, round trip 6.6 ns.
  @Test
  public void theMeasurementOfTheTrade() {
    double z0 = 100 * 1.8 / 1.5;
    Series s = measured(100, z0, 3.3e-9, 0, 2e-9, 0, 1);
    LineFit f = LineFit.of(s, 0, taken(0, 100, 100, 3e-9)).orElseThrow();
    assertEquals(f.z0(), 120, 8);
    assertEquals(2 * f.delay(), 6.6e-9, 0.2e-9);
  }

  @Test
  public void nothingToFit() {
    double[] t = new double[100];
    double[] v = new double[100];
    for (int i = 0; i < 100; i++) {
      t[i] = i * 1e-9;
    }
    assertTrue(LineFit.of(new Series("x", t, v), 1, taken(25, 0, 100, 3e-9)).isEmpty());
  }
}
