package ell.core.prove;

import java.util.Arrays;

/// How much of the spread of readings is the meter and who holds it: a crossed study, every board
/// read by everybody as often, taken apart by the analysis of variance with random effects. Source:
/// NIST/SEMATECH e-Handbook, 3.2.3 (two-way nested and crossed), 2.4; Montgomery and Runger 1993,
/// from memory. A variance that comes out below zero is none.
///
/// @param repeatability standard deviation of the same board read by the same person
/// @param reproducibility standard deviation between persons, and of persons with boards
/// @param boards standard deviation between boards
public record Gauge(double repeatability, double reproducibility, double boards) {
  /// Of readings by board, person and repeat.
  ///
  /// @param values [board][person][repeat], 2 boards or more, 1 person or more, as many repeats of
  ///   each, 2 or more
  /// @throws IllegalArgumentException when they are not so, or no finite numbers
  public static Gauge of(double[][][] values) {
    int b = values.length;
    int p = b == 0 ? 0 : values[0].length;
    int r = p == 0 ? 0 : values[0][0].length;
    for (double[][] x : values) {
      for (double[] y : x) {
        if (x.length != p || y.length != r || !Arrays.stream(y).allMatch(Double::isFinite)) {
          throw new IllegalArgumentException(
              "every board is read by everybody as often, with finite readings");
        }
      }
    }
    if (b < 2 || p < 1 || r < 2) {
      throw new IllegalArgumentException(
          "a gauge study has 2 boards, 1 person and 2 repeats or more, got "
              + b
              + ", "
              + p
              + " and "
              + r);
    }
    double grand = mean(flat(values));
    double ssBoards = 0;
    double[] persons = new double[p];
    double ssCells = 0;
    double ssError = 0;
    for (double[][] board : values) {
      ssBoards += p * r * square(mean(flat(new double[][][] {board})) - grand);
      for (int j = 0; j < p; j++) {
        double cell = mean(board[j]);
        persons[j] += cell / b;
        ssCells += r * square(cell - grand);
        for (double v : board[j]) {
          ssError += square(v - cell);
        }
      }
    }
    double ssPersons = 0;
    for (double m : persons) {
      ssPersons += (double) b * r * square(m - grand);
    }
    double ssBoth = Math.max(0, ssCells - ssBoards - ssPersons);
    double msError = ssError / ((double) b * p * (r - 1));
    double msBoards = ssBoards / (b - 1);
    if (p == 1) {
      return new Gauge(Math.sqrt(msError), 0, Math.sqrt(Math.max(0, (msBoards - msError) / r)));
    }
    double msPersons = ssPersons / (p - 1);
    double msBoth = ssBoth / ((b - 1.0) * (p - 1.0));
    double both = Math.max(0, (msBoth - msError) / r);
    double between = Math.max(0, (msPersons - msBoth) / ((double) b * r));
    double parts = Math.max(0, (msBoards - msBoth) / ((double) p * r));
    return new Gauge(Math.sqrt(msError), Math.sqrt(between + both), Math.sqrt(parts));
  }

  /// Standard deviation of the gauge as a whole.
  public double gauge() {
    return Math.hypot(repeatability, reproducibility);
  }

  /// The gauge's share of all spread, by standard deviations, 0...1.
  public double share() {
    double all = Math.hypot(gauge(), boards);
    return all == 0 ? 0 : gauge() / all;
  }

  private static double[] flat(double[][][] v) {
    return Arrays.stream(v).flatMap(Arrays::stream).flatMapToDouble(Arrays::stream).toArray();
  }

  private static double mean(double[] v) {
    return Arrays.stream(v).average().orElse(0);
  }

  private static double square(double x) {
    return x * x;
  }
}
