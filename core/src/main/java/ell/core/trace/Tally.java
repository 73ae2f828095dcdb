package ell.core.trace;

import java.util.HashMap;
import java.util.Map;

/// What a bench has counted: how often something went wrong, of how many chances. A first guess is
/// mixed in as if it had been seen on [#WEIGHT] chances: the mean of a beta distribution,
/// `(guess·weight + bad) / (weight + of)`.
public final class Tally {
  /// Chances that a first guess weighs.
  public static final double WEIGHT = 2000;

  private final Map<String, long[]> counts = new HashMap<>();

  /// Adds to a count.
  ///
  /// @param what such as `missing` or `wrong`
  public Tally add(String what, long bad, long of) {
    long[] c = counts.computeIfAbsent(what, _ -> new long[2]);
    c[0] += bad;
    c[1] += of;
    return this;
  }

  /// How often it went wrong, and of how many chances.
  public long[] of(String what) {
    return counts.getOrDefault(what, new long[2]).clone();
  }

  /// The rate after what was counted.
  ///
  /// @param guess before, 0...1
  public double rate(String what, double guess) {
    long[] c = of(what);
    return (guess * WEIGHT + c[0]) / (WEIGHT + c[1]);
  }
}
