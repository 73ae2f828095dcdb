package ell.core.circuit;

import ell.core.quantity.Check;

/// What a regulator does.
///
/// @param volts output
/// @param dropout least difference of input and output, V
/// @param limit greatest output current, A
/// @param quiescent own current, A
/// @param efficiency 0...1 for a switching one, 0 for a linear one
/// @param starts input from which a switching one runs, V; one that starts below its output lifts
/// @param foldback share of its limit that is left into a short, above 0 up to 1
/// @param softStart seconds in which its output rises to 95 %; 0 for at once
public record Regulator(
    double volts,
    double dropout,
    double limit,
    double quiescent,
    double efficiency,
    double starts,
    double foldback,
    double softStart) {
  /// One that gives less than it takes and runs once it can hold its output.
  public Regulator(
      double volts, double dropout, double limit, double quiescent, double efficiency) {
    this(volts, dropout, limit, quiescent, efficiency, volts + dropout, 1, 0);
  }

  /// @throws IllegalArgumentException when a value is out of its range
  public Regulator {
    Check.notNegative(volts, "volts");
    Check.notNegative(dropout, "dropout");
    Check.positive(limit, "limit");
    Check.notNegative(quiescent, "quiescent");
    Check.inRange(efficiency, 0, 1, "efficiency");
    Check.notNegative(starts, "starts");
    Check.inRange(foldback, 0, 1, "foldback");
    Check.notNegative(softStart, "softStart");
  }

  /// The same, starting at another input.
  public Regulator starting(double at) {
    return new Regulator(volts, dropout, limit, quiescent, efficiency, at, foldback, softStart);
  }

  /// The same with less current into a short.
  public Regulator folding(double share) {
    return new Regulator(volts, dropout, limit, quiescent, efficiency, starts, share, softStart);
  }

  /// The same with an output that takes its time.
  public Regulator rising(double seconds) {
    return new Regulator(volts, dropout, limit, quiescent, efficiency, starts, foldback, seconds);
  }
}
