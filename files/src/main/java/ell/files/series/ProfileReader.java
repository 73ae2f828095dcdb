package ell.files.series;

import ell.core.heat.ProfileLog;
import ell.core.heat.Thermocouple;
import ell.files.Findings;
import ell.files.Read;
import ell.files.Source;
import ell.files.TextFile;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.Reader;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/// Reads a temperature log: CSV with a column of time and one or more of temperature. Units stand
/// in the headings (`Time (s)`, `T1 [°C]`, `°F`, `K`, `mV` of a type K); times may also be
/// `h:mm:ss` or dates; cells that are empty or say `nan`, `open` or `-` are gaps. Without headings
/// the first column is seconds, the others are degree Celsius.
///
/// It streams: a row is taken apart where it lies, with no text made of its numbers.
public final class ProfileReader {
  private static final int LONGEST_LINE = 1 << 16;
  private static final int MOST_ROWS = 20_000_000;
  private static final double[] TENTHS = new double[23];

  static {
    TENTHS[0] = 1;
    for (int i = 1; i < TENTHS.length; i++) {
      TENTHS[i] = TENTHS[i - 1] * 10;
    }
  }

  private enum Scale {
    CELSIUS,
    FAHRENHEIT,
    KELVIN,
    MILLIVOLT,
    NONE
  }

  private final Findings f;
  private byte separator;
  private boolean comma;
  private int timeColumn;
  private double timeScale = 1;
  private final List<Integer> columns = new ArrayList<>();
  private final List<String> names = new ArrayList<>();
  private final List<Scale> scales = new ArrayList<>();
  private int headingLine;

  private double[] time = new double[1 << 12];
  private double[][] values;
  private int rows;
  private double[] row;
  private boolean[] takes;
  private int[] columnOf;
  private boolean bad;
  private double lastTime = Double.NEGATIVE_INFINITY;
  private double days;
  private int gaps;

  private ProfileReader(Findings f) {
    this.f = f;
  }

  /// Reads a file.
  ///
  /// @throws IOException when it cannot be read at all
  public static Read<ProfileLog> read(Source source) throws IOException {
    Findings f = new Findings(source.name());
    ProfileReader r = new ProfileReader(f);
    TextFile.Encoding e = TextFile.encoding(source);
    if (e.charset().name().startsWith("UTF-16")) {
      f.error(0, 0, "UTF-16 text; save the log as UTF-8");
      return f.flawed();
    }
    if (!r.heading(source, e)) {
      return f.flawed();
    }
    try (InputStream in = source.open()) {
      in.skipNBytes(e.mark());
      r.body(in);
    }
    return f.failed() ? f.flawed() : r.done();
  }

  private Read<ProfileLog> done() {
    if (rows < 2) {
      f.error(0, 0, "fewer than two rows of numbers below the heading");
      return f.flawed();
    }
    List<ProfileLog.Channel> all = new ArrayList<>();
    for (int c = 0; c < names.size(); c++) {
      double[] t = new double[rows];
      double[] v = new double[rows];
      int n = 0;
      for (int i = 0; i < rows; i++) {
        if (!Double.isNaN(values[c][i])) {
          t[n] = time[i];
          v[n++] = celsius(values[c][i], scales.get(c), c);
        }
      }
      values[c] = null; // large logs should not lie in memory twice
      if (n < 2) {
        f.pass(headingLine, "channel " + names.get(c) + " has no readings");
      } else if (!f.failed()) {
        all.add(new ProfileLog.Channel(names.get(c), Arrays.copyOf(t, n), Arrays.copyOf(v, n)));
      }
    }
    if (f.failed()) {
      return f.flawed();
    }
    if (all.isEmpty()) {
      f.error(0, 0, "no channel has readings");
      return f.flawed();
    }
    if (gaps > 0) {
      f.warn(0, 0, gaps + (gaps == 1 ? " cell is a gap" : " cells are gaps"));
    }
    return f.done(new ProfileLog(all));
  }

  private double celsius(double v, Scale s, int channel) {
    return switch (s) {
      case FAHRENHEIT -> (v - 32) * 5 / 9;
      case KELVIN -> v - 273.15;
      case MILLIVOLT -> {
        try {
          yield Thermocouple.celsius(v * 1e-3, 0);
        } catch (IllegalArgumentException e) {
          f.error(0, 0, "channel " + names.get(channel) + ": " + e.getMessage());
          yield 0;
        }
      }
      case CELSIUS, NONE -> v;
    };
  }

  // the heading

