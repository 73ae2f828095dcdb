package ell.core.statistic;

import org.hipparchus.special.Erf;

/// The standard normal distribution.
public final class Normal {
  /// Further out less than 1e-15 is left.
  private static final double FAR = 8;

  private Normal() {}

  /// The share below so many standard deviations from the mean, 0...1.
  public static double below(double z) {
    return z >= FAR ? 1 : z <= -FAR ? 0 : 0.5 * Erf.erfc(-z / Math.sqrt(2));
  }
}
