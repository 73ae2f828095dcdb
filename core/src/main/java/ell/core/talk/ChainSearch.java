package ell.core.talk;

import ell.core.quantity.Check;

/// Where to look next along a way that is broken somewhere: each look tells on which side of it the
/// break is, and costs something of its own. The least expected cost, exactly, by building up the
/// best tree for every stretch.
final class ChainSearch {
  /// Stretches up to which the exact tree is built; beyond, the look that halves the chance best
  /// for its cost.
  static final int EXACT = 1000;

  private ChainSearch() {}

  /// Where to look, and what the whole search is expected to cost.
  ///
  /// @param look between stretches `look` and `look + 1`, counted from 0; -1 when nothing is left
  ///   to be told apart
  /// @param before the chance that the break is before it
  /// @param expected cost of the whole search
  record Next(int look, double before, double expected) {}

  /// @param chance of each stretch, not below 0; their sum above 0
  /// @param cost of the look behind each stretch but the last, above 0
  static Next of(double[] chance, double[] cost) {
    int n = chance.length;
    if (cost.length != n - 1) {
      throw new IllegalArgumentException("there is one look fewer than stretches");
    }
    double sum = 0;
    for (double p : chance) {
      sum += Check.notNegative(p, "chance");
    }
    for (double c : cost) {
      Check.positive(c, "cost");
    }
    double[] upTo = new double[n + 1];
    int live = 0;
    for (int i = 0; i < n; i++) {
      upTo[i + 1] = upTo[i] + chance[i] / sum;
      live += chance[i] > 0 ? 1 : 0;
    }
    if (live < 2) {
      return new Next(-1, 1, 0);
    }
    return n <= EXACT ? exact(upTo, cost) : halving(upTo, cost);
  }

  private static Next exact(double[] upTo, double[] cost) {
    int n = upTo.length - 1;
    double[][] least = new double[n][n];
    int look = -1;
    for (int wide = 1; wide < n; wide++) {
      for (int i = 0; i + wide < n; i++) {
        int j = i + wide;
        double p = upTo[j + 1] - upTo[i];
        double best = Double.POSITIVE_INFINITY;
        int at = -1;
        for (int k = i; k < j; k++) {
          double left = upTo[k + 1] - upTo[i];
          // a look of which the answer is known tells nothing
          double c =
              left <= 0
                  ? least[k + 1][j]
                  : left >= p ? least[i][k] : cost[k] * p + least[i][k] + least[k + 1][j];
          if (c < best) {
            best = c;
            at = k;
          }
        }
        least[i][j] = best;
        if (wide == n - 1) {
          look = at;
        }
      }
    }
    // the look at the root may be one that tells nothing: go on to the one that does
    int i = 0;
    int j = n - 1;
    while (true) {
      double left = upTo[look + 1] - upTo[i];
      if (left > 0 && left < upTo[j + 1] - upTo[i]) {
        return new Next(look, left / (upTo[j + 1] - upTo[i]), least[0][n - 1]);
      }
      if (left <= 0) {
        i = look + 1;
      } else {
        j = look;
      }
      look = best(i, j, upTo, cost, least);
    }
  }

  private static int best(int i, int j, double[] upTo, double[] cost, double[][] least) {
    double p = upTo[j + 1] - upTo[i];
    double best = Double.POSITIVE_INFINITY;
    int at = i;
    for (int k = i; k < j; k++) {
      double left = upTo[k + 1] - upTo[i];
      double c =
          left <= 0
              ? least[k + 1][j]
              : left >= p ? least[i][k] : cost[k] * p + least[i][k] + least[k + 1][j];
      if (c < best) {
        best = c;
        at = k;
      }
    }
    return at;
  }

  private static Next halving(double[] upTo, double[] cost) {
    int n = upTo.length - 1;
    int at = -1;
    double best = 0;
    for (int k = 0; k < n - 1; k++) {
      double p = upTo[k + 1];
      double bits = p <= 0 || p >= 1 ? 0 : -(p * Math.log(p) + (1 - p) * Math.log(1 - p));
      if (bits / cost[k] > best) {
        best = bits / cost[k];
        at = k;
      }
    }
    return new Next(at, upTo[at + 1], Double.NaN);
  }
}