  private boolean heading(Source source, TextFile.Encoding e) throws IOException {
    List<String> head = new ArrayList<>();
    try (Reader in = TextFile.open(source, e);
        BufferedReader lines = new BufferedReader(in)) {
      String l;
      while (head.size() < 80 && (l = bounded(lines)) != null) {
        head.add(l);
      }
    }
    for (int i = 0; i < head.size(); i++) {
      for (char sep : new char[] {';', '\t', ',', '|'}) {
        if (isHeading(head.get(i), sep)) {
          return take(head, i, sep);
        }
      }
    }
    for (int i = 0; i < head.size(); i++) {
      for (char sep : new char[] {';', '\t', ',', '|'}) {
        if (isNumbers(head.get(i), sep)) {
          plain(head.get(i), i, sep);
          return true;
        }
      }
    }
    f.error(
        1,
        0,
        "expected a heading with time and at least one temperature, such as: time (s),board (°C)");
    return false;
  }

  private static String bounded(BufferedReader in) throws IOException {
    StringBuilder s = new StringBuilder();
    int c;
    while ((c = in.read()) >= 0 && c != '\n') {
      if (s.length() < LONGEST_LINE) {
        s.append((char) c);
      }
    }
    return c < 0 && s.isEmpty() ? null : s.toString().replace("\r", "");
  }

  private static String[] cells(String line, char sep) {
    String[] cells = line.split(java.util.regex.Pattern.quote(String.valueOf(sep)), -1);
    for (int i = 0; i < cells.length; i++) {
      cells[i] = cells[i].strip().replaceAll("^\"|\"$", "").strip();
    }
    return cells;
  }

  private static String key(String cell) {
    return cell.toLowerCase(Locale.ROOT).replaceAll("[\\[(/].*", "").replaceAll("[^a-z0-9]", "");
  }

  private static boolean isTime(String cell) {
    String k = key(cell);
    return k.matches("ts|tsec|tmin|tms")
        || k.matches(
            "time|t|elapsed|elapsedtime|seconds?|secs?|s|minutes?|min|ms|timestamp|date|datetime|zeit|times|timems|timemin|relativetime|logtime");
  }

  private static boolean isHeading(String line, char sep) {
    if (line.startsWith("#") && line.indexOf(sep) < 0) {
      return false;
    }
    String[] cells = cells(line.replaceFirst("^#\\s*", ""), sep);
    return cells.length >= 2
        && Arrays.stream(cells).anyMatch(ProfileReader::isTime)
        && Arrays.stream(cells).noneMatch(c -> c.matches("[+-]?\\d+([.,]\\d+)?"));
  }

  private static boolean isNumbers(String line, char sep) {
    String[] cells = cells(line, sep);
    return cells.length >= 2
        && Arrays.stream(cells).allMatch(c -> c.matches("[+-]?\\d*[.,]?\\d+([eE][+-]?\\d+)?"))
        && !(sep == ',' && cells.length == 2 && line.indexOf(' ') >= 0);
  }

  private boolean take(List<String> head, int at, char sep) {
    separator = (byte) sep;
    headingLine = at + 1;
    for (int i = 0; i < at; i++) {
      if (!head.get(i).isBlank()) {
        f.pass(i + 1, "before the heading: " + head.get(i));
      }
    }
    String[] cells = cells(head.get(at).replaceFirst("^#\\s*", ""), sep);
    timeColumn = -1;
    for (int i = 0; i < cells.length; i++) {
      if (timeColumn < 0 && isTime(cells[i])) {
        timeColumn = i;
        timeScale = timeScale(cells[i]);
        continue;
      }
      Scale s = scale(cells[i]);
      if (cells[i].isEmpty() || s == Scale.NONE) {
        if (!cells[i].isEmpty()) {
          f.pass(headingLine, "column " + cells[i] + " is no temperature");
        }
        continue;
      }
      columns.add(i);
      names.add(name(cells[i]));
      scales.add(s);
    }
    if (columns.isEmpty()) {
      f.error(headingLine, 0, "no column of temperature beside " + cells[timeColumn]);
      return false;
    }
    comma = sep != ',' && decimalComma(head.subList(at + 1, head.size()), sep);
    makeRoom();
    return true;
  }

  private void plain(String line, int at, char sep) {
    separator = (byte) sep;
    headingLine = at; // the row itself is read
    timeColumn = 0;
    int n = cells(line, sep).length;
    for (int i = 1; i < n; i++) {
      columns.add(i);
      names.add("T" + i);
      scales.add(Scale.CELSIUS);
    }
    comma = sep != ',' && decimalComma(List.of(line), sep);
    f.warn(0, 0, "no heading: the first column was taken as seconds, the others as °C");
    makeRoom();
  }

