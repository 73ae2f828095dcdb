package ell.files.series;

import ell.files.Findings;
import ell.files.Source;
import ell.files.TextFile;
import ell.files.Tidy;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.Reader;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;

/// What stands above the rows of a log: how cells are parted, where the time is, which columns are
/// readings.
///
/// @param line rows are below it; 0 when the first line is a row
/// @param comma whether a comma stands before the tenths
/// @param dateColumn where dates stand beside the times, negative when nowhere
/// @param timeStated whether the heading says the unit of the times
/// @param timeScale second in one of a plain number
/// @param at the column in the file of each reading
/// @param columns what each of them is
record LogHeading(
    int line,
    char separator,
    boolean comma,
    int timeColumn,
    int dateColumn,
    boolean timeStated,
    double timeScale,
    List<Integer> at,
    List<Sense.Column> columns) {
  private static final int LOOKED_AT = 80;
  private static final int LONGEST_LINE = 1 << 16;
  private static final int MOST_CELL = 200;
  private static final int MOST_COLUMNS = 256;
  private static final char[] SEPARATORS = {';', '\t', ',', '|'};

  /// Looks for it in the first lines of a file, and says what it passed over.
  ///
  /// @return empty when there is none; then `f` says why
  /// @throws IOException when the file cannot be read
  static Optional<LogHeading> find(Source source, TextFile.Encoding e, Sense sense, Findings f)
      throws IOException {
    List<String> head = new ArrayList<>();
    try (Reader in = TextFile.open(source, e);
        BufferedReader lines = new BufferedReader(in)) {
      String l;
      while (head.size() < LOOKED_AT && (l = bounded(lines)) != null) {
        head.add(l);
      }
    }
    for (int i = 0; i < head.size(); i++) {
      for (char sep : SEPARATORS) {
        if (isHeading(head.get(i), sep)) {
          return named(head, i, sep, sense, f);
        }
      }
    }
    for (int i = 0; i < head.size(); i++) {
      for (char sep : SEPARATORS) {
        if (isNumbers(head.get(i), sep) && cells(head.get(i), sep).length > MOST_COLUMNS) {
          f.error(i + 1, 0, "more than " + MOST_COLUMNS + " columns");
          return Optional.empty();
        }
        if (isNumbers(head.get(i), sep)) {
          return Optional.of(unnamed(head.get(i), i, sep, sense, f));
        }
      }
    }
    f.error(
        1,
        0,
        "expected a heading with time and at least one "
            + sense.reading()
            + ", such as: "
            + sense.example());
    return Optional.empty();
  }

  private static Optional<LogHeading> named(
      List<String> head, int at, char sep, Sense sense, Findings f) {
    for (int i = 0; i < at; i++) {
      if (!head.get(i).isBlank()) {
        f.pass(i + 1, "before the heading: " + head.get(i));
      }
    }
    String[] cells = cells(unmarked(head.get(at)), sep);
    if (cells.length > MOST_COLUMNS) {
      f.error(at + 1, 0, cells.length + " columns; at most " + MOST_COLUMNS + " are read");
      return Optional.empty();
    }
    // a second row of the heading may hold the units
    int first = at + 1;
    if (first < head.size() && isUnits(head.get(first), sep)) {
      String[] units = cells(head.get(first), sep);
      for (int i = 0; i < Math.min(units.length, cells.length); i++) {
        if (!units[i].isEmpty() && !cells[i].isEmpty()) {
          cells[i] += " [" + units[i].replaceAll("[\\[\\]()]", "") + "]";
        }
      }
      first++;
    }
    int time = -1;
    int date = -1;
    for (int i = 0; i < cells.length; i++) {
      if (date < 0 && TimeCell.date(cells[i])) {
        date = i;
      } else if (time < 0 && TimeCell.heading(cells[i])) {
        time = i;
      }
    }
    if (time < 0) {
      time = date; // date and time in one column
      date = -1;
    }
    List<String[]> rows =
        head.subList(first, head.size()).stream().map(row -> cells(row, sep)).toList();
    List<Integer> places = new ArrayList<>();
    List<Sense.Column> columns = new ArrayList<>();
    for (int i = 0; i < cells.length; i++) {
      if (i == time || i == date) {
        continue;
      }
      if (!cells[i].isEmpty() && isText(rows, i)) {
        f.pass(at + 1, "column " + cells[i] + " holds words");
        continue;
      }
      Optional<Sense.Column> column = sense.column(cells[i]);
      if (column.isPresent() && !cells[i].isEmpty()) {
        places.add(i);
        columns.add(column.get());
      } else if (!cells[i].isEmpty()) {
        f.pass(at + 1, "column " + cells[i] + " is no " + sense.reading());
      }
    }
    if (columns.isEmpty()) {
      f.error(at + 1, 0, "no column of " + sense.reading() + " beside " + cells[time]);
      return Optional.empty();
    }
    boolean comma = sep != ',' && decimalComma(head.subList(first, head.size()), sep);
    return Optional.of(
        new LogHeading(
            first,
            sep,
            comma,
            time,
            date,
            TimeCell.states(cells[time]),
            TimeCell.scale(cells[time]),
            places,
            columns));
  }

  private static LogHeading unnamed(String line, int at, char sep, Sense sense, Findings f) {
    List<Integer> places = new ArrayList<>();
    List<Sense.Column> columns = new ArrayList<>();
    int n = cells(line, sep).length;
    for (int i = 1; i < n; i++) {
      places.add(i);
      columns.add(sense.unnamed(i));
    }
    f.warn(
        0, 0, "no heading: the first column was taken as seconds, the others as " + sense.unit());
    return new LogHeading(
        at, sep, sep != ',' && decimalComma(List.of(line), sep), 0, -1, false, 1, places, columns);
  }

  private static String bounded(BufferedReader in) throws IOException {
    StringBuilder s = new StringBuilder();
    int c;
    while ((c = in.read()) >= 0 && c != '\n' && c != '\r') {
      if (s.length() < LONGEST_LINE) {
        s.append((char) c);
      }
    }
    if (c == '\r') {
      in.mark(1);
      if (in.read() != '\n') {
        in.reset();
      }
    }
    return c < 0 && s.isEmpty() ? null : s.toString();
  }

  /// Whether a row holds nothing but units.
  private static boolean isUnits(String line, char sep) {
    String[] cells = cells(line, sep);
    return cells.length >= 2
        && Arrays.stream(cells).anyMatch(c -> !c.isEmpty())
        && Arrays.stream(cells)
            .allMatch(c ->
                c.toLowerCase(Locale.ROOT)
                    .matches(
                        "[\\[(]?(|s|sec|secs|seconds?|ms|min|minutes?|h|hh?:mm(:ss)?|(°|º|deg)?\\s*[cfk]|celsius|fahrenheit|kelvin|mv|v|a|w|%|rpm|-)[\\])]?"));
  }

  /// Whether the cells of a column are words, in the first rows.
  private static boolean isText(List<String[]> rows, int column) {
    int words = 0;
    int numbers = 0;
    for (String[] cells : rows) {
      String c = column < cells.length ? cells[column].toLowerCase(Locale.ROOT) : "";
      if (c.matches("-*|nan|n/a|na|null|open|ol|ovld|\\?|err|error")) {
        continue;
      }
      if (c.matches("[+-]?\\d.*|[+-]?[.,]\\d.*")) {
        numbers++;
      } else {
        words++;
      }
    }
    return words > numbers;
  }

  private static String unmarked(String line) {
    return line.startsWith("#") ? line.substring(1).strip() : line;
  }

  private static String[] cells(String line, char sep) {
    String[] cells = line.split(Pattern.quote(String.valueOf(sep)), -1);
    for (int i = 0; i < cells.length; i++) {
      String cell = Tidy.cell(cells[i].length() > MOST_CELL ? "" : cells[i]);
      cell = cell.startsWith("\"") ? cell.substring(1) : cell;
      cell = cell.endsWith("\"") ? cell.substring(0, cell.length() - 1) : cell;
      cells[i] = cell.strip();
    }
    return cells;
  }

  private static boolean isHeading(String line, char sep) {
    if (line.startsWith("#") && line.indexOf(sep) < 0) {
      return false;
    }
    String[] cells = cells(unmarked(line), sep);
    return cells.length >= 2
        && Arrays.stream(cells).anyMatch(TimeCell::heading)
        && Arrays.stream(cells).noneMatch(c -> c.matches("[+-]?+\\d++([.,]\\d++)?+"));
  }

  private static boolean isNumbers(String line, char sep) {
    String[] cells = cells(line, sep);
    return cells.length >= 2
        && Arrays.stream(cells)
            .allMatch(c -> c.matches("[+-]?+(\\d++([.,]\\d*+)?+|[.,]\\d++)([eE][+-]?+\\d++)?+"))
        && !(sep == ',' && cells.length == 2 && line.indexOf(' ') >= 0);
  }

  private static boolean decimalComma(List<String> lines, char sep) {
    return lines.stream()
        .limit(20)
        .anyMatch(l -> Arrays.stream(cells(l, sep)).anyMatch(c -> c.matches("[+-]?+\\d++,\\d++")));
  }
}
