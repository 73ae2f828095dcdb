package ell.core.heat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;

/// The statistics of one channel, without any verdict.
///
/// A sample that leaps away from both neighbours faster than a board can change (15 °C/s and 5 °C)
/// is left out and counted. Slopes are taken over a span, not from point to point: the samples are
/// gathered in bins of a twentieth of the span (their medians), every span gets a straight line of
/// least squares, and the steepest ones the median of all their slopes (Theil and Sen), so that no
/// single value makes a ramp. Where the log is noisy (more than 0.15 °C), the peak is that of a
/// parabola through the samples around the highest one.
final class ProfileShape {
  /// Span of a slope, second.
  static final double SPAN_S = 10;

  private static final int BINS = 20;
  private static final double LEAP_PER_S = 15;
  private static final double LEAP = 5;
  private static final double NOISY = 0.15;
  private static final int CLOSELY = 60;

  final Map<ProfileStatistic, Double> values = new EnumMap<>(ProfileStatistic.class);
  final List<String> remarks = new ArrayList<>();
  final double peakAt;
  final double noise;
  final double span;

  private final double[] t;
  private final double[] c;

  private ProfileShape(ProfileLog.Channel channel, ProfileWindow w) {
    int n = channel.size();
    double[] tt = new double[n];
    double[] cc = new double[n];
    int kept = 0;
    int leaps = 0;
    for (int i = 0; i < n; i++) {
      if (leaps(channel, i)) {
        leaps++;
        continue;
      }
      tt[kept] = channel.second(i);
      cc[kept++] = channel.celsius(i);
    }
    t = Arrays.copyOf(tt, kept);
    c = Arrays.copyOf(cc, kept);
    if (leaps > 0) {
      remarks.add(leaps + (leaps == 1 ? " sample leaps" : " samples leap") + " and was left out");
    }
    noise = noise();
    int top = 0;
    for (int i = 1; i < kept; i++) {
      top = c[i] > c[top] ? i : top;
    }
    double step = kept < 2 ? 1 : (t[kept - 1] - t[0]) / (kept - 1);
    span = Math.max(SPAN_S, 4 * step);
    peakAt = t[top];
    values.put(ProfileStatistic.PEAK, peak(top, step));
    Bins bins = new Bins();
    values.put(ProfileStatistic.RAMP_UP, bins.steepest(t[0], peakAt, 1));
    values.put(ProfileStatistic.RAMP_DOWN, bins.steepest(peakAt, t[kept - 1], -1));
    double[][] smooth = noise > NOISY ? bins.means() : new double[][] {t, c};
    crossings(smooth[0], smooth[1], w);
    gaps();
  }

  /// Works them out.
  ///
  /// @throws IllegalArgumentException when the channel has fewer than 5 samples
  static ProfileShape of(ProfileLog.Channel channel, ProfileWindow w) {
    if (channel.size() < 5) {
      throw new IllegalArgumentException(
          "channel "
              + channel.name()
              + " has "
              + channel.size()
              + " samples, at least 5 are needed");
    }
    return new ProfileShape(channel, w);
  }

  private static boolean leaps(ProfileLog.Channel ch, int i) {
    if (i == 0 || i == ch.size() - 1) {
      return false;
    }
    double before = ch.celsius(i) - ch.celsius(i - 1);
    double after = ch.celsius(i) - ch.celsius(i + 1);
    return before * after > 0
        && Math.abs(before) > LEAP + LEAP_PER_S * (ch.second(i) - ch.second(i - 1))
        && Math.abs(after) > LEAP + LEAP_PER_S * (ch.second(i + 1) - ch.second(i));
  }

  /// Standard deviation of the noise, from the median of the second differences: a straight line
  /// and a smooth curve have next to none.
  private double noise() {
    int n = t.length - 2;
    if (n < 3) {
      return 0;
    }
    int step = Math.max(1, n / 20_000);
    double[] d = new double[(n + step - 1) / step];
    for (int i = 0, k = 0; i < n && k < d.length; i += step, k++) {
      double f = (t[i + 1] - t[i]) / (t[i + 2] - t[i]);
      d[k] = Math.abs(c[i + 1] - c[i] - f * (c[i + 2] - c[i]));
    }
    Arrays.sort(d);
    return 1.4826 * d[d.length / 2] / Math.sqrt(1.5);
  }

