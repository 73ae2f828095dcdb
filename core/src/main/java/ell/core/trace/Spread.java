package ell.core.trace;

import ell.core.statistic.Normal;

/// A number that is expected, and how sure that is: a normal distribution, or two halves of which
/// the upper is wider.
///
/// @param mean expected, the likeliest
/// @param sd standard deviation below it, above 0
/// @param up standard deviation above it, above 0
/// @param loose chance that it is anything at all, above 0 and up to 1
record Spread(double mean, double sd, double up, double loose) {
  private static final double ROOT = Math.sqrt(2 * Math.PI);

  /// What is as loose as this is not known, and no slip.
  private static final double SLIPS = 0.1;

  /// The same to both sides.
  Spread(double mean, double sd, double loose) {
    this(mean, sd, sd, loose);
  }

  /// Anything at all.
  static final Spread ANY = new Spread(0, 1, 1);

  /// The same after it came out alike some times: a slip seldom happens twice.
  Spread again(int times) {
    return times < 2 || loose >= SLIPS
        ? this
        : new Spread(mean, sd, up, Math.max(1e-9, Math.pow(loose, Math.min(times, 4))));
  }

  double density(double y, double range) {
    double z = (y - mean) / (y < mean ? sd : up);
    return (1 - loose) * Math.exp(-z * z / 2) * 2 / ((sd + up) * ROOT) + loose / range;
  }

  /// The chance, 0...1, that what was shown is a slip.
  ///
  /// @param whole how likely it is with slips, above 0
  /// @param even how likely a slip shows it
  double slipped(double whole, double even) {
    return loose >= SLIPS ? 0 : Math.min(1, loose * even / whole);
  }

  double best(double range) {
    return (1 - loose) * 2 / ((sd + up) * ROOT) + loose / range;
  }

  /// The share between two bounds.
  double between(double low, double high, double from, double to) {
    double r = to - from;
    double even = Math.max(0, Math.min(high, to) - Math.max(low, from)) / r;
    if (loose >= 1) {
      return even;
    }
    double a = low <= from ? 0 : below(low);
    double b = high >= to ? 1 : below(high);
    return (1 - loose) * (b - a) + loose * even;
  }

  /// The shares between each two of some bounds, the first and the last of which are the ends of
  /// the scale.
  double[] between(double[] bounds) {
    int n = bounds.length - 1;
    double range = bounds[n] - bounds[0];
    double[] share = new double[n];
    double under = 0;
    for (int b = 0; b < n; b++) {
      double upTo = loose >= 1 || b == n - 1 ? 1 : below(bounds[b + 1]);
      double own = loose >= 1 ? 0 : (1 - loose) * (upTo - under);
      share[b] = own + loose * (bounds[b + 1] - bounds[b]) / range;
      under = upTo;
    }
    return share;
  }

  private double below(double y) {
    double under = sd / (sd + up);
    return y < mean
        ? 2 * under * Normal.below((y - mean) / sd)
        : under + (1 - under) * (2 * Normal.below((y - mean) / up) - 1);
  }
}
