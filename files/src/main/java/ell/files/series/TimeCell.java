package ell.files.series;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeParseException;
import java.util.Locale;
import java.util.OptionalDouble;

/// Times as logs write them: a number of the unit in the heading, `h:mm:ss` also over midnight, or
/// a date with a time.
final class TimeCell {
  private static final double HALF_DAY = 43_200;
  private final double scale;
  private double days;

  /// @param scale second in one of a plain number
  TimeCell(double scale) {
    this.scale = scale;
  }

  /// Whether a heading stands over times.
  static boolean heading(String cell) {
    String k =
        cell.toLowerCase(Locale.ROOT).replaceAll("[\\[(/].*", "").replaceAll("[^a-z0-9]", "");
    return k.matches("ts|tsec|tmin|tms")
        || k.matches(
            "time|t|elapsed|elapsedtime|seconds?|secs?|s|minutes?|min|ms|timestamp|date|datetime|zeit|times|timems|timemin|relativetime|logtime");
  }

  /// How many seconds one of the plain numbers under this heading is.
  static double scale(String heading) {
    String h = heading.toLowerCase(Locale.ROOT).replace('_', ' ');
    if (h.matches(".*\\b(ms|msec|milliseconds?)\\b.*")) {
      return 1e-3;
    }
    if (h.matches(".*\\b(min|minutes?)\\b.*")) {
      return 60;
    }
    return h.matches(".*[\\[(/]\\s*(h|hours?)\\s*[\\])]?.*") ? 3600 : 1;
  }

  /// A plain number as second.
  double seconds(double number) {
    return number * scale;
  }

  /// A cell that is no plain number.
  ///
  /// @param cell in small letters, without blanks around it
  /// @param last the time of the row before, second
  /// @return second; empty when it is no time
  OptionalDouble read(String cell, double last) {
    try {
      if (cell.matches("\\d{1,3}:\\d{2}(:\\d{2})?([.]\\d+)?")) {
        return OptionalDouble.of(ofDay(cell.split(":"), last));
      }
      if (cell.matches("\\d{4}-\\d{2}-\\d{2}[t ].*")) {
        String iso = cell.toUpperCase(Locale.ROOT).replace(' ', 'T');
        return OptionalDouble.of(
            iso.matches(".*(Z|[+-]\\d{2}:?\\d{2})$")
                ? since(OffsetDateTime.parse(iso).toInstant())
                : since(LocalDateTime.parse(iso).toInstant(ZoneOffset.UTC)));
      }
      double v = Double.parseDouble(cell.replaceAll("\\s*s$", ""));
      return Double.isFinite(v) ? OptionalDouble.of(v * scale) : OptionalDouble.empty();
    } catch (NumberFormatException | DateTimeParseException e) {
      return OptionalDouble.empty();
    }
  }

  private double ofDay(String[] parts, double last) {
    double s = 0;
    for (String one : parts) {
      s = s * 60 + Double.parseDouble(one);
    }
    if (s + days < last && last - days > HALF_DAY && parts.length == 3) {
      days += 86_400; // over midnight
    }
    return s + days;
  }

  private static double since(Instant i) {
    return i.getEpochSecond() + i.getNano() * 1e-9;
  }
}
