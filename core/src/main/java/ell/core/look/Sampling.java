package ell.core.look;

import ell.core.quantity.Check;
import org.hipparchus.distribution.discrete.HypergeometricDistribution;

/// How many of a lot to look at, and what a clean sample proves: without replacement, so exact for
/// small lots. Source: hypergeometric distribution, NIST/SEMATECH e-Handbook, 6.2 (acceptance
/// sampling).
public final class Sampling {
  private Sampling() {}

  /// The least sample that would catch at least one of too many bad ones.
  ///
  /// @param lot how many there are, 1...10 million
  /// @param rate bad ones that are put up with, 0 (none) to below 1
  /// @param confidence 0.5...0.9999
  /// @return so many must be looked at and be good, to say with this confidence that not more than
  ///   `rate` of the lot are bad
  /// @throws IllegalArgumentException when rate is not in 0...0.999999
  public static int size(int lot, double rate, double confidence) {
    check(lot, confidence);
    Check.inRange(rate, 0, 0.999999, "rate");
    int bad = (int) Math.floor(rate * lot + 1e-9) + 1;
    if (bad > lot) {
      return lot;
    }
    int lo = 1;
    int hi = lot;
    while (lo < hi) {
      int n = (lo + hi) / 2;
      if (clean(lot, bad, n) <= 1 - confidence) {
        hi = n;
      } else {
        lo = n + 1;
      }
    }
    return lo;
  }

  /// The most bad ones that a lot may hold when a sample was clean.
  ///
  /// @return with this confidence there are not more
  /// @throws IllegalArgumentException when sample is out of its range
  public static int proves(int lot, int sample, double confidence) {
    check(lot, confidence);
    Check.inRange(sample, 0, lot, "sample");
    int lo = 0;
    int hi = lot - sample;
    while (lo < hi) {
      int bad = (lo + hi + 1) / 2;
      if (clean(lot, bad, sample) > 1 - confidence) {
        lo = bad;
      } else {
        hi = bad - 1;
      }
    }
    return lo;
  }

  private static void check(int lot, double confidence) {
    Check.inRange(lot, 1, 1e7, "lot");
    Check.inRange(confidence, 0.5, 0.9999, "confidence");
  }

  private static double clean(int lot, int bad, int sample) {
    return new HypergeometricDistribution(lot, bad, sample).probability(0);
  }
}
