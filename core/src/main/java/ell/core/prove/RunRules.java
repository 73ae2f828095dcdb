package ell.core.prove;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/// Whether values drift from board to board: the chart of single values with the spread taken from
/// neighbours, and the rules of runs. Source: NIST/SEMATECH e-Handbook, 6.3.2.2 (individuals, sigma
/// by the mean moving range over 1.128) and 6.3.2 (rules of the Western Electric handbook, 1956).
///
/// @param mean the centre line
/// @param sigma by the moving range; 0 when nothing moves
/// @param signals what the rules found, in the order of the boards
public record RunRules(double mean, double sigma, List<Signal> signals) {
  /// d2 of two values.
  private static final double D2 = 1.128;

  /// Fewer values have no chart.
  public static final int FEWEST = 8;

  /// What a rule found.
  ///
  /// @param at index of the value with which it was complete
  /// @param rule in words
  public record Signal(int at, String rule) {}

  public RunRules {
    signals = List.copyOf(signals);
  }

  /// The chart of some values in their order.
  ///
  /// @param values at least 2
  /// @throws IllegalArgumentException when there are fewer
  public static RunRules of(double[] values) {
    if (values.length < 2) {
      throw new IllegalArgumentException("a chart has 2 values or more, got " + values.length);
    }
    double mean = Arrays.stream(values).average().orElse(0);
    double range = 0;
    for (int i = 1; i < values.length; i++) {
      range += Math.abs(values[i] - values[i - 1]);
    }
    double sigma = range / (values.length - 1) / D2;
    List<Signal> all = new ArrayList<>();
    if (values.length >= FEWEST && sigma > 0) {
      for (int i = 0; i < values.length; i++) {
        if (Math.abs(values[i] - mean) > 3 * sigma) {
          all.add(new Signal(i, "beyond 3 sigma"));
        } else if (beyond(values, i, mean, 2 * sigma, 3) >= 2) {
          all.add(new Signal(i, "2 of 3 beyond 2 sigma on one side"));
        } else if (beyond(values, i, mean, sigma, 5) >= 4) {
          all.add(new Signal(i, "4 of 5 beyond 1 sigma on one side"));
        } else if (beyond(values, i, mean, 0, 8) >= 8) {
          all.add(new Signal(i, "8 in a row on one side"));
        }
      }
    }
    return new RunRules(mean, sigma, all);
  }

  /// How many of the last few lie beyond a distance on the side of the last one, which is one of
  /// them.
  private static int beyond(double[] v, int at, double mean, double by, int of) {
    if (at + 1 < of) {
      return 0;
    }
    double side = Math.signum(v[at] - mean);
    if ((v[at] - mean) * side <= by) {
      return 0;
    }
    int n = 0;
    for (int i = at - of + 1; i <= at; i++) {
      n += (v[i] - mean) * side > by ? 1 : 0;
    }
    return n;
  }
}
