package ell.core.pulse;

import ell.core.pulse.Bounce.Course;
import ell.core.quantity.Verdict;

/// How a rising edge arrives at an input: how high it goes, how low it falls back, how long it is
/// between the input's thresholds, and how often it passes the upper one.
///
/// @param at place on the line, 0...1
/// @param peak V
/// @param dip the least volts after it was high once; the final volts where it never was
/// @param dwell seconds from leaving the lower threshold to reaching the upper one; infinite when
///   it never does
/// @param allowed seconds that it may be between them
/// @param crossings of the upper threshold upwards
/// @param settles seconds from the driver's edge until it stays within 5 % of the swing
/// @param verdict out when it would be counted twice, is too slow, too high, or falls back too far
public record Arrives(
    double at,
    double peak,
    double dip,
    double dwell,
    double allowed,
    int crossings,
    double settles,
    Verdict verdict) {
  private static final double STAYS = 0.05;

  /// What an input wants.
  ///
  /// @param vil the most that is low, V
  /// @param vih the least that is high, V
  /// @param slowest seconds that an edge may take for each volt
  /// @param most volts that it bears
  public record Input(double vil, double vih, double slowest, double most) {
    /// @throws IllegalArgumentException when the thresholds are the wrong way round
    public Input {
      if (!(vil < vih)) {
        throw new IllegalArgumentException("vil is below vih, got " + vil + " V and " + vih + " V");
      }
    }
  }

  /// Measures a course that has settled at its end.
  public static Arrives of(double at, Course c, Input in, double swing) {
    double last = c.last();
    double[] t = c.seconds();
    double[] v = c.volts();
    double peak = Double.NEGATIVE_INFINITY;
    double dip = Double.POSITIVE_INFINITY;
    double left = Double.NaN;
    double reached = Double.NaN;
    double settles = 0;
    int crossings = 0;
    for (int i = 0; i < v.length; i++) {
      peak = Math.max(peak, v[i]);
      if (i > 0) {
        if (Double.isNaN(left) && v[i - 1] <= in.vil() && v[i] > in.vil()) {
          left = when(t, v, i, in.vil());
        }
        if (v[i - 1] < in.vih() && v[i] >= in.vih()) {
          crossings++;
          reached = Double.isNaN(reached) ? when(t, v, i, in.vih()) : reached;
        }
      }
      if (!Double.isNaN(reached)) {
        dip = Math.min(dip, v[i]);
      }
      if (Math.abs(v[i] - last) > STAYS * swing) {
        settles = i + 1 < t.length ? t[i + 1] : t[i];
      }
    }
    double dwell =
        Double.isNaN(reached)
            ? Double.POSITIVE_INFINITY
            : reached - (Double.isNaN(left) ? 0 : left);
    double allowed = (in.vih() - in.vil()) * in.slowest();
    boolean good =
        crossings == 1 && peak <= in.most() && dip >= in.vih() - 1e-9 && dwell <= allowed;
    return new Arrives(
        at,
        peak,
        Double.isNaN(reached) ? last : dip,
        dwell,
        allowed,
        crossings,
        settles,
        good ? Verdict.WITHIN : Verdict.OUT);
  }

  private static double when(double[] t, double[] v, int i, double level) {
    double rise = v[i] - v[i - 1];
    return rise == 0 ? t[i] : t[i - 1] + (t[i] - t[i - 1]) * (level - v[i - 1]) / rise;
  }
}
