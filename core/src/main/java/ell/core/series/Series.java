package ell.core.series;

import java.util.Arrays;
import java.util.function.DoubleUnaryOperator;

/// Readings of one quantity over time; times never fall, and need not be evenly apart. What a log
/// lacks is left out. Readings that are evenly apart keep a step in place of their times.
public final class Series {
  private final String name;
  private final double start;
  private final double step;
  private final int size;

  /// Null where readings are evenly apart.
  private final double[] seconds;

  /// One of the two is there: what an instrument sampled has no more digits than a float.
  private final double[] values;

  private final float[] samples;

  /// Where samples lie that are too many for memory.
  private final Samples kept;

  private Pyramid pyramid;

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
    this.samples = null;
    this.kept = null;
    this.size = values.length;
    this.start = 0;
    this.step = 0;
  }

  /// Takes what nobody else writes to, and whose times were looked at.
  Series(String name, double[] seconds, double[] values, int size) {
    if (seconds.length != size || values.length != size) {
      throw new IllegalArgumentException(name + " has not " + size + " readings");
    }
    this.name = name;
    this.seconds = seconds;
    this.values = values;
    this.samples = null;
    this.kept = null;
    this.size = size;
    this.start = 0;
    this.step = 0;
  }

  private Series(
      String name,
      double start,
      double step,
      double[] values,
      float[] samples,
      Samples kept,
      int n) {
    this.name = name;
    this.seconds = null;
    this.values = values;
    this.samples = samples;
    this.kept = kept;
    this.size = n;
    this.start = start;
    this.step = step;
    if (!(step > 0) || !Double.isFinite(start + step * n)) {
      throw new IllegalArgumentException(
          "series "
              + name
              + " has a finite start and a step above 0, got "
              + start
              + " s and "
              + step
              + " s");
    }
  }

  /// Readings that are evenly apart. The samples are not copied: nobody else may write to them.
  ///
  /// @param start seconds of the first
  /// @param step seconds from one to the next, above 0
  /// @throws IllegalArgumentException when the step is not above 0
  public static Series even(String name, double start, double step, float[] samples) {
    return new Series(name, start, step, null, samples, null, samples.length);
  }

  /// Readings that are evenly apart and are kept elsewhere.
  ///
  /// @param pyramid of them, null when there is none yet
  public static Series even(String name, double start, double step, Samples kept, Pyramid pyramid) {
    Series s = new Series(name, start, step, null, null, kept, kept.size());
    s.pyramid = pyramid;
    return s;
  }

  /// The pyramid of readings that are evenly apart; made when it is asked for first.
  public synchronized Pyramid pyramid() {
    if (pyramid == null) {
      pyramid = Pyramid.of(samples());
    }
    return pyramid;
  }

  /// The readings as samples.
  public Samples samples() {
    if (kept != null) {
      return kept;
    }
    return new Samples() {
      @Override
      public int size() {
        return size;
      }

      @Override
      public float at(int i) {
        return (float) value(i);
      }
    };
  }

  /// Whether the readings are evenly apart by what is known of them.
  public boolean even() {
    return seconds == null;
  }

  /// Seconds from one reading to the next, the mean where they are not evenly apart; NaN when there
  /// are fewer than two.
  public double step() {
    return seconds == null ? step : size < 2 ? Double.NaN : duration() / (size - 1);
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
    return size;
  }

  /// Time of a reading, in second.
  ///
  /// @throws ArrayIndexOutOfBoundsException when there is no such reading
  public double second(int i) {
    return seconds == null ? start + i * step : seconds[i];
  }

  /// A reading.
  ///
  /// @throws ArrayIndexOutOfBoundsException when there is no such reading
  public double value(int i) {
    return samples != null ? samples[i] : values != null ? values[i] : kept.at(i);
  }

  /// Takes readings in their order, many at once.
  public interface Stretch {
    /// Some of them.
    ///
    /// @param v readings, not to be kept
    /// @param first which of the series is the first of them
    /// @param n how many
    void take(double[] v, int first, int n);
  }

  /// Hands all readings over, stretch by stretch: far faster than to ask for each.
  ///
  /// @param every 1 for every stretch, 2 for every second one and so on
  public void each(int every, Stretch to) {
    double[] v = new double[STRETCH];
    for (long from = 0; from < size; from += (long) STRETCH * every) {
      int first = (int) from;
      int n = Math.min(STRETCH, size - first);
      if (values != null) {
        System.arraycopy(values, first, v, 0, n);
      } else if (samples != null) {
        for (int i = 0; i < n; i++) {
          v[i] = samples[first + i];
        }
      } else {
        for (int i = 0; i < n; i++) {
          v[i] = kept.at(first + i);
        }
      }
      to.take(v, first, n);
    }
  }

  /// Readings that are handed over at once.
  public static final int STRETCH = 1 << 13;

  /// From the first reading to the last, in second; 0 when there are fewer than two.
  public double duration() {
    return size < 2 ? 0 : second(size - 1) - second(0);
  }

  /// The greatest reading; NaN when there is none.
  public double most() {
    double most = Double.NaN;
    for (int i = 0; i < size; i++) {
      double v = value(i);
      most = v > most || i == 0 ? v : most;
    }
    return most;
  }

  /// The least reading; NaN when there is none.
  public double least() {
    double least = Double.NaN;
    for (int i = 0; i < size; i++) {
      double v = value(i);
      least = v < least || i == 0 ? v : least;
    }
    return least;
  }

  /// The value at a time: between readings along a straight line, outside them the nearest; NaN
  /// when there is none.
  ///
  /// @param t second, of the same origin as the series
  public double at(double t) {
    int n = size;
    if (n == 0) {
      return Double.NaN;
    }
    int k = firstFrom(t);
    if (k == n) {
      return value(n - 1);
    }
    if (k == 0 || second(k) == t) {
      return value(k);
    }
    double f = (t - second(k - 1)) / (second(k) - second(k - 1));
    return value(k - 1) + f * (value(k) - value(k - 1));
  }

  /// Which reading is the first at or after a time; `size()` when all are before it.
  ///
  /// @param t second
  public int firstFrom(double t) {
    if (seconds == null) {
      int i = (int) Math.clamp(Math.ceil((t - start) / step), 0, size);
      // rounding may have put it one off
      while (i > 0 && second(i - 1) >= t) {
        i--;
      }
      while (i < size && second(i) < t) {
        i++;
      }
      return i;
    }
    int i = Arrays.binarySearch(seconds, t);
    return i >= 0 ? i : -i - 1;
  }

  /// The same readings, each changed.
  public Series map(DoubleUnaryOperator change) {
    double[] changed = new double[size];
    Arrays.setAll(changed, i -> change.applyAsDouble(value(i)));
    return seconds == null
        ? new Series(name, start, step, changed, null, null, size)
        : new Series(name, seconds, changed, size);
  }
}
