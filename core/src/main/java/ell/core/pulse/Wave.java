package ell.core.pulse;

import ell.core.series.Series;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/// What a captured channel measures: its two levels, its edges, its clock. Source: IEEE 181, state
/// levels by the modes of a histogram and reference levels of 10, 50 and 90 % (from memory).
///
/// Times in second, levels in volt, shares as 0...1. What a capture has too little of is NaN: a
/// period of one edge, edges of a direct voltage.
///
/// @param low lower state level
/// @param high upper state level, the same as `low` where there is one level only
/// @param overshoot share of the amplitude by which the greatest sample lies above `high`
/// @param undershoot share by which the least lies below `low`
/// @param rise mean of 10 to 90 % of rising edges
/// @param riseU how well it is known, two standard deviations
/// @param fall mean of 90 to 10 % of falling edges
/// @param fallU likewise
/// @param period mean from rising to rising edge
/// @param periodU likewise
/// @param duty share of the period above the middle
/// @param jitter standard deviation of single periods, less what noise alone would make
/// @param rising rising edges
/// @param falling falling edges
/// @param noise standard deviation of samples that lie at a level
/// @param rms of all samples
/// @param mean of all samples
/// @param ring what rings behind the edges, where something does
public record Wave(
    String name,
    double low,
    double high,
    double overshoot,
    double undershoot,
    double rise,
    double riseU,
    double fall,
    double fallU,
    double period,
    double periodU,
    double duty,
    double jitter,
    int rising,
    int falling,
    double noise,
    double rms,
    double mean,
    Optional<Ring> ring) {
  private static final int BINS = 400;

  /// Half of normal deviates lie within so many standard deviations.
  private static final double MIDDLE = 0.6745;

  /// Levels nearer than so many deviations of the noise are one.
  private static final double APART = 6;

  /// Of what lies between least and greatest sample: the two halves of mere noise are nearer.
  private static final double LEAST_SHARE = 0.25;

  /// What rings behind an edge.
  ///
  /// @param frequency Hz
  /// @param decay each swing is smaller by exp(-decay) a second
  public record Ring(double frequency, double decay) {}

  /// High less low.
  public double amplitude() {
    return high - low;
  }

  /// Edges both ways.
  public int edges() {
    return rising + falling;
  }

  /// Of the period.
  public double frequency() {
    return 1 / period;
  }

  /// Measures a channel.
  ///
  /// @param s volts over time, two samples or more
  /// @throws IllegalArgumentException when there are fewer
  public static Wave of(Series s) {
    int n = s.size();
    if (n < 2) {
      throw new IllegalArgumentException("a capture has two samples or more, got " + n);
    }
    Sums sums = new Sums(s);
    s.each(1, sums);
    double least = sums.least;
    double most = sums.most;
    double[] levels = levels(s, least, most);
    double noise = noise(s, levels);
    double mean = s.duration() > 0 ? sums.sum / s.duration() : s.value(0);
    double rms = s.duration() > 0 ? Math.sqrt(sums.squares / s.duration()) : Math.abs(s.value(0));
    double apart = levels[1] - levels[0];
    if (!(apart > APART * noise && apart > LEAST_SHARE * (most - least))) {
      return flat(s.name(), mean, steady(s), rms);
    }
    Edges e = Edges.of(s, levels[0], levels[1]);
    double amplitude = levels[1] - levels[0];
    double step = s.duration() / (n - 1);
    double[] periods = e.periods();
    double edgeU = e.timeU(noise, step, amplitude);
    double[] period = e.clock(edgeU);
    double raw = Edges.deviation(periods);
    return new Wave(
        s.name(),
        levels[0],
        levels[1],
        Math.max(0, (most - levels[1]) / amplitude),
        Math.max(0, (levels[0] - least) / amplitude),
        Edges.mean(e.rises()),
        e.lengthU(e.rises(), edgeU),
        Edges.mean(e.falls()),
        e.lengthU(e.falls(), edgeU),
        period[0],
        period[1],
        e.duty(),
        periods.length < 2 ? Double.NaN : Math.sqrt(Math.max(0, raw * raw - 2 * edgeU * edgeU)),
        e.rises().length,
        e.falls().length,
        noise,
        rms,
        mean,
        ring(s, e, levels, noise));
  }

  /// Extremes and sums over time; samples need not be evenly apart: straight lines between them.
  private static final class Sums implements Series.Stretch {
    private final Series s;
    private final double step;
    private double least = Double.POSITIVE_INFINITY;
    private double most = Double.NEGATIVE_INFINITY;
    private double sum;
    private double squares;
    private double before;

    Sums(Series s) {
      this.s = s;
      this.step = s.even() ? s.step() : 0;
    }

    @Override
    public void take(double[] v, int first, int n) {
      double a = before;
      double low = least;
      double high = most;
      double one = 0;
      double two = 0;
      for (int i = 0; i < n; i++) {
        double b = v[i];
        low = Math.min(low, b);
        high = Math.max(high, b);
        if (first + i > 0) {
          double dt = step > 0 ? step : s.second(first + i) - s.second(first + i - 1);
          one += dt * (a + b);
          two += dt * (a * a + a * b + b * b);
        }
        a = b;
      }
      before = a;
      least = low;
      most = high;
      sum += one / 2;
      squares += two / 3;
    }
  }

  /// So many samples are looked at for the noise: it is the same everywhere.
  private static final int ENOUGH = 1 << 18;

  private static int some(Series s) {
    return Math.max(1, s.size() / ENOUGH);
  }

  private static Wave flat(String name, double mean, double noise, double rms) {
    double none = Double.NaN;
    return new Wave(
        name,
        mean,
        mean,
        0,
        0,
        none,
        none,
        none,
        none,
        none,
        none,
        none,
        none,
        0,
        0,
        noise,
        rms,
        mean,
        Optional.empty());
  }

  /// What a direct voltage jitters: differences of neighbours.
  private static double steady(Series s) {
    double[] sum = new double[2];
    s.each(
        some(s),
        (v, _, n) -> {
          for (int i = 1; i < n; i++) {
            double d = v[i] - v[i - 1];
            sum[0] += d * d;
          }
          sum[1] += n - 1;
        });
    return sum[1] > 0 ? Math.sqrt(sum[0] / (2 * sum[1])) : 0;
  }

  /// The modes of the lower and of the upper half.
  private static double[] levels(Series s, double least, double most) {
    if (!(most > least)) {
      return new double[] {least, least};
    }
    int[] count = new int[BINS];
    double[] sum = new double[BINS];
    double scale = BINS / (most - least);
    s.each(
        1,
        (v, _, n) -> {
          for (int i = 0; i < n; i++) {
            int bin = Math.min(BINS - 1, (int) ((v[i] - least) * scale));
            count[bin]++;
            sum[bin] += v[i];
          }
        });
    return new double[] {mode(count, sum, 0, BINS / 2), mode(count, sum, BINS / 2, BINS)};
  }

  /// The mean of the samples around the fullest bin.
  private static double mode(int[] count, double[] sum, int from, int to) {
    int best = from;
    int most = -1;
    for (int i = from; i < to; i++) {
      int near = 0;
      for (int k = Math.max(from, i - 2); k <= Math.min(to - 1, i + 2); k++) {
        near += count[k];
      }
      if (near > most) {
        most = near;
        best = i;
      }
    }
    int n = 0;
    double v = 0;
    for (int k = Math.max(from, best - 4); k <= Math.min(to - 1, best + 4); k++) {
      n += count[k];
      v += sum[k];
    }
    return v / n;
  }

  /// From the differences of neighbours that both lie at a level, the middle one of them: what
  /// wanders slowly is no noise, and the ends of edges are few.
  private static double noise(Series s, double[] levels) {
    double near = 0.1 * (levels[1] - levels[0]);
    int every = some(s);
    double[] apart = new double[s.size() / every + 2 * Series.STRETCH];
    int[] found = {0};
    s.each(
        every,
        (v, _, size) -> {
          for (int i = 1; i < size; i++) {
            double a = v[i - 1];
            double b = v[i];
            boolean low = Math.abs(a - levels[0]) <= near && Math.abs(b - levels[0]) <= near;
            boolean high = Math.abs(a - levels[1]) <= near && Math.abs(b - levels[1]) <= near;
            if (low || high) {
              apart[found[0]++] = Math.abs(b - a);
            }
          }
        });
    int n = found[0];
    if (n == 0) {
      return 0;
    }
    Arrays.sort(apart, 0, n);
    return apart[n / 2] / (MIDDLE * Math.sqrt(2));
  }

  /// The swings behind the first rising edge, as long as they stand out of the noise.
  private static Optional<Ring> ring(Series s, Edges e, double[] levels, double noise) {
    if (e.risingAt().length == 0) {
      return Optional.empty();
    }
    double from = e.risingAt()[0] + e.rises()[0] / 2;
    double to = e.after(from).orElse(s.second(s.size() - 1));
    double floor = Math.max(4 * noise, 0.01 * (levels[1] - levels[0]));
    List<double[]> peaks = new ArrayList<>();
    double best = 0;
    double at = 0;
    for (int i = s.firstFrom(from); i < s.size() && s.second(i) < to; i++) {
      double d = s.value(i) - levels[1];
      if (best != 0 && Math.signum(d) != Math.signum(best) && Math.abs(d) > floor / 4) {
        if (Math.abs(best) > floor) {
          peaks.add(new double[] {at, best});
        }
        best = 0;
      }
      if (Math.abs(d) > Math.abs(best)) {
        best = d;
        at = s.second(i);
      }
    }
    if (peaks.size() < 3) {
      return Optional.empty();
    }
    int last = peaks.size() - 1;
    double time = peaks.get(last)[0] - peaks.getFirst()[0];
    double decay = Math.log(Math.abs(peaks.getFirst()[1] / peaks.get(last)[1])) / time;
    return decay > 0 ? Optional.of(new Ring(last / (2 * time), decay)) : Optional.empty();
  }
}
