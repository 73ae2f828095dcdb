package ell.files.series;

import ell.core.series.Series;
import java.util.Locale;

/// Writes a capture as CSV that [CaptureReader] reads back: evenly sampled ones as a step, a start
/// and volts, others with a time in each row.
public final class CaptureWriter {
  private static final double EVEN = 1e-6;

  private CaptureWriter() {}

  /// The text.
  ///
  /// @param s two samples or more, volts over seconds
  public static String csv(Series s) {
    double step = s.duration() / (s.size() - 1);
    boolean even = true;
    for (int i = 0; i < s.size() && even; i++) {
      even = Math.abs(s.second(i) - s.second(0) - i * step) < EVEN * step * s.size();
    }
    StringBuilder out = new StringBuilder();
    if (even) {
      out.append(String.format(Locale.ROOT, "increment,%.12E%n", step))
          .append(String.format(Locale.ROOT, "start,%.12E%n", s.second(0)))
          .append(s.name())
          .append(" (V)\n");
      for (int i = 0; i < s.size(); i++) {
        out.append(number(s.value(i))).append('\n');
      }
      return out.toString();
    }
    out.append("time (s),").append(s.name()).append(" (V)\n");
    for (int i = 0; i < s.size(); i++) {
      out.append(s.second(i)).append(',').append(number(s.value(i))).append('\n');
    }
    return out.toString();
  }

  private static String number(double v) {
    return String.valueOf((float) v);
  }
}
