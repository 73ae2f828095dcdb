package ell.core.statistic;

import ell.core.quantity.Check;
import org.hipparchus.distribution.continuous.BetaDistribution;
import org.hipparchus.distribution.continuous.NormalDistribution;

/// What a count of failures says about the rate behind it.
public final class Counts {
  private Counts() {}

  /// A two-sided interval for a rate, both ends in 0...1.
  public record Interval(double low, double high) {}

  /// Wilson's score interval. Source: NIST/SEMATECH e-Handbook, 7.2.4.1; Wilson 1927.
  ///
  /// @param failures 0...trials
  /// @param trials at least 1
  /// @param confidence above 0, below 1, two-sided
  public static Interval wilson(long failures, long trials, double confidence) {
    check(failures, trials, confidence);
    double z = new NormalDistribution().inverseCumulativeProbability(1 - (1 - confidence) / 2);
    double n = trials;
    double p = failures / n;
    double centre = (p + z * z / (2 * n)) / (1 + z * z / n);
    double half = z / (1 + z * z / n) * Math.sqrt(p * (1 - p) / n + z * z / (4 * n * n));
    return new Interval(
        failures == 0 ? 0 : Math.max(0, centre - half),
        failures == trials ? 1 : Math.min(1, centre + half));
  }

  /// The exact interval of Clopper and Pearson, by quantiles of the beta distribution. Source:
  /// NIST/SEMATECH e-Handbook, 7.2.4.1; Brown, Cai, DasGupta, Statistical Science 16 (2001).
  public static Interval exact(long failures, long trials, double confidence) {
    check(failures, trials, confidence);
    double tail = (1 - confidence) / 2;
    double low =
        failures == 0
            ? 0
            : new BetaDistribution(failures, trials - failures + 1.0)
                .inverseCumulativeProbability(tail);
    double high =
        failures == trials
            ? 1
            : new BetaDistribution(failures + 1.0, trials - failures)
                .inverseCumulativeProbability(1 - tail);
    return new Interval(low, high);
  }

  /// Clean trials in a row that are needed to believe that a fault is gone: the least n with 1 − (1
  /// − p)^n ≥ C, that is n = ln(1 − C) / ln(1 − p) rounded up.
  ///
  /// @param failureRate the old rate p, above 0, up to 1
  /// @param confidence C, above 0, below 1
  /// @throws IllegalArgumentException when failureRate is out of its range
  public static long cleanTrials(double failureRate, double confidence) {
    Check.inRange(failureRate, Double.MIN_VALUE, 1, "failureRate");
    checkConfidence(confidence);
    if (failureRate == 1) {
      return 1;
    }
    double n = Math.log1p(-confidence) / Math.log1p(-failureRate);
    return Math.max(1, (long) Math.ceil(n - 1e-9));
  }

  private static void check(long failures, long trials, double confidence) {
    if (trials < 1 || failures < 0 || failures > trials) {
      throw new IllegalArgumentException(
          "failures must be in 0...trials with trials at least 1, got failures "
              + failures
              + " and trials "
              + trials);
    }
    checkConfidence(confidence);
  }

  private static void checkConfidence(double confidence) {
    if (!(confidence > 0 && confidence < 1)) {
      throw new IllegalArgumentException(
          "confidence must be above 0 and below 1, got " + confidence);
    }
  }
}