  private void makeRoom() {
    values = new double[columns.size()][time.length];
    int most = timeColumn;
    for (int c : columns) {
      most = Math.max(most, c);
    }
    row = new double[most + 1];
    takes = new boolean[most + 1];
    takes[timeColumn] = true;
    columnOf = new int[columns.size()];
    for (int c = 0; c < columnOf.length; c++) {
      columnOf[c] = columns.get(c);
      takes[columnOf[c]] = true;
    }
  }

  private static boolean decimalComma(List<String> lines, char sep) {
    return lines.stream()
        .limit(20)
        .anyMatch(l -> Arrays.stream(cells(l, sep)).anyMatch(c -> c.matches("[+-]?\\d+,\\d+")));
  }

  private static double timeScale(String heading) {
    String h = heading.toLowerCase(Locale.ROOT).replace('_', ' ');
    if (h.matches(".*\\b(ms|msec|milliseconds?)\\b.*")) {
      return 1e-3;
    }
    if (h.matches(".*\\b(min|minutes?)\\b.*")) {
      return 60;
    }
    return h.matches(".*[\\[(/]\\s*(h|hours?)\\s*[\\])]?.*") ? 3600 : 1;
  }

  private static Scale scale(String heading) {
    String h = heading.toLowerCase(Locale.ROOT).replace('º', '°');
    if (h.matches(".*([ _]deg)?_f$")
        || h.matches(".*(°\\s*f|\\bdeg\\s*f\\b|fahrenheit).*")
        || h.matches(".*[\\[(/]\\s*f\\s*[\\])]?$")) {
      return Scale.FAHRENHEIT;
    }
    if (h.matches(".*[\\[(/]\\s*(k|kelvin)\\s*[\\])]?$")) {
      return Scale.KELVIN;
    }
    if (h.matches(".*[\\[(/ ]\\s*mv\\s*[\\])]?$")) {
      return Scale.MILLIVOLT;
    }
    if (h.matches(".*[\\[(/]\\s*(%|w|kw|a|v|hz|pa|rpm|s|min)\\s*[\\])]?$")
        || h.matches(
            "(index|no\\.?|nr|#|sample|power|duty|humidity|rh|state|phase|note|remark|comment|date|time).*")) {
      return Scale.NONE;
    }
    return Scale.CELSIUS;
  }

  private static String name(String heading) {
    String n =
        heading
            .replaceAll(
                "[\\[(]\\s*(°|º|deg)?\\s*(c|f|k|celsius|fahrenheit|kelvin|mv|C|F|K|mV)\\s*[\\])]",
                "")
            .replaceAll("\\s*[/,]?\\s*(°|º)\\s*[CcFf]\\s*$", "")
            .strip();
    return n.isEmpty() ? heading : n;
  }

  // the rows

  private void body(InputStream in) throws IOException {
    byte[] buffer = new byte[1 << 20];
    int from = 0;
    int have = 0;
    int line = 1;
    boolean end = false;
    while (!end && f.count() <= Findings.MOST) {
      int n = in.read(buffer, have, buffer.length - have);
      end = n < 0;
      have += Math.max(n, 0);
      int start = from;
      int i = start;
      while (i < have) {
        if (buffer[i] == '\n') {
          row(buffer, start, i, line++);
          start = i + 1;
        }
        i++;
      }
      if (end && start < have) {
        row(buffer, start, have, line);
        start = have;
      }
      if (start == 0 && have == buffer.length) {
        f.error(line, 0, "a line of more than a million characters");
        return;
      }
      System.arraycopy(buffer, start, buffer, 0, have - start);
      have -= start;
      from = 0;
      if (rows > MOST_ROWS) {
        f.error(line, 0, "more than " + MOST_ROWS + " rows");
        return;
      }
    }
  }

