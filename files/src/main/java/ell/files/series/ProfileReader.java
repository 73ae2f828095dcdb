package ell.files.series;

import ell.core.heat.ProfileLog;
import ell.files.Read;
import ell.files.Source;
import java.io.IOException;

/// Reads a temperature log: a [LogReader] that knows temperatures. Units stand in the headings
/// (`Time (s)`, `T1 [°C]`, `°F`, `K`, `mV` of a type K). Without headings the first column is
/// seconds, the others are degree Celsius.
public final class ProfileReader {
  private ProfileReader() {}

  /// Reads a file.
  ///
  /// @return channels in degree Celsius
  /// @throws IOException when it cannot be read at all
  public static Read<ProfileLog> read(Source source) throws IOException {
    return read(source, "", "");
  }

  /// Reads a file whose units somebody knows.
  ///
  /// @param unit of columns that do not say theirs, `C`, `F` or `K`; empty to judge by the readings
  /// @param timeUnit of times that do not say theirs, `s`, `ms` or `min`; empty to judge by the
  ///   length of the log
  /// @throws IOException when it cannot be read at all
  public static Read<ProfileLog> read(Source source, String unit, String timeUnit)
      throws IOException {
    return LogReader.read(source, new Temperatures(unit, timeUnit)).map(ProfileLog::of);
  }
}
