package ell.files.series;

import ell.core.series.Log;
import ell.core.series.Series;
import ell.files.Findings;
import ell.files.LineEnds;
import ell.files.Looks;
import ell.files.Problem;
import ell.files.Read;
import ell.files.Source;
import ell.files.TextFile;
import ell.files.TwoBytes;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.DoubleUnaryOperator;
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

  /// More rows that cannot be read are no footer.
  private static final int MOST_FOOTER = 30;

  private static final int MOST_ROWS = 20_000_000;

  private final Findings f;
  private final Sense sense;
  private final LogHeading head;
  private final TimeCell times;
  private final CellNumber plain = new CellNumber();
  private final byte separator;
  private final byte point;
  private final int timeColumn;
  private final int dateColumn;
  private final int[] columnOf;
  private final boolean[] takes;
  private final double[] row;

  private final Growing allTimes = new Growing();
  private final Growing[] columns;
  private double[] time = {};
  private double[][] values = {};
  private int rows;
  private boolean bad;
  private boolean plainTimes = true;
  private String date = "";
  private String clock = "";

  /// Rows that could not be read, as long as no good one follows: then they are a footer.
  private final List<Problem> suspects = new ArrayList<>();

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
    dateColumn = head.dateColumn();
    int most = Math.max(Math.max(timeColumn, dateColumn), Arrays.stream(columnOf).max().orElse(0));
    row = new double[most + 1];
    takes = new boolean[most + 1];
    takes[timeColumn] = true;
    for (int c : columnOf) {
      takes[c] = true;
    }
    columns = new Growing[columnOf.length];
    Arrays.setAll(columns, _ -> new Growing());
  }

  /// Reads a file.
  ///
  /// @param sense what its columns mean
  /// @return series in the unit of `sense`, without the gaps; flawed when a row cannot be read or
  ///   there are fewer than two
  /// @throws IOException when it cannot be read at all
  public static Read<Log> read(Source file, Sense sense) throws IOException {
    Findings f = new Findings(file.name());
    Source source = TwoBytes.plain(file);
    Optional<String> wrong = Looks.wrong(source, Looks.TEXT, "a log, CSV");
    if (wrong.isPresent()) {
      f.error(0, 0, wrong.get());
      return f.flawed();
    }
    TextFile.Encoding e = TextFile.encoding(source);
    if (e.charset().name().startsWith("UTF-16")) {
      f.error(0, 0, "a large log in UTF-16; save it as UTF-8");
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
    footer();
    if (f.failed()) {
      return f.flawed();
    }
    if (rows < 2) {
      f.error(0, 0, "fewer than two rows of numbers below the heading");
      return f.flawed();
    }
    time = allTimes.take();
    values = new double[columns.length][];
    Arrays.setAll(values, c -> columns[c].take());
    spread();
    unstatedTimes();
    List<DoubleUnaryOperator> scales = scales();
    Log.Clock times = new Log.Clock(time);
    List<Series> all = new ArrayList<>();
    for (int c = 0; c < columnOf.length; c++) {
      Sense.Column column = head.columns().get(c);
      double[] v = values[c];
      values[c] = null; // large logs should not lie in memory twice
      scale(v, column, scales.get(c));
      if (f.failed()) {
        return f.flawed();
      }
      Series read = times.column(column.name(), v);
      if (read.size() < 2) {
        f.pass(head.line(), "channel " + column.name() + " has no readings");
      } else {
        all.add(read);
      }
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

  private void scale(double[] v, Sense.Column column, DoubleUnaryOperator scale) {
    try {
      for (int i = 0; i < rows; i++) {
        v[i] = Double.isNaN(v[i]) ? v[i] : scale.applyAsDouble(v[i]);
      }
    } catch (IllegalArgumentException e) {
      f.error(0, 0, "channel " + column.name() + ": " + e.getMessage());
    }
  }

  /// Rows behind the last good one, as maxima and remarks.
  private void footer() {
    if (suspects.size() > MOST_FOOTER || rows < 2) {
      suspects.forEach(p -> f.error(p.line(), p.column(), p.message()));
    } else {
      suspects.forEach(p -> f.pass(p.line(), "behind the last reading: " + p.message()));
    }
  }

  /// Rows of one time, as clocks without tenths write them, lie evenly up to the next; the last
  /// ones within as much as those before them.
  private void spread() {
    int shared = 0;
    double before = 1;
    for (int i = 0; i < rows; ) {
      int k = i + 1;
      double first = time[i];
      while (k < rows && time[k] == first) {
        k++;
      }
      double step = k < rows ? Math.min(1, time[k] - first) : before;
      if (k - i > 1) {
        for (int n = i + 1; n < k; n++) {
          time[n] = first + step * (n - i) / (k - i);
          shared++;
        }
      }
      before = step;
      i = k;
    }
    if (shared > 0) {
      f.warn(
          0,
          0,
          shared
              + (shared == 1 ? " row has" : " rows have")
              + " the time of the row before: spread evenly up to the next");
    }
  }

  /// Plain times whose heading says no unit.
  private void unstatedTimes() {
    if (head.timeStated() || !plainTimes) {
      return;
    }
    sense
        .unstatedTime(time[rows - 1] - time[0], rows)
        .ifPresent(t -> {
          for (int i = 0; i < rows; i++) {
            time[i] = t.scale().applyAsDouble(time[i]);
          }
          guess("the unit of the times", t);
        });
  }

  private void guess(String what, Sense.Taken t) {
    if (!t.unit().isEmpty()) {
      f.guess(what, t.unit(), t.answer());
    }
  }

  /// How each column becomes the unit that is wanted; those that do not say theirs all alike.
  private List<DoubleUnaryOperator> scales() {
    List<DoubleUnaryOperator> all = new ArrayList<>();
    List<double[]> unstated = new ArrayList<>();
    List<String> names = new ArrayList<>();
    for (int c = 0; c < columnOf.length; c++) {
      Sense.Column column = head.columns().get(c);
      all.add(column.scale());
      double[] own =
          column.stated()
              ? new double[0]
              : Arrays.stream(values[c], 0, rows).filter(v -> !Double.isNaN(v)).toArray();
      if (own.length > 0) {
        unstated.add(own);
        names.add(column.name());
      }
    }
    if (!unstated.isEmpty()) {
      sense
          .unstated(unstated)
          .ifPresent(t -> {
            for (int c = 0; c < columnOf.length; c++) {
              if (!head.columns().get(c).stated()) {
                all.set(c, t.scale());
              }
            }
            guess("the unit of " + String.join(", ", names.stream().limit(6).toList()), t);
          });
    }
    return all;
  }

  private void body(InputStream in) throws IOException {
    byte[] buffer = new byte[1 << 20];
    int have = 0;
    int line = 1;
    boolean end = false;
    boolean afterReturn = false;
    while (!end && f.count() <= Findings.MOST) {
      int n = in.read(buffer, have, buffer.length - have);
      end = n < 0;
      have += Math.max(n, 0);
      int start = 0;
      int looked = have - Math.max(n, 0);
      for (int i = looked; i < have; i++) {
        if (buffer[i] != '\n' && buffer[i] != '\r') {
          i = LineEnds.next(buffer, i, have);
          if (i == have) {
            break;
          }
        }
        if (buffer[i] == '\n' && i == start && afterReturn) {
          start = i + 1; // the second half of CRLF
          afterReturn = false;
        } else if (buffer[i] == '\n' || buffer[i] == '\r') {
          row(buffer, start, i, line++);
          start = i + 1;
          afterReturn = buffer[i] == '\r';
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
    date = "";
    clock = "";
    while (at <= end && cell < row.length) {
      if (takes[cell] && (cell != timeColumn || dateColumn < 0)) {
        int behind = plain.read(b, at, end, separator, point);
        if (behind >= 0) {
          row[cell] = cell == timeColumn ? times.seconds(plain.value()) : plain.value();
          any = true;
          cell++;
          at = behind + 1;
          continue;
        }
      }
      int stop = at;
      while (stop < end && b[stop] != separator) {
        stop++;
      }
      if (cell == dateColumn) {
        date = text(b, at, stop);
      } else if (cell == timeColumn && dateColumn >= 0) {
        clock = text(b, at, stop);
      } else if (takes[cell]) {
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
    if (any && dateColumn >= 0) {
      plainTimes = false;
      OptionalDouble t = times.read(date, clock);
      if (t.isEmpty()) {
        suspect(
            line, timeColumn + 1, "expected a date and a time, found '" + date + " " + clock + "'");
        return;
      }
      row[timeColumn] = t.getAsDouble();
    }
    if (any) {
      keep(line);
    }
  }

  private static String text(byte[] b, int from, int to) {
    String s = new String(b, from, Math.min(to - from, LONGEST_CELL), StandardCharsets.UTF_8);
    return s.replace("\"", "").strip().toLowerCase(Locale.ROOT);
  }

  /// A row that could not be read; whether it is a footer shows when the file ends.
  private void suspect(int line, int column, String message) {
    suspects.add(new Problem("", line, column, message));
    if (suspects.size() > Findings.MOST) {
      flush();
    }
  }

  private void flush() {
    suspects.forEach(p -> f.error(p.line(), p.column(), p.message()));
    suspects.clear();
  }

  private void keep(int line) {
    double t = row[timeColumn];
    if (Double.isNaN(t)) {
      suspect(line, timeColumn + 1, "no time in this row");
      return;
    }
    if (!suspects.isEmpty()) {
      flush(); // what cannot be read stands amid the readings
    }
    if (t < lastTime) {
      f.error(
          line,
          timeColumn + 1,
          String.format(Locale.ROOT, "time does not go on: %.6g s after %.6g s", t, lastTime));
      return;
    }
    lastTime = t;
    allTimes.add(t);
    for (int c = 0; c < columns.length; c++) {
      double v = row[columnOf[c]];
      gaps += Double.isNaN(v) ? 1 : 0;
      columns[c].add(v);
    }
    rows++;
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
    // blanks or quotes stood around it, or the last cell's end
    return plain.read(b, start, end, separator, point) == end
        ? cell == timeColumn ? times.seconds(plain.value()) : plain.value()
        : longWay(new String(b, start, end - start, StandardCharsets.UTF_8), line, cell);
  }

  private double longWay(String text, int line, int cell) {
    if (text.length() > LONGEST_CELL) {
      return refuse(line, cell, "a number", text.substring(0, LONGEST_CELL) + "...");
    }
    String low = (head.comma() ? text.replace(',', '.') : text).toLowerCase(Locale.ROOT).strip();
    if (cell == timeColumn) {
      OptionalDouble t = times.read(low, lastTime);
      plainTimes &= t.isEmpty();
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
    suspect(line, cell + 1, "expected " + wanted + ", found '" + found + "'");
    return Double.NaN;
  }
}
