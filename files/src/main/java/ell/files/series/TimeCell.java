package ell.files.series;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.Locale;
import java.util.OptionalDouble;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Times as logs write them: a number of the unit in the heading, `h:mm:ss` also over midnight or
/// with AM and PM, or a date with a time in one cell or in two.
final class TimeCell {
  private static final double HALF_DAY = 43_200;
  private static final double DAY = 86_400;
  private static final Pattern CLOCK =
      Pattern.compile(
          "(\\d{1,4}):(\\d{2})(?::(\\d{2}))?(?:[.,:](\\d{1,9}))?\\s*([ap])?\\.?(?:m\\.?)?");
  private static final Pattern DATE = Pattern.compile("(\\d{1,4})([-./])(\\d{1,2})\\2(\\d{1,4})");
  private static final Pattern BOTH =
      Pattern.compile("(\\d{1,4}[-./]\\d{1,2}[-./]\\d{1,4})[t ,]+(.*)");

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
    return k.matches("ts|tsec|tmin|tms|tus|tns|us|ns|ps|timeus|timens")
        || k.matches(
            "time|t|elapsed|elapsedtime|seconds?|secs?|s|minutes?|min|ms|timestamp|datetime|zeit|uhrzeit|heure|temps|hora|tiempo|times|timems|timemin|relativetime|logtime|clock")
        || date(cell);
  }

  /// Whether a heading stands over dates.
  static boolean date(String cell) {
    return cell.strip().toLowerCase(Locale.ROOT).matches("date|datum|fecha|day");
  }

  /// How many seconds one of the plain numbers under this heading is.
  static double scale(String heading) {
    String h = heading.toLowerCase(Locale.ROOT).replace('_', ' ');
    if (h.matches(".*\\b(ms|msec|milliseconds?)\\b.*")) {
      return 1e-3;
    }
    if (h.matches(".*\\b(us|usec|microseconds?)\\b.*|.*[µμ]s.*")) {
      return 1e-6;
    }
    if (h.matches(".*\\b(ns|nsec|nanoseconds?)\\b.*")) {
      return 1e-9;
    }
    if (h.matches(".*\\b(ps|picoseconds?)\\b.*")) {
      return 1e-12;
    }
    if (h.matches(".*\\b(min|minutes?)\\b.*")) {
      return 60;
    }
    return h.matches(".*[\\[(/]\\s*(h|hours?)\\s*[\\])]?.*") ? 3600 : 1;
  }

  /// Whether a heading says the unit of plain numbers.
  static boolean states(String heading) {
    String h = heading.toLowerCase(Locale.ROOT).replace('_', ' ');
    return scale(heading) != 1 || h.matches(".*\\b(s|sec|secs|seconds?)\\b.*");
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
      if (cell.matches("\\d{4}-\\d{2}-\\d{2}[t ].*(z|[+-]\\d{2}:?\\d{2})$")) {
        String iso = cell.toUpperCase(Locale.ROOT).replace(' ', 'T');
        Instant i = OffsetDateTime.parse(iso).toInstant();
        return OptionalDouble.of(i.getEpochSecond() + i.getNano() * 1e-9);
      }
      Matcher both = BOTH.matcher(cell);
      if (both.matches()) {
        OptionalDouble day = day(both.group(1));
        OptionalDouble clock = clock(both.group(2));
        return day.isPresent() && clock.isPresent()
            ? OptionalDouble.of(day.getAsDouble() + clock.getAsDouble())
            : OptionalDouble.empty();
      }
      OptionalDouble clock = clock(cell);
      if (clock.isPresent()) {
        return OptionalDouble.of(overMidnight(clock.getAsDouble(), last));
      }
      double v = Double.parseDouble(cell.replaceAll("\\s*s$", ""));
      return Double.isFinite(v) ? OptionalDouble.of(v * scale) : OptionalDouble.empty();
    } catch (NumberFormatException | DateTimeException e) {
      return OptionalDouble.empty();
    }
  }

  /// A date and a time of day that stand in cells of their own.
  OptionalDouble read(String date, String time) {
    try {
      OptionalDouble day = day(date);
      OptionalDouble clock = clock(time);
      return day.isPresent() && clock.isPresent()
          ? OptionalDouble.of(day.getAsDouble() + clock.getAsDouble())
          : OptionalDouble.empty();
    } catch (DateTimeException e) {
      return OptionalDouble.empty(); // a day that no month has
    }
  }

  /// Second of a date since 1970; the year first or last, with points the day first, with slashes
  /// the month, as long as that can be one.
  private static OptionalDouble day(String text) {
    Matcher m = DATE.matcher(text);
    if (!m.matches()) {
      return OptionalDouble.empty();
    }
    int a = Integer.parseInt(m.group(1));
    int b = Integer.parseInt(m.group(3));
    int c = Integer.parseInt(m.group(4));
    if (m.group(1).length() == 4) {
      return OptionalDouble.of(LocalDate.of(a, b, c).toEpochDay() * DAY);
    }
    int year = c < 100 ? 2000 + c : c;
    boolean monthFirst = m.group(2).equals("/") && a <= 12 || b > 12;
    return OptionalDouble.of(
        (monthFirst ? LocalDate.of(year, a, b) : LocalDate.of(year, b, a)).toEpochDay() * DAY);
  }

  /// Second of `mm:ss`, `h:mm:ss`, either with tenths, or with AM and PM.
  private static OptionalDouble clock(String text) {
    Matcher m = CLOCK.matcher(text);
    if (!m.matches()) {
      return OptionalDouble.empty();
    }
    double a = Integer.parseInt(m.group(1));
    double b = Integer.parseInt(m.group(2));
    boolean noon = m.group(5) != null;
    double s;
    if (m.group(3) != null || noon) {
      double hours = noon ? a % 12 + (m.group(5).equals("p") ? 12 : 0) : a;
      s = hours * 3600 + b * 60 + (m.group(3) == null ? 0 : Integer.parseInt(m.group(3)));
    } else {
      s = a * 60 + b;
    }
    String part = m.group(4);
    return OptionalDouble.of(part == null ? s : s + Double.parseDouble("0." + part));
  }

  private double overMidnight(double s, double last) {
    if (s + days < last && last - days > HALF_DAY) {
      days += DAY;
    }
    return s + days;
  }
}
