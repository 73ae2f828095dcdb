package ell.core.pulse;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import ell.core.series.Series;
import java.util.List;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import org.testng.annotations.Test;

/// Measures of waveforms that are known in closed form: trapezoids, charges, damped sines.
public final class WaveTest {
  private static Series sampled(
      double step, double seconds, double noise, long seed, DoubleUnaryOperator v) {
    int n = (int) Math.round(seconds / step) + 1;
    double[] t = new double[n];
    double[] y = new double[n];
    Random random = new Random(seed);
    for (int i = 0; i < n; i++) {
      t[i] = i * step;
      y[i] = v.applyAsDouble(t[i]) + noise * random.nextGaussian();
    }
    return new Series("CH1", t, y);
  }

  /// 0 to 3.3 V, edges of some duration from 0 to 100 %, a period of 1 µs, high for 0.4 of it.
  private static double trapezoid(double t, double edge) {
    double x = (t + 0.13e-6) % 1e-6;
    double up = Math.clamp(x / edge, 0, 1);
    double down = Math.clamp((x - 0.4e-6) / edge, 0, 1);
    return 3.3 * (up - down);
  }

  @Test
  public void aTrapezoid() {
    Wave w = Wave.of(sampled(1e-9, 20e-6, 0, 1, t -> trapezoid(t, 50e-9)));
    assertEquals(w.low(), 0, 1e-6);
    assertEquals(w.high(), 3.3, 1e-6);
    assertEquals(w.rise(), 40e-9, 1e-11); // 80 % of 50 ns
    assertEquals(w.fall(), 40e-9, 1e-11);
    assertEquals(w.period(), 1e-6, 1e-12);
    assertEquals(w.frequency(), 1e6, 1);
    assertEquals(w.duty(), 0.4, 1e-6);
    assertEquals(w.overshoot(), 0, 1e-6);
    assertEquals(w.jitter(), 0, 1e-11);
    assertEquals(w.rising(), 20);
    assertEquals(w.edges(), w.rising() + w.falling());
    assertTrue(w.ring().isEmpty());
  }

  /// A charge: 10 to 90 % takes ln 9 time constants.
  @Test
  public void aCharge() {
    double tau = 30e-9;
    Wave w =
        Wave.of(
            sampled(1e-9, 2e-6, 0, 1, t -> t < 0.5e-6 ? 0 : 5 * -Math.expm1(-(t - 0.5e-6) / tau)));
    assertEquals(w.rise(), Math.log(9) * tau, 2e-10);
    assertEquals(w.rising(), 1);
    assertTrue(Double.isNaN(w.period()) && Double.isNaN(w.jitter()) && Double.isNaN(w.duty()));
  }

  /// A step that rings: overshoot exp(-π a / w), swings of period 2π / w.
  @Test
  public void aDampedSine() {
    double a = 5e6;
    double omega = 2 * Math.PI * 20e6;
    Wave w =
        Wave.of(
            sampled(
                0.5e-9,
                4e-6,
                0,
                1,
                t ->
                    t < 1e-6
                        ? 0
                        : 2
                            * (1
                                - Math.exp(-a * (t - 1e-6))
                                    * (Math.cos(omega * (t - 1e-6))
                                        + a / omega * Math.sin(omega * (t - 1e-6))))));
    assertEquals(w.high(), 2, 0.01);
    assertEquals(w.overshoot(), Math.exp(-Math.PI * a / omega), 0.01);
    assertEquals(w.ring().orElseThrow().frequency(), 20e6, 0.3e6);
    assertEquals(w.ring().orElseThrow().decay(), a, 0.1 * a);
  }

  /// With noise and jitter the truth lies within the stated uncertainty 95 times of 100.
  @Test
  public void theTruthLiesWithinTheUncertainty() {
    int rise = 0;
    int period = 0;
    int tries = 300;
    for (int seed = 1; seed <= tries; seed++) {
      double edge = 20e-9 + 60e-9 * (seed % 7) / 6;
      double phase = 1e-9 * (seed % 10) / 10;
      double noise = 0.005 + 0.02 * (seed % 5) / 4;
      Wave w = Wave.of(sampled(2e-9, 12e-6, noise, seed, t -> trapezoid(t + phase, edge)));
      rise += Math.abs(w.rise() - 0.8 * edge) <= w.riseU() ? 1 : 0;
      period += Math.abs(w.period() - 1e-6) <= w.periodU() ? 1 : 0;
      assertEquals(w.high(), 3.3, 0.02);
      assertEquals(w.noise(), noise, 0.15 * noise);
    }
    assertTrue(rise >= 0.93 * tries, rise + " of " + tries);
    assertTrue(period >= 0.93 * tries, period + " of " + tries);
  }