  private void row(byte[] b, int from, int to, int line) {
    if (line <= headingLine) {
      return;
    }
    int end = to;
    while (end > from && (b[end - 1] == '\r' || b[end - 1] == ' ')) {
      end--;
    }
    if (end == from || b[from] == '#') {
      return;
    }
    Arrays.fill(row, Double.NaN);
    int cell = 0;
    int at = from;
    boolean any = false;
    while (at <= end && cell < row.length) {
      int stop = at;
      while (stop < end && b[stop] != separator) {
        stop++;
      }
      if (takes[cell]) {
        row[cell] = number(b, at, stop, line, cell);
        if (bad) {
          bad = false;
          return;
        }
        any |= !Double.isNaN(row[cell]);
      }
      cell++;
      at = stop + 1;
    }
    if (!any) {
      return;
    }
    double t = row[timeColumn];
    if (Double.isNaN(t)) {
      f.error(line, timeColumn + 1, "no time in this row");
      return;
    }
    if (t <= lastTime) {
      f.error(
          line,
          timeColumn + 1,
          String.format(Locale.ROOT, "time does not go on: %.6g s after %.6g s", t, lastTime));
      return;
    }
    lastTime = t;
    if (rows == time.length) {
      grow();
    }
    time[rows] = t;
    for (int c = 0; c < values.length; c++) {
      double v = row[columnOf[c]];
      gaps += Double.isNaN(v) ? 1 : 0;
      values[c][rows] = v;
    }
    rows++;
  }

  private void grow() {
    int n = time.length + (time.length >> 1);
    time = Arrays.copyOf(time, n);
    for (int c = 0; c < values.length; c++) {
      values[c] = Arrays.copyOf(values[c], n);
    }
  }

  /// A number where it lies. Digits up to 15 and a power of ten up to 22 give the nearest double in
  /// one operation; all else goes the long way.
  private double number(byte[] b, int from, int to, int line, int cell) {
    int i = from;
    int end = to;
    while (i < end && (b[i] == ' ' || b[i] == '"')) {
      i++;
    }
    while (end > i && (b[end - 1] == ' ' || b[end - 1] == '"')) {
      end--;
    }
    if (i == end) {
      return Double.NaN;
    }
    int start = i;
    boolean minus = b[i] == '-';
    if (minus || b[i] == '+') {
      i++;
    }
    long n = 0;
    int digits = 0;
    int behind = -1;
    byte point = (byte) (comma ? ',' : '.');
    while (i < end && digits < 16) {
      byte c = b[i];
      if (c >= '0' && c <= '9') {
        n = n * 10 + (c - '0');
        digits++;
        behind += behind >= 0 ? 1 : 0;
      } else if (c == point && behind < 0) {
        behind = 0;
      } else {
        break;
      }
      i++;
    }
    if (i == end && digits > 0 && digits < 16) {
      double v = behind > 0 ? n / TENTHS[behind] : n;
      v = minus ? -v : v;
      return cell == timeColumn ? v * timeScale : v;
    }
    return longWay(
        new String(b, start, end - start, java.nio.charset.StandardCharsets.UTF_8), line, cell);
  }

  private double longWay(String text, int line, int cell) {
    String t = comma ? text.replace(',', '.') : text;
    String low = t.toLowerCase(Locale.ROOT).strip();
    if (cell == timeColumn) {
      return time(low, text, line, cell);
    }
    if (low.matches("-+|nan|n/a|na|null|open|ol|ovld|\\?|err|error")) {
      return Double.NaN;
    }
    try {
      double v = Double.parseDouble(low.replaceAll("\\s*(°|º|deg)?\\s*[cfk]$", ""));
      if (Double.isFinite(v)) {
        return v;
      }
    } catch (NumberFormatException e) {
      // told below
    }
    bad = true;
    f.error(line, cell + 1, "expected a temperature, found '" + text + "'");
    return Double.NaN;
  }

  private double time(String low, String text, int line, int cell) {
    try {
      if (low.matches("\\d{1,3}:\\d{2}(:\\d{2})?([.]\\d+)?")) {
        String[] p = low.split(":");
        double s = 0;
        for (String one : p) {
          s = s * 60 + Double.parseDouble(one);
        }
        if (s + days < lastTime && lastTime - days > 43_200 && p.length == 3) {
          days += 86_400; // over midnight
        }
        return s + days;
      }
      if (low.matches("\\d{4}-\\d{2}-\\d{2}[t ].*")) {
        String iso = low.toUpperCase(Locale.ROOT).replace(' ', 'T');
        return iso.matches(".*(Z|[+-]\\d{2}:?\\d{2})$")
            ? seconds(OffsetDateTime.parse(iso).toInstant())
            : seconds(LocalDateTime.parse(iso).toInstant(ZoneOffset.UTC));
      }
      double v = Double.parseDouble(low.replaceAll("\\s*s$", ""));
      if (Double.isFinite(v)) {
        return v * timeScale;
      }
    } catch (NumberFormatException | DateTimeParseException e) {
      // told below
    }
    bad = true;
    f.error(line, cell + 1, "expected a time in seconds or h:mm:ss, found '" + text + "'");
    return Double.NaN;
  }

  private static double seconds(java.time.Instant i) {
    return i.getEpochSecond() + i.getNano() * 1e-9;
  }
}
