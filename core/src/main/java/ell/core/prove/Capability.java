package ell.core.prove;

import ell.core.quantity.Check;
import ell.core.quantity.Limits;
import java.util.Optional;
import org.hipparchus.distribution.continuous.ChiSquaredDistribution;
import org.hipparchus.distribution.continuous.NormalDistribution;

/// How well a process keeps within limits. Source: NIST/SEMATECH e-Handbook of Statistical Methods,
/// 6.1.6.
///
/// @param cp spread of the limits over six sigma; empty with one limit only
/// @param cpLow its interval by the chi-squared distribution of the variance; empty with `cp`
/// @param cpHigh likewise
/// @param cpk distance of the mean from the nearer limit over three sigma
/// @param cpkLow its interval by the normal approximation, Zhang, Stenback and Wardrop 1990
/// @param cpkHigh likewise
public record Capability(
    Optional<Double> cp,
    Optional<Double> cpLow,
    Optional<Double> cpHigh,
    double cpk,
    Optional<Double> cpkLow,
    Optional<Double> cpkHigh) {
  /// The capability of values whose mean and standard deviation are known.
  ///
  /// @param sd above 0
  /// @param n how many values, 0 where mean and sd are not estimated: there is no interval then
  /// @param confidence of the intervals, above 0 and below 1
  /// @throws IllegalArgumentException when the limits are none, or a value is out of its range
  public static Capability of(double mean, double sd, long n, Limits limits, double confidence) {
    Check.finite(mean, "mean");
    Check.finite(sd, "sd");
    if (!(sd > 0)) {
      throw new IllegalArgumentException("sd must be above 0, got " + sd);
    }
    if (Double.isInfinite(limits.low()) && Double.isInfinite(limits.high())) {
      throw new IllegalArgumentException("a capability needs a low or a high limit");
    }
    boolean both = Double.isFinite(limits.low()) && Double.isFinite(limits.high());
    Optional<Double> cp =
        both ? Optional.of((limits.high() - limits.low()) / (6 * sd)) : Optional.empty();
    double cpk = Math.min(limits.high() - mean, mean - limits.low()) / (3 * sd);
    if (n < 2) {
      return new Capability(
          cp, Optional.empty(), Optional.empty(), cpk, Optional.empty(), Optional.empty());
    }
    ChiSquaredDistribution chi = new ChiSquaredDistribution(n - 1.0);
    double tail = (1 - confidence) / 2;
    double z = new NormalDistribution().inverseCumulativeProbability(1 - tail);
    double half = z * Math.sqrt(1 / (9.0 * n) + cpk * cpk / (2 * (n - 1.0)));
    return new Capability(
        cp,
        cp.map(c -> c * Math.sqrt(chi.inverseCumulativeProbability(tail) / (n - 1))),
        cp.map(c -> c * Math.sqrt(chi.inverseCumulativeProbability(1 - tail) / (n - 1))),
        cpk,
        Optional.of(cpk - half),
        Optional.of(cpk + half));
  }
}
