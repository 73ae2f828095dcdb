package ell.core.statistic;

import java.util.Arrays;

/// Which values stand apart from the others though they may be within their limits.
public final class Apart {
  /// So many spreads from the others a value stands apart. Source: Iglewicz and Hoaglin 1993, as in
  /// the NIST/SEMATECH e-Handbook, 1.3.5.17: modified z-score above 3.5, 0.6745 of the distance
  /// over the median distance.
  private static final double APART = 3.5 / 0.6745;

  /// Fewer values have no middle to stand apart from.
  private static final int FEWEST = 4;

  private Apart() {}

  /// Marks those that do.
  ///
  /// @param uncertainty of each: nearer than it nothing stands apart
  public static boolean[] of(double[] values, double[] uncertainty) {
    boolean[] all = new boolean[values.length];
    if (values.length < FEWEST) {
      return all;
    }
    double middle = median(values);
    double spread = median(Arrays.stream(values).map(v -> Math.abs(v - middle)).toArray());
    for (int i = 0; i < values.length; i++) {
      double d = Math.abs(values[i] - middle);
      // differences of a rounding are none, where all others are alike
      all[i] = d > APART * spread && d > uncertainty[i] && d > 1e-9 * Math.abs(middle);
    }
    return all;
  }

  /// The value in the middle; NaN of none.
  public static double median(double[] of) {
    if (of.length == 0) {
      return Double.NaN;
    }
    double[] sorted = of.clone();
    Arrays.sort(sorted);
    int n = sorted.length;
    return n % 2 == 1 ? sorted[n / 2] : (sorted[n / 2 - 1] + sorted[n / 2]) / 2;
  }
}
