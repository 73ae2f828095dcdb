package ell.core.look;

import ell.core.quantity.Check;
import org.hipparchus.distribution.discrete.HypergeometricDistribution;

/// Whether two shares differ, exactly. Source: Fisher's exact test, NIST/SEMATECH e-Handbook of
/// Statistical Methods, 7.3.3 (comparing two proportions, small samples).
public final class ExactTest {
  private ExactTest() {}

  /// The chance of a split at least as unlikely as this one, if both had the same share.
  ///
  /// @param badA of `allA`
  /// @param badB of `allB`
  /// @return 0...1
  /// @throws IllegalArgumentException when badA is out of its range or badB is out of its range
  public static double twoSided(int badA, int allA, int badB, int allB) {
    Check.inRange(badA, 0, allA, "badA");
    Check.inRange(badB, 0, allB, "badB");
    int all = allA + allB;
    int bad = badA + badB;
    if (allA == 0 || allB == 0 || bad == 0 || bad == all) {
      return 1;
    }
    HypergeometricDistribution h = new HypergeometricDistribution(all, bad, allA);
    double seen = h.probability(badA) * (1 + 1e-7);
    double sum = 0;
    for (int k = h.getSupportLowerBound(); k <= h.getSupportUpperBound(); k++) {
      double p = h.probability(k);
      sum += p <= seen ? p : 0;
    }
    return Math.min(1, sum);
  }
}
