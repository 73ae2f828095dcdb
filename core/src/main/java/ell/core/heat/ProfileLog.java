package ell.core.heat;

import ell.core.series.Log;
import ell.core.series.Series;
import java.util.List;
import java.util.Locale;

/// Temperatures over time, as they were logged.
///
/// @param channels at least one, all at the same times
public record ProfileLog(List<Channel> channels) {
  public ProfileLog {
    channels = List.copyOf(channels);
  }

  /// A log of temperatures.
  ///
  /// @param log its series in degree Celsius
  public static ProfileLog of(Log log) {
    return new ProfileLog(log.series().stream().map(Channel::new).toList());
  }

  /// One channel; samples that the log lacks are left out.
  ///
  /// @param series readings in degree Celsius
  public record Channel(Series series) {
    /// A channel.
    ///
    /// @param seconds never falling, from any origin
    /// @param celsius as many
    /// @throws IllegalArgumentException when there are not as many temperatures as times, or a time
    ///   falls
    public Channel(String name, double[] seconds, double[] celsius) {
      this(new Series(name, seconds, celsius));
    }

    /// What it is called.
    public String name() {
      return series.name();
    }

    /// How many samples it has.
    public int size() {
      return series.size();
    }

    /// Time of a sample, in second.
    public double second(int i) {
      return series.second(i);
    }

    /// Temperature of a sample, degree Celsius.
    public double celsius(int i) {
      return series.value(i);
    }

    /// Whether it logs what was asked for, not what was measured.
    public boolean wanted() {
      return name()
          .toLowerCase(Locale.ROOT)
          .matches(".*\\b(set|setpoint|sp|target)\\b.*|.*set ?point.*");
    }

    /// Whether it logs the plate or its heater, to which no solder window applies.
    public boolean plate() {
      return name().toLowerCase(Locale.ROOT).matches("(hot ?)?plate|heater|element|hob");
    }

    /// The same channel, all of it warmer.
    ///
    /// @param by kelvin
    public Channel shifted(double by) {
      return new Channel(series.map(c -> c + by));
    }

    /// The temperature at a time, degree Celsius: between samples along a straight line, at the
    /// ends the last one; NaN when there is none.
    public double at(double t) {
      return series.at(t);
    }
  }
}
