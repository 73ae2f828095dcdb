package ell.core.series;

import java.util.Arrays;
import java.util.List;

/// What was logged together.
///
/// @param series one or more, of one clock; each leaves out what it lacks
public record Log(List<Series> series) {
  public Log {
    series = List.copyOf(series);
  }

  /// The times of rows, which columns without gaps share: a long log lies in memory once.
  ///
  /// @param seconds never falling
  public record Clock(double[] seconds) {
    /// Times of rows.
    ///
    /// @throws IllegalArgumentException when a time falls
    public Clock {
      seconds = Series.rising("the clock", seconds.clone());
    }

    /// One column of the rows.
    ///
    /// @param name what it is called
    /// @param values one for each row, NaN for a gap
    /// @throws IllegalArgumentException when there are fewer values than rows
    public Series column(String name, double[] values) {
      double[] own = Arrays.copyOf(values, seconds.length);
      if (values.length < seconds.length) {
        throw new IllegalArgumentException(
            name + " has " + values.length + " readings for " + seconds.length + " rows");
      }
      double[] times = seconds;
      int n = 0;
      for (int i = 0; i < own.length; i++) {
        if (Double.isNaN(own[i])) {
          times = times == seconds ? seconds.clone() : times;
          continue;
        }
        if (times != seconds) {
          times[n] = seconds[i];
          own[n] = own[i];
        }
        n++;
      }
      return times == seconds
          ? new Series(name, times, own, n)
          : new Series(name, Arrays.copyOf(times, n), Arrays.copyOf(own, n), n);
    }
  }
}