  @Test
  public void jitterIsThatOfTheClock() {
    Random random = new Random(4);
    double[] edges = new double[200];
    for (int i = 1; i < edges.length; i++) {
      edges[i] = edges[i - 1] + 1e-6 + 3e-9 * random.nextGaussian();
    }
    Wave w =
        Wave.of(
            sampled(
                1e-9,
                199e-6,
                0.01,
                9,
                t -> {
                  int i = java.util.Arrays.binarySearch(edges, t);
                  int k = i >= 0 ? i : -i - 2;
                  double x = t - edges[Math.max(0, k)];
                  return 3.3
                      * (Math.clamp(x / 20e-9, 0, 1) - Math.clamp((x - 0.5e-6) / 20e-9, 0, 1));
                }));
    assertEquals(w.jitter(), 3e-9, 0.5e-9);
  }

  @Test
  public void aDirectVoltageHasNoEdges() {
    Wave w = Wave.of(sampled(1e-6, 1e-3, 0.01, 2, _ -> 3.3));
    assertEquals(w.edges(), 0);
    assertEquals(w.low(), 3.3, 0.01);
    assertEquals(w.high(), w.low());
    assertEquals(w.rms(), 3.3, 0.01);
    Wave still = Wave.of(sampled(1e-6, 1e-3, 0, 2, _ -> 0));
    assertEquals(still.amplitude(), 0.0);
    assertThrows(
        IllegalArgumentException.class,
        () -> Wave.of(new Series("x", new double[1], new double[1])));
  }

  /// What goes back before it got to the other level is no edge: a runt.
  @Test
  public void aRuntIsNoEdge() {
    Wave w =
        Wave.of(
            sampled(
                1e-9,
                10e-6,
                0,
                1,
                t -> trapezoid(t, 20e-9) * (t > 4.87e-6 && t < 5.86e-6 ? 0.6 : 1)));
    assertEquals(w.rising(), 9);
  }

  /// An edge that falls back between the thresholds is counted twice by an input whose threshold
  /// lies there; one that never goes below the upper one is not.
  @Test
  public void countedTwice() {
    DoubleUnaryOperator rings =
        t -> trapezoid(t, 10e-9) * (trapezoidAt(t) > 60e-9 && trapezoidAt(t) < 90e-9 ? 0.45 : 1);
    Series s = sampled(1e-9, 10e-6, 0, 1, rings);
    Counted c = Counted.of(s, 0.8, 2.0);
    assertEquals(c.crossings(), 20);
    assertEquals(c.doubles(), 10);
    Counted clean = Counted.of(sampled(1e-9, 10e-6, 0, 1, t -> trapezoid(t, 50e-9)), 0.8, 2.0);
    assertEquals(clean.crossings(), 10);
    assertEquals(clean.doubles(), 0);
    assertEquals(clean.dwell(), 50e-9 * 1.2 / 3.3, 1e-12);
    assertThrows(IllegalArgumentException.class, () -> Counted.of(s, 2, 1));
  }

  private static double trapezoidAt(double t) {
    return (t + 0.13e-6) % 1e-6;
  }

  private static List<String> suspected(Series s, double bandwidth) {
    return Suspicion.of(s, Wave.of(s), bandwidth);
  }

  @Test
  public void whatTheInstrumentMayHaveDone() {
    assertEquals(
        suspected(sampled(1e-9, 10e-6, 0.01, 1, t -> trapezoid(t, 50e-9)), 200e6), List.of());
    assertTrue(
        suspected(sampled(1e-9, 10e-6, 0.01, 1, t -> trapezoid(t, 50e-9) - 1.32), 0)
            .getFirst()
            .contains("AC"));
    assertTrue(
        suspected(sampled(1e-9, 10e-6, 0.001, 1, t -> trapezoid(t, 50e-9) / 10), 0)
            .getFirst()
            .contains("a tenth of 3.3 V"),
        suspected(sampled(1e-9, 10e-6, 0.001, 1, t -> trapezoid(t, 50e-9) / 10), 0).toString());
    assertTrue(
        suspected(sampled(1e-9, 10e-6, 0.1, 1, t -> trapezoid(t, 50e-9) * 10), 0)
            .getFirst()
            .contains("ten times"));
    assertTrue(
        suspected(sampled(20e-9, 10e-6, 0.01, 1, t -> trapezoid(t, 10e-9)), 0)
            .getFirst()
            .contains("fewer than four samples"));
    assertTrue(
        suspected(sampled(1e-9, 10e-6, 0.01, 1, t -> trapezoid(t, 9e-9)), 50e6).stream()
            .anyMatch(x -> x.contains("that of the instrument")));
    Random random = new Random(1);
    assertTrue(
        suspected(
                sampled(
                    1e-9,
                    10e-6,
                    0,
                    1,
                    t -> Math.min(2.6, trapezoid(t, 50e-9) + 0.02 * random.nextGaussian())),
                0)
            .stream()
            .anyMatch(x -> x.contains("clipped")));
    assertTrue(
        suspected(sampled(1e-6, 1e-3, 0.002, 2, _ -> 0), 0).getFirst().contains("nothing but 0 V"));
    assertFalse(
        suspected(sampled(1e-6, 1e-3, 0.01, 2, _ -> 3.3), 0).stream()
            .anyMatch(x -> x.contains("0 V")));
  }

