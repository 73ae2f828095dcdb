package ell.files.series;

import ell.core.series.Log;
import ell.core.series.Series;
import ell.files.Findings;
import ell.files.Read;
import ell.files.Looks;
import ell.files.Source;
import ell.files.TextFile;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.regex.Pattern;

/// Reads a log of any kind: rows of a time and one or more readings, parted by `;`, tab, `,` or
/// `|`; with a heading that says what they are, or without. Times must rise; they may be numbers,
/// `h:mm:ss` or dates. Cells that are empty or say `nan`, `open` or `-` are gaps.
///
/// It streams: a row is taken apart where it lies, with no text made of its numbers.
public final class LogReader {
  private static final int LONGEST_CELL = 80;

  /// As people and loggers write one; not what only a program takes for a number.
  private static final Pattern NUMBER =
      Pattern.compile("[+-]?+(\\d++(\\.\\d*+)?+|\\.\\d++)(e[+-]?+\\d{1,3}+)?+");

  private static final int MOST_ROWS = 20_000_000;

  private final Findings f;
  private final Sense sense;
  private final LogHeading head;
  private final TimeCell times;
  private final byte separator;
  private final byte point;
  private final int timeColumn;
  private final int[] columnOf;
  private final boolean[] takes;
  private final double[] row;

  private double[] time = new double[1 << 12];
  private double[][] values;
  private int rows;
  private boolean bad;
  private double lastTime = Double.NEGATIVE_INFINITY;
  private int gaps;

  private LogReader(Findings f, Sense sense, LogHeading head) {
    this.f = f;
    this.sense = sense;
    this.head = head;
    times = new TimeCell(head.timeScale());
    separator = (byte) head.separator();
    point = (byte) (head.comma() ? ',' : '.');
    timeColumn = head.timeColumn();
    columnOf = head.at().stream().mapToInt(Integer::intValue).toArray();
    int most = Math.max(timeColumn, Arrays.stream(columnOf).max().orElse(0));
    row = new double[most + 1];
    takes = new boolean[most + 1];
    takes[timeColumn] = true;
    for (int c : columnOf) {
      takes[c] = true;
    }
    values = new double[columnOf.length][time.length];
  }

  /// Reads a file.
  ///
  /// @param sense what its columns mean
  /// @return series in the unit of `sense`, without the gaps; flawed when a row cannot be read or
  ///   there are fewer than two
  /// @throws IOException when it cannot be read at all
  public static Read<Log> read(Source source, Sense sense) throws IOException {
    Findings f = new Findings(source.name());
    Optional<String> wrong = Looks.wrong(source, Looks.TEXT, "a log, CSV");
    if (wrong.isPresent()) {
      f.error(0, 0, wrong.get());
      return f.flawed();
    }
    TextFile.Encoding e = TextFile.encoding(source);
    if (e.charset().name().startsWith("UTF-16")) {
      f.error(0, 0, "UTF-16 text; save the log as UTF-8");
      return f.flawed();
    }
    LogHeading head = LogHeading.find(source, e, sense, f).orElse(null);
    if (head == null) {
      return f.flawed();
    }
    LogReader r = new LogReader(f, sense, head);
    try (InputStream in = source.open()) {
      in.skipNBytes(e.mark());
      r.body(in);
    }
    return f.failed() ? f.flawed() : r.done();
  }

  private Read<Log> done() {
    if (rows < 2) {
      f.error(0, 0, "fewer than two rows of numbers below the heading");
      return f.flawed();
    }
    List<Series> all = new ArrayList<>();
    for (int c = 0; c < columnOf.length; c++) {
      double[] t = new double[rows];
      double[] v = new double[rows];
      int n = 0;
      for (int i = 0; i < rows; i++) {
        if (!Double.isNaN(values[c][i])) {
          t[n] = time[i];
          v[n++] = scaled(values[c][i], head.columns().get(c));
        }
      }
      values[c] = null; // large logs should not lie in memory twice
      String name = head.columns().get(c).name();
      if (n < 2) {
        f.pass(head.line(), "channel " + name + " has no readings");
      } else if (!f.failed()) {
        all.add(new Series(name, Arrays.copyOf(t, n), Arrays.copyOf(v, n)));
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
    return f.done(new Log(all));
  }

  private double scaled(double v, Sense.Column column) {
    try {
      return column.scale().applyAsDouble(v);
    } catch (IllegalArgumentException e) {
      f.error(0, 0, "channel " + column.name() + ": " + e.getMessage());
      return 0;
    }
  }

  private void body(InputStream in) throws IOException {
    byte[] buffer = new byte[1 << 20];
    int have = 0;
    int line = 1;
    boolean end = false;
    while (!end && f.count() <= Findings.MOST) {
      int n = in.read(buffer, have, buffer.length - have);
      end = n < 0;
      have += Math.max(n, 0);
      int start = 0;
      for (int i = 0; i < have; i++) {
        if (buffer[i] == '\n') {
          row(buffer, start, i, line++);
          start = i + 1;
        }
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
      if (rows > MOST_ROWS) {
        f.error(line, 0, "more than " + MOST_ROWS + " rows");
        return;
      }
    }
  }

  private void row(byte[] b, int from, int to, int line) {
    if (line <= head.line()) {
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
    if (any) {
      keep(line);
    }
  }

  private void keep(int line) {
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

  private double number(byte[] b, int from, int to, int line, int cell) {
    int start = from;
    int end = to;
    while (start < end && (b[start] == ' ' || b[start] == '"')) {
      start++;
    }
    while (end > start && (b[end - 1] == ' ' || b[end - 1] == '"')) {
      end--;
    }
    if (start == end) {
      return Double.NaN;
    }
    double v = CellNumber.read(b, start, end, point);
    if (Double.isNaN(v)) {
      return longWay(new String(b, start, end - start, StandardCharsets.UTF_8), line, cell);
    }
    return cell == timeColumn ? times.seconds(v) : v;
  }

  private double longWay(String text, int line, int cell) {
    if (text.length() > LONGEST_CELL) {
      return refuse(line, cell, "a number", text.substring(0, LONGEST_CELL) + "...");
    }
    String low = (head.comma() ? text.replace(',', '.') : text).toLowerCase(Locale.ROOT).strip();
    if (cell == timeColumn) {
      OptionalDouble t = times.read(low, lastTime);
      return t.isPresent()
          ? t.getAsDouble()
          : refuse(line, cell, "a time in seconds or h:mm:ss", text);
    }
    if (low.matches("-+|nan|n/a|na|null|open|ol|ovld|\\?|err|error")) {
      return Double.NaN;
    }
    String plain = sense.withoutUnit(low);
    if (NUMBER.matcher(plain).matches()) {
      double v = Double.parseDouble(plain);
      if (Double.isFinite(v)) {
        return v;
      }
    }
    return refuse(line, cell, "a " + sense.reading(), text);
  }

  private double refuse(int line, int cell, String wanted, String found) {
    bad = true;
    f.error(line, cell + 1, "expected " + wanted + ", found '" + found + "'");
    return Double.NaN;
  }
}
