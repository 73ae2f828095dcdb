package ell.core.pulse;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.series.Series;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/// What the instrument may have done to a capture, before anything is judged by it. Each is a
/// suspicion and decides nothing.
public final class Suspicion {
  private static final double FEW_SAMPLES = 4;
  private static final double NEARLY_ALL = 0.9;
  private static final int FEW = 20;
  private static final int DIFFER = 5;
  private static final double[] USUAL = {1.2, 1.8, 2.5, 3.3, 5, 12, 24};

  private Suspicion() {}

  /// Suspicions of a channel, a sentence each.
  ///
  /// @param bandwidth of the instrument, Hz; 0 when it is not known
  public static List<String> of(Series s, Wave w, double bandwidth) {
    List<String> all = new ArrayList<>();
    double step = s.duration() / (s.size() - 1);
    double amplitude = w.amplitude();
    if (w.edges() > 0) {
      double edge = Math.min(or(w.rise()), or(w.fall()));
      // a logic capture has edges of no length
      if (edge > 0 && edge < FEW_SAMPLES * step) {
        all.add(
            w.name()
                + ": an edge has fewer than four samples: it takes at most "
                + EngineeringNumber.print(edge + 2 * step, Unit.SECOND, 2)
                + ", and may be faster");
      }
      if (bandwidth > 0 && edge < 1.4 * 0.35 / bandwidth) {
        all.add(
            w.name()
                + ": the edge is that of the instrument, "
                + EngineeringNumber.print(0.35 / bandwidth, Unit.SECOND, 2)
                + " of its bandwidth");
      }
      if (w.low() < -0.1 * amplitude && w.high() > 0.1 * amplitude) {
        all.add(w.name() + ": it swings about 0 V: is the coupling AC?");
      }
      factor(w, amplitude, all);
      if (clipped(s, w)) {
        all.add(w.name() + ": it stands still at its greatest or least: clipped by the range?");
      }
      if (Double.isNaN(w.rise()) && Double.isNaN(w.fall())) {
        all.add(
            w.name()
                + ": "
                + String.format(java.util.Locale.ROOT, "%.2g", w.period() / step)
                + " samples a period: too few to see its edges"
                + (w.period() < 2.5 * step ? ", and the clock may be a faster one" : ""));
      }
      if (w.ring().isPresent()) {
        all.add(
            w.name()
                + ": it rings at "
                + EngineeringNumber.print(w.ring().get().frequency(), Unit.HERTZ, 2)
                + ": the line, or the ground lead of the probe");
      }
    } else if (Math.abs(w.mean()) < 0.02 && w.noise() < 0.02) {
      all.add(w.name() + ": nothing but 0 V: is the tip on, the ground clip on, the coupling DC?");
    }
    return all;
  }

  private static double or(double x) {
    return Double.isNaN(x) ? Double.POSITIVE_INFINITY : x;
  }

  /// Levels that are a tenth or ten times of what is usual.
  private static void factor(Wave w, double amplitude, List<String> all) {
    if (Math.abs(w.low()) > 0.15 * amplitude) {
      return;
    }
    for (double u : USUAL) {
      if (near(w.high(), u)) {
        return;
      }
    }
    for (double u : USUAL) {
      if (near(w.high(), u / 10) || near(w.high(), u * 10)) {
        all.add(
            w.name()
                + ": "
                + EngineeringNumber.print(w.high(), Unit.VOLT, 3)
                + (w.high() < u ? " is a tenth" : " is ten times")
                + " of "
                + EngineeringNumber.print(u, Unit.VOLT)
                + ": is the factor of the probe set?");
        return;
      }
    }
  }

  private static boolean near(double v, double wanted) {
    return Math.abs(v - wanted) <= 0.06 * wanted;
  }

  /// Nearly all samples of one level are the same, the greatest or the least, although those of the
  /// other differ.
  private static boolean clipped(Series s, Wave w) {
    double near = 0.05 * w.amplitude();
    double most = s.most();
    double least = s.least();
    int top = 0;
    int bottom = 0;
    int atHigh = 0;
    int atLow = 0;
    Set<Double> high = new HashSet<>();
    Set<Double> low = new HashSet<>();
    for (int i = 0; i < s.size(); i++) {
      double v = s.value(i);
      top += v == most ? 1 : 0;
      bottom += v == least ? 1 : 0;
      if (v > w.high() - near) {
        atHigh++;
        add(high, v);
      } else if (v < w.low() + near) {
        atLow++;
        add(low, v);
      }
    }
    boolean above = top > NEARLY_ALL * atHigh && top > FEW && low.size() >= DIFFER;
    boolean below = bottom > NEARLY_ALL * atLow && bottom > FEW && high.size() >= DIFFER;
    return above || below;
  }

  private static void add(Set<Double> values, double v) {
    if (values.size() < DIFFER) {
      values.add(v);
    }
  }
}
