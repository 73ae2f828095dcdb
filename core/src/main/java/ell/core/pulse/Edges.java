package ell.core.pulse;

import ell.core.series.Series;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.OptionalDouble;

/// The edges of a captured channel between two levels: a rising one begins below 10 %, ends above
/// 90 %, and what goes back before it got there is none.
///
/// @param risingAt when each rising edge passes the middle, s
/// @param fallingAt when each falling edge does
/// @param rises 10 to 90 % of each rising edge, s
/// @param falls 90 to 10 % of each falling edge, s
/// @param coarse whether there are so few samples between edges that a top may lie between two of
///   them: edges are counted from 30 to 70 % then, and their lengths are NaN
record Edges(
    double[] risingAt, double[] fallingAt, double[] rises, double[] falls, boolean coarse) {
  private static final double LOWER = 0.1;
  private static final double UPPER = 0.9;

  /// Samples from one passing of the middle to the next, below which edges are counted coarsely.
  private static final double FEW = 6;

  private static final int SOME = 6;
  private static final double COARSE = 0.3;

  static Edges of(Series s, double low, double high) {
    double middle = (low + high) / 2;
    boolean coarse = coarse(s, middle, low, high);
    double ten = low + (coarse ? COARSE : LOWER) * (high - low);
    double ninety = low + (coarse ? 1 - COARSE : UPPER) * (high - low);
    List<double[]> up = new ArrayList<>();
    List<double[]> down = new ArrayList<>();
    int[] at = {
      0, 0
    }; // -1 low, 1 high, 0 not known yet; the last sample at the level that was left
    s.each(
        1,
        (v, first, n) -> {
          int state = at[0];
          int left = at[1];
          for (int i = 0; i < n; i++) {
            if (v[i] <= ten) {
              if (state == 1) {
                down.add(edge(s, left, first + i, ninety, middle, ten));
              }
              state = -1;
              left = first + i;
            } else if (v[i] >= ninety) {
              if (state == -1) {
                up.add(edge(s, left, first + i, ten, middle, ninety));
              }
              state = 1;
              left = first + i;
            }
          }
          at[0] = state;
          at[1] = left;
        });
    double[] rises = column(up, 1);
    double[] falls = column(down, 1);
    if (coarse) {
      Arrays.fill(rises, Double.NaN);
      Arrays.fill(falls, Double.NaN);
    }
    return new Edges(column(up, 0), column(down, 0), rises, falls, coarse);
  }

  /// Whether hardly any sample lies on an edge or behind it: by how often the middle is passed. A
  /// logic capture, which has nothing between its levels, is not.
  private static boolean coarse(Series s, double middle, double low, double high) {
    double near = 0.05 * (high - low);
    int[] seen = new int[2]; // how often the middle was passed, samples between the levels
    double[] before = {s.value(0)};
    s.each(
        1,
        (v, _, n) -> {
          double a = before[0];
          int passed = 0;
          int between = 0;
          for (int i = 0; i < n; i++) {
            double b = v[i];
            passed += (a < middle) != (b < middle) ? 1 : 0;
            between += b > low + near && b < high - near ? 1 : 0;
            a = b;
          }
          before[0] = a;
          seen[0] += passed;
          seen[1] += between;
        });
    return seen[0] >= SOME && seen[1] > seen[0] / 2 && s.size() < FEW * seen[0];
  }

  /// When an edge passes the middle, and how long it is: its straight lines between samples.
  private static double[] edge(
      Series s, int from, int to, double first, double middle, double last) {
    double begins = pass(s, from, to, first);
    double ends = pass(s, from, to, last);
    return new double[] {pass(s, from, to, middle), ends - begins};
  }

  private static double pass(Series s, int from, int to, double level) {
    boolean rises = s.value(to) > s.value(from);
    for (int i = from + 1; i <= to; i++) {
      double a = s.value(i - 1);
      double b = s.value(i);
      if (rises ? b >= level && a <= level : b <= level && a >= level) {
        return a == b
            ? s.second(i)
            : s.second(i - 1) + (s.second(i) - s.second(i - 1)) * (level - a) / (b - a);
      }
    }
    return s.second(to);
  }

  private static double[] column(List<double[]> rows, int which) {
    return rows.stream().mapToDouble(r -> r[which]).toArray();
  }

  /// From each rising edge to the next.
  double[] periods() {
    double[] all = new double[Math.max(0, risingAt.length - 1)];
    Arrays.setAll(all, i -> risingAt[i + 1] - risingAt[i]);
    return all;
  }

  /// The period of the rising edges and how well it is known, two standard deviations; NaN with
  /// fewer than two. Of many edges it is the slope of a straight line through their times (least
  /// squares, any text on statistics); where they wander off it, that of the first and the last.
  ///
  /// @param each how well the time of one edge is known
  double[] clock(double each) {
    int n = risingAt.length;
    if (n < 2) {
      return new double[] {Double.NaN, Double.NaN};
    }
    double[] periods = periods();
    double raw = deviation(periods);
    double mean = mean(periods);
    double ends = 2 * Math.hypot(each * Math.sqrt(2), raw) / periods.length;
    if (n < FITTED) {
      return new double[] {mean, ends};
    }
    double middle = (n - 1) / 2.0;
    double sum = 0;
    double squares = 0;
    for (int i = 0; i < n; i++) {
      // against the mean first: differences of large numbers lose digits
      sum += (i - middle) * (risingAt[i] - risingAt[0] - i * mean);
      squares += (i - middle) * (i - middle);
    }
    double slope = sum / squares;
    double off = 0;
    double level = 0;
    for (int i = 0; i < n; i++) {
      level += (risingAt[i] - risingAt[0] - i * (mean + slope)) / n;
    }
    for (int i = 0; i < n; i++) {
      double d = risingAt[i] - risingAt[0] - i * (mean + slope) - level;
      off += d * d;
    }
    double spread = Math.sqrt(off / (n - 2));
    if (spread > WANDERS * Math.max(raw, each)) {
      return new double[] {mean, Math.max(ends, 2 * raw / Math.sqrt(periods.length))};
    }
    return new double[] {mean + slope, 2 * Math.max(spread, each) / Math.sqrt(squares)};
  }

  /// From so many edges on a line is laid through them.
  private static final int FITTED = 8;

  /// Edges of a steady clock lie no farther from the line than their periods differ.
  private static final double WANDERS = 2;

  /// The share above the middle, over whole periods; NaN without one.
  double duty() {
    double high = 0;
    int n = 0;
    int k = 0;
    for (int i = 0; i + 1 < risingAt.length; i++) {
      while (k < fallingAt.length && fallingAt[k] < risingAt[i]) {
        k++;
      }
      if (k < fallingAt.length && fallingAt[k] < risingAt[i + 1]) {
        high += (fallingAt[k] - risingAt[i]) / (risingAt[i + 1] - risingAt[i]);
        n++;
      }
    }
    return n == 0 ? Double.NaN : high / n;
  }

  /// The next edge after a time.
  OptionalDouble after(double seconds) {
    return Arrays.stream(fallingAt).filter(t -> t > seconds).findFirst();
  }

  static double mean(double[] x) {
    return x.length == 0 ? Double.NaN : Arrays.stream(x).average().orElse(Double.NaN);
  }

  static double deviation(double[] x) {
    if (x.length < 2) {
      return 0;
    }
    double m = mean(x);
    return Math.sqrt(Arrays.stream(x).map(v -> (v - m) * (v - m)).sum() / (x.length - 1));
  }

  /// How well one passing of a level is known: noise over the slope of the edge there, and what a
  /// straight line between two samples misses of its bend.
  double timeU(double noise, double step, double amplitude) {
    double[] all = rises.length > 0 ? rises : falls;
    if (all.length == 0) {
      return Double.NaN;
    }
    double length =
        coarse ? Math.max(step, (UPPER - LOWER) * mean(periods()) / 2) : Math.max(mean(all), step);
    double slope = (UPPER - LOWER) * amplitude / length;
    // a logic capture has edges of no length, and times that are exact but for its clock
    double bend = !coarse && mean(all) == 0 ? 0 : step * Math.min(0.5, step / length) / 4;
    return Math.hypot(noise / slope, bend);
  }

  /// Two standard deviations of the mean length of edges.
  double lengthU(double[] lengths, double each) {
    if (lengths.length == 0) {
      return Double.NaN;
    }
    double spread = Math.max(deviation(lengths), each * Math.sqrt(2));
    return 2 * spread / Math.sqrt(lengths.length) + each;
  }
}
