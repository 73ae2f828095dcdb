package ell.core.series;

import java.util.List;

/// What was logged together.
///
/// @param series one or more, of one clock; each leaves out what it lacks
public record Log(List<Series> series) {
  public Log {
    series = List.copyOf(series);
  }
}