  private double peak(int top, double step) {
    int side = (int) Math.min(40, Math.ceil(4 / step));
    int from = Math.max(0, top - side);
    int to = Math.min(c.length - 1, top + side);
    if (noise <= NOISY || to - from < 4) {
      return c[top];
    }
    // a parabola of least squares about the highest sample
    double[] s = new double[5];
    double[] r = new double[3];
    for (int i = from; i <= to; i++) {
      double x = t[i] - t[top];
      double p = 1;
      for (int k = 0; k < 5; k++, p *= x) {
        s[k] += p;
        if (k < 3) {
          r[k] += p * c[i];
        }
      }
    }
    double det =
        s[0] * (s[2] * s[4] - s[3] * s[3])
            - s[1] * (s[1] * s[4] - s[3] * s[2])
            + s[2] * (s[1] * s[3] - s[2] * s[2]);
    double a =
        (r[0] * (s[2] * s[4] - s[3] * s[3])
                - s[1] * (r[1] * s[4] - s[3] * r[2])
                + s[2] * (r[1] * s[3] - s[2] * r[2]))
            / det;
    double b =
        (s[0] * (r[1] * s[4] - s[3] * r[2])
                - r[0] * (s[1] * s[4] - s[3] * s[2])
                + s[2] * (s[1] * r[2] - r[1] * s[2]))
            / det;
    double q =
        (s[0] * (s[2] * r[2] - r[1] * s[3])
                - s[1] * (s[1] * r[2] - r[1] * s[2])
                + r[0] * (s[1] * s[3] - s[2] * s[2]))
            / det;
    if (!(q < 0)) {
      return Math.min(c[top], a);
    }
    double at = Math.clamp(-b / (2 * q), t[from] - t[top], t[to] - t[top]);
    return Math.min(c[top], a + b * at + q * at * at);
  }

  private void crossings(double[] x, double[] y, ProfileWindow w) {
    double above = 0;
    double soakFrom = Double.NaN;
    double soakTo = Double.NaN;
    double start = Double.NaN;
    for (int i = 1; i < x.length; i++) {
      double up = y[i] - y[i - 1];
      double dt = x[i] - x[i - 1];
      above += dt * over(y[i - 1], y[i], w.above());
      if (x[i - 1] >= peakAt) {
        continue;
      }
      if (up > 0) {
        if (y[i - 1] <= 25 && y[i] > 25) {
          start = x[i - 1] + dt * (25 - y[i - 1]) / up;
        }
        if (Double.isNaN(soakFrom) && y[i - 1] <= w.soakFrom() && y[i] > w.soakFrom()) {
          soakFrom = x[i - 1] + dt * (w.soakFrom() - y[i - 1]) / up;
        }
        if (Double.isNaN(soakTo) && y[i - 1] <= w.soakTo() && y[i] > w.soakTo()) {
          soakTo = x[i - 1] + dt * (w.soakTo() - y[i - 1]) / up;
        }
      }
    }
    values.put(ProfileStatistic.TIME_ABOVE, above);
    if (Double.isNaN(soakFrom) && y[0] > w.soakFrom()) {
      soakFrom = x[0];
      remarks.add("the log begins within the soak");
    }
    if (!Double.isNaN(soakTo - soakFrom)) {
      values.put(ProfileStatistic.SOAK_TIME, soakTo - soakFrom);
    } else {
      remarks.add("the end of the soak was not reached");
    }
    if (Double.isNaN(start)) {
      start = x[0];
      remarks.add("the log begins above 25 °C: time to the peak is from its start");
    }
    values.put(ProfileStatistic.TIME_TO_PEAK, peakAt - start);
    if (y[y.length - 1] > w.above()) {
      remarks.add("the log ends above the liquidus");
    }
  }

  /// The part of a straight step that is above a line.
  private static double over(double a, double b, double line) {
    if (a >= line && b >= line) {
      return 1;
    }
    return a < line && b < line ? 0 : (Math.max(a, b) - line) / Math.abs(b - a);
  }

  private void gaps() {
    double step = (t[t.length - 1] - t[0]) / (t.length - 1);
    double longest = 0;
    for (int i = 1; i < t.length; i++) {
      longest = Math.max(longest, t[i] - t[i - 1]);
    }
    if (longest > Math.max(5 * step, 5)) {
      remarks.add(
          String.format(java.util.Locale.ROOT, "a gap of %.0f s is bridged straight", longest));
    }
  }

