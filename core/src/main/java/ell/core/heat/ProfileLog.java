package ell.core.heat;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/// Temperatures over time, as they were logged.
///
/// @param channels at least one, all at the same times
public record ProfileLog(List<Channel> channels) {
  public ProfileLog {
    channels = List.copyOf(channels);
  }

  /// One channel; samples that the log lacks are left out.
  public static final class Channel {
    private final String name;
    private final double[] seconds;
    private final double[] celsius;

    /// A channel.
    ///
    /// @param seconds rising, from any origin
    /// @param celsius as many
    public Channel(String name, double[] seconds, double[] celsius) {
      if (seconds.length != celsius.length) {
        throw new IllegalArgumentException(
            "channel "
                + name
                + " has "
                + seconds.length
                + " times and "
                + celsius.length
                + " temperatures");
      }
      this.name = name;
      this.seconds = seconds.clone();
      this.celsius = celsius.clone();
    }

    /// What it is called.
    public String name() {
      return name;
    }

    /// How many samples it has.
    public int size() {
      return seconds.length;
    }

    /// Time of a sample, in second.
    public double second(int i) {
      return seconds[i];
    }

    /// Temperature of a sample, degree Celsius.
    public double celsius(int i) {
      return celsius[i];
    }

    /// Whether it logs what was asked for, not what was measured.
    public boolean wanted() {
      return name.toLowerCase(Locale.ROOT)
          .matches(".*\\b(set|setpoint|sp|target)\\b.*|.*set ?point.*");
    }

    /// Whether it logs the plate or its heater, to which no solder window applies.
    public boolean plate() {
      return name.toLowerCase(Locale.ROOT).matches("(hot ?)?plate|heater|element|hob");
    }

    /// The same channel, all of it warmer.
    public Channel shifted(double by) {
      return new Channel(name, seconds, Arrays.stream(celsius).map(c -> c + by).toArray());
    }

    /// The temperature at a time, between samples along a straight line, at the ends the last one.
    public double at(double t) {
      int n = seconds.length;
      if (n == 0) {
        return Double.NaN;
      }
      int i = Arrays.binarySearch(seconds, t);
      if (i >= 0) {
        return celsius[i];
      }
      int k = -i - 1;
      if (k == 0 || k == n) {
        return celsius[k == 0 ? 0 : n - 1];
      }
      double f = (t - seconds[k - 1]) / (seconds[k] - seconds[k - 1]);
      return celsius[k - 1] + f * (celsius[k] - celsius[k - 1]);
    }
  }
}