  /// Twenty pulses of 400 ns, one of them a tenth as wide, one that goes to 2 V only; edges of 50
  /// ns that pass from 0.8 to 2.0 V in 50 ns · 1.2 / 3.3.
  @Test
  public void singlePulses() {
    Series s =
        sampled(
            1e-9,
            20e-6,
            0.002,
            1,
            t -> {
              double v = trapezoid(t, 50e-9);
              double x = (t + 0.13e-6) % 1e-6;
              int k = (int) ((t + 0.13e-6) / 1e-6);
              if (k == 5) {
                return 3.3 * (Math.clamp(x / 5e-9, 0, 1) - Math.clamp((x - 40e-9) / 5e-9, 0, 1));
              }
              return k == 9 ? v * 2 / 3.3 : v;
            });
    Pulses p =
        Pulses.of(s, Wave.of(s), java.util.Optional.of(new Arrives.Input(0.8, 2.0, 1e-8, 5)));
    assertEquals(p.runts(), 1);
    assertEquals(p.glitches(), 1);
    assertEquals(p.narrowest(), 40e-9, 1e-9);
    assertEquals(p.widthHigh(), (17 * 400e-9 + 40e-9) / 18, 1e-9);
    Pulses.Edge e = p.edges().stream().filter(x -> x.rising()).skip(1).findFirst().orElseThrow();
    assertEquals(e.length(), 40e-9, 1e-9);
    assertEquals(e.dwell(), 50e-9 * 1.2 / 3.3, 1e-9);
    assertEquals(e.at(), 2e-6 - 0.13e-6 + 25e-9, 1e-9);
    Pulses.Edge down = p.edges().stream().filter(x -> !x.rising()).findFirst().orElseThrow();
    assertEquals(down.dwell(), 50e-9 * 1.2 / 3.3, 1e-9);
    // within 5 % of the level 45 % of an edge behind its middle
    Series clean = sampled(1e-9, 20e-6, 0, 1, x -> trapezoid(x, 50e-9));
    assertEquals(
        Pulses.of(clean, Wave.of(clean), java.util.Optional.empty()).settling(),
        0.45 * 50e-9,
        2e-9);
  }

  /// A ring falls below 5 % after ln(A / 0.05) / a.
  @Test
  public void settling() {
    double a = 5e6;
    Series s =
        sampled(
            0.5e-9,
            6e-6,
            0,
            1,
            t ->
                t < 1e-6
                    ? 0
                    : 2
                        * (1
                            - Math.exp(-a * (t - 1e-6))
                                * Math.cos(2 * Math.PI * 20e6 * (t - 1e-6))));
    double wanted = Math.log(1 / 0.05) / a;
    assertEquals(Pulses.of(s, Wave.of(s), java.util.Optional.empty()).settling(), wanted, 0.03e-6);
  }

  /// Source: NIST Statistical Reference Datasets, univariate, NumAcc1 to NumAcc4 (from memory): the
  /// mean and the standard deviation are exact, and easily lost in the digits of large numbers.
  @Test
  public void statisticsOfLargeNumbers() {
    double[] one = {10_000_001, 10_000_003, 10_000_002};
    assertEquals(Edges.mean(one), 10_000_002, 0);
    assertEquals(Edges.deviation(one), 1, 1e-15);
    for (double base : new double[] {1, 1_000_000, 10_000_000}) {
      double[] x = new double[1001];
      x[0] = base + 0.2;
      for (int i = 1; i < x.length; i++) {
        x[i] = base + (i % 2 == 1 ? 0.1 : 0.3);
      }
      assertEquals(Edges.mean(x), base + 0.2, 1e-14 * base);
      assertEquals(Edges.deviation(x), 0.1, 2e-8, "about " + base);
    }
  }
}
