package ell.core.series;

import java.util.Arrays;
import java.util.function.DoubleUnaryOperator;

/// Readings of one quantity over time; times never fall, and need not be evenly apart. What a log
/// lacks is left out.
public final class Series {
  private final String name;
  private final double[] seconds;
  private final double[] values;

  /// A series.
  ///
  /// @param name what it is called
  /// @param seconds times in second, never falling, from any origin
  /// @param values as many, in the unit of whoever made the series
  /// @throws IllegalArgumentException when there are not as many values as times, or a time does
  ///   not rise
  public Series(String name, double[] seconds, double[] values) {
    if (seconds.length != values.length) {
      throw new IllegalArgumentException(
          "series "
              + name
              + " has "
              + seconds.length
              + " times and "
              + values.length
              + " readings");
    }
    this.name = name;
    this.seconds = rising("series " + name, seconds.clone());
    this.values = values.clone();
  }

  /// Takes what nobody else writes to, and whose times were looked at.
  Series(String name, double[] seconds, double[] values, int size) {
    if (seconds.length != size || values.length != size) {
      throw new IllegalArgumentException(name + " has not " + size + " readings");
    }
    this.name = name;
    this.seconds = seconds;
    this.values = values;
  }

  /// The same times.
  ///
  /// @throws IllegalArgumentException when one falls
  static double[] rising(String what, double[] seconds) {
    for (int i = 1; i < seconds.length; i++) {
      if (!(seconds[i] >= seconds[i - 1])) {
        throw new IllegalArgumentException(
            what + ": time " + seconds[i] + " s after " + seconds[i - 1] + " s");
      }
    }
    return seconds;
  }

  /// What it is called.
  public String name() {
    return name;
  }

  /// How many readings it has, 0 or more.
  public int size() {
    return seconds.length;
  }

  /// Time of a reading, in second.
  ///
  /// @throws ArrayIndexOutOfBoundsException when there is no such reading
  public double second(int i) {
    return seconds[i];
  }

  /// A reading.
  ///
  /// @throws ArrayIndexOutOfBoundsException when there is no such reading
  public double value(int i) {
    return values[i];
  }

  /// From the first reading to the last, in second; 0 when there are fewer than two.
  public double duration() {
    return seconds.length < 2 ? 0 : seconds[seconds.length - 1] - seconds[0];
  }

  /// The greatest reading; NaN when there is none.
  public double most() {
    return Arrays.stream(values).max().orElse(Double.NaN);
  }

  /// The least reading; NaN when there is none.
  public double least() {
    return Arrays.stream(values).min().orElse(Double.NaN);
  }

  /// The value at a time: between readings along a straight line, outside them the nearest; NaN
  /// when there is none.
  ///
  /// @param t second, of the same origin as the series
  public double at(double t) {
    int n = seconds.length;
    if (n == 0) {
      return Double.NaN;
    }
    int k = firstFrom(t);
    if (k == n) {
      return values[n - 1];
    }
    if (k == 0 || seconds[k] == t) {
      return values[k];
    }
    double f = (t - seconds[k - 1]) / (seconds[k] - seconds[k - 1]);
    return values[k - 1] + f * (values[k] - values[k - 1]);
  }

  /// Which reading is the first at or after a time; `size()` when all are before it.
  ///
  /// @param t second
  public int firstFrom(double t) {
    int i = Arrays.binarySearch(seconds, t);
    return i >= 0 ? i : -i - 1;
  }

  /// The same readings, each changed.
  public Series map(DoubleUnaryOperator change) {
    return new Series(name, seconds, Arrays.stream(values).map(change).toArray(), values.length);
  }
}
