package ell.core.prove;

import ell.core.quantity.Check;

/// Wald's sequential test of a failure rate: board after board, until it is accepted or rejected.
/// Source: A. Wald, Sequential Analysis, 1947; NIST/SEMATECH e-Handbook, 6.2.3.
///
/// @param good rate of failure that is to be accepted
/// @param bad rate that is to be rejected, above `good`
/// @param alpha chance to reject a good lot
/// @param beta chance to accept a bad lot
public record Sequential(double good, double bad, double alpha, double beta) {
  /// What is to be done.
  public enum Decision {
    /// It is as good as was asked.
    ACCEPT,
    /// It is as bad as was feared.
    REJECT,
    /// Another board.
    GO_ON
  }

  /// @throws IllegalArgumentException when a value is out of its range
  public Sequential {
    Check.inRange(good, 1e-12, 1 - 1e-12, "good");
    Check.inRange(bad, 1e-12, 1 - 1e-12, "bad");
    Check.inRange(alpha, 1e-12, 0.5, "alpha");
    Check.inRange(beta, 1e-12, 0.5, "beta");
    if (!(good < bad)) {
      throw new IllegalArgumentException("good must be below bad, got " + good + " and " + bad);
    }
  }

  private double weight() {
    return Math.log(bad / good) + Math.log((1 - good) / (1 - bad));
  }

  /// Where the line of acceptance begins, below 0: accept at failures ≤ h + slope · n.
  public double acceptAt() {
    return -Math.log((1 - alpha) / beta) / weight();
  }

  /// Where the line of rejection begins: reject at failures ≥ h + slope · n.
  public double rejectAt() {
    return Math.log((1 - beta) / alpha) / weight();
  }

  /// Failures a trial by which both lines rise.
  public double slope() {
    return Math.log((1 - good) / (1 - bad)) / weight();
  }

  /// What is to be done after so many trials.
  ///
  /// @param failures 0...trials
  /// @throws IllegalArgumentException when there are more failures than trials
  public Decision decide(long failures, long trials) {
    if (failures < 0 || failures > trials) {
      throw new IllegalArgumentException(
          "failures must be in 0...trials, got " + failures + " of " + trials);
    }
    if (failures <= acceptAt() + slope() * trials + 1e-12) {
      return trials == 0 ? Decision.GO_ON : Decision.ACCEPT;
    }
    return failures >= rejectAt() + slope() * trials - 1e-12 ? Decision.REJECT : Decision.GO_ON;
  }

  /// The fewest trials after which it may be accepted: none of them failed.
  public long fewest() {
    return (long) Math.ceil(-acceptAt() / slope() - 1e-9);
  }

  /// Trials that it takes on average where the rate is the good one, by Wald's formula, which
  /// leaves out what the last trial carries beyond a line.
  public double averageIfGood() {
    double up = Math.log((1 - beta) / alpha);
    double down = Math.log(beta / (1 - alpha));
    return ((1 - alpha) * down + alpha * up) / drift(good);
  }

  /// Likewise where it is the bad one.
  public double averageIfBad() {
    double up = Math.log((1 - beta) / alpha);
    double down = Math.log(beta / (1 - alpha));
    return (beta * down + (1 - beta) * up) / drift(bad);
  }

  /// What a trial adds to the logarithm of the likelihood ratio on average.
  private double drift(double p) {
    return p * Math.log(bad / good) + (1 - p) * Math.log((1 - bad) / (1 - good));
  }
}