  /// Medians of short stretches.
  private final class Bins {
    private final double[] x;
    private final double[] y;

    Bins() {
      double width = span / BINS;
      double[] bx = new double[t.length];
      double[] by = new double[t.length];
      int n = 0;
      int i = 0;
      double[] few = new double[16];
      while (i < t.length) {
        int from = i;
        double end = t[from] + width;
        while (i < t.length && (i == from || t[i] < end - 1e-9)) {
          i++;
        }
        int k = i - from;
        if (k == 1) {
          bx[n] = t[from];
          by[n++] = c[from];
          continue;
        }
        few = few.length < k ? new double[2 * k] : few;
        double sum = 0;
        for (int m = 0; m < k; m++) {
          few[m] = c[from + m];
          sum += t[from + m];
        }
        Arrays.sort(few, 0, k);
        bx[n] = sum / k;
        by[n++] = (few[(k - 1) / 2] + few[k / 2]) / 2;
      }
      x = Arrays.copyOf(bx, n);
      y = Arrays.copyOf(by, n);
    }

    double[][] means() {
      // three medians in a row are averaged: crossings are then seldom doubled by noise
      double[] m = y.clone();
      for (int i = 1; i + 1 < y.length; i++) {
        m[i] = (y[i - 1] + y[i] + y[i + 1]) / 3;
      }
      return new double[][] {x, m};
    }

    /// Steepest slope between two times, per second, in the direction of `sign`; not below 0.
    double steepest(double from, double to, int sign) {
      int a = lower(from);
      int b = lower(to + 1e-9) - 1;
      if (b - a < 1) {
        return 0;
      }
      // a shorter stretch than the span is taken whole
      double reach = Math.min(span, x[b] - x[a]);
      int n = b - a + 1;
      double[] sx = new double[n + 1];
      double[] sy = new double[n + 1];
      double[] sxx = new double[n + 1];
      double[] sxy = new double[n + 1];
      for (int i = 0; i < n; i++) {
        double px = x[a + i] - x[a];
        double py = y[a + i];
        sx[i + 1] = sx[i] + px;
        sy[i + 1] = sy[i] + py;
        sxx[i + 1] = sxx[i] + px * px;
        sxy[i + 1] = sxy[i] + px * py;
      }
      double[] best = new double[CLOSELY];
      int[] bestAt = new int[CLOSELY];
      int[] bestTo = new int[CLOSELY];
      int found = 0;
      int end = 0;
      for (int i = 0; i < n; i++) {
        while (end + 1 < n && x[a + end] - x[a + i] < reach - 1e-9) {
          end++;
        }
        int k = end - i + 1;
        if (k < 2 || x[a + end] - x[a + i] < reach - 1e-6) {
          break;
        }
        double mx = sx[end + 1] - sx[i];
        double my = sy[end + 1] - sy[i];
        double den = k * (sxx[end + 1] - sxx[i]) - mx * mx;
        double slope = den <= 0 ? 0 : sign * (k * (sxy[end + 1] - sxy[i]) - mx * my) / den;
        if (found < CLOSELY) {
          best[found] = slope;
          bestAt[found] = i;
          bestTo[found++] = end;
        } else {
          int least = 0;
          for (int m = 1; m < CLOSELY; m++) {
            least = best[m] < best[least] ? m : least;
          }
          if (slope > best[least]) {
            best[least] = slope;
            bestAt[least] = i;
            bestTo[least] = end;
          }
        }
      }
      double most = 0;
      for (int m = 0; m < found; m++) {
        most = Math.max(most, sign * median(a + bestAt[m], a + bestTo[m]));
      }
      return most;
    }

    /// The median of the slopes of all pairs.
    private double median(int from, int to) {
      int k = to - from + 1;
      double[] all = new double[k * (k - 1) / 2];
      int n = 0;
      for (int i = from; i <= to; i++) {
        for (int m = i + 1; m <= to; m++) {
          all[n++] = (y[m] - y[i]) / (x[m] - x[i]);
        }
      }
      Arrays.sort(all);
      return n == 0 ? 0 : (all[(n - 1) / 2] + all[n / 2]) / 2;
    }

    private int lower(double at) {
      int i = Arrays.binarySearch(x, at);
      return i >= 0 ? i : -i - 1;
    }
  }
}
