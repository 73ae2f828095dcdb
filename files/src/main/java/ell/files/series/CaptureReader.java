package ell.files.series;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.series.Log;
import ell.core.series.Series;
import ell.files.Findings;
import ell.files.Looks;
import ell.files.Read;
import ell.files.Source;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Reads a capture: a value change dump, as [VcdReader] does, or CSV of a scope: rows of a time and
/// the volts of one or more channels, as [LogReader] reads them; or rows of volts alone, where the
/// heading says how far apart they are.
public final class CaptureReader {
  private static final int LOOKED_AT = 80;
  private static final int LONGEST_LINE = 1 << 16;
  private static final int MOST_ROWS = 50_000_000;
  private static final String NUMBER = "([+-]?[\\d.,]+(?:[eE][+-]?\\d+)?\\s*[a-zA-Zµμ/]*)";
  private static final String BETWEEN = "[\\s:=,;\"]+"; // no sign
  private static final Pattern STEP =
      Pattern.compile(
          "(?i)^\\W*(?:x ?)?(?:increment|interval|sample interval|sampling period|sample period|delta"
              + " ?t|dt|step|time ?step)"
              + BETWEEN
              + NUMBER
              + "\\W*$");
  private static final Pattern RATE =
      Pattern.compile(
          "(?i)^\\W*(?:sample ?rate|sampling ?rate|rate|sampling frequency)"
              + BETWEEN
              + NUMBER
              + "\\W*$");
  private static final Pattern START =
      Pattern.compile(
          "(?i)^\\W*(?:x ?)?(?:start|start time|origin|first|offset|zero)"
              + BETWEEN
              + NUMBER
              + "\\W*$");

  private CaptureReader() {}

  /// Reads a file.
  ///
  /// @return channels in volt
  /// @throws IOException when it cannot be read at all
  public static Read<Log> read(Source source) throws IOException {
    Findings f = new Findings(source.name());
    Optional<String> wrong = Looks.wrong(source, Looks.TEXT, "a capture, CSV");
    if (wrong.isPresent()) {
      f.error(0, 0, wrong.get());
      return f.flawed();
    }
    if (VcdReader.looksLike(source)) {
      return VcdReader.read(source);
    }
    Optional<Stepped> stepped = Stepped.find(source, f);
    if (f.failed()) {
      return f.flawed();
    }
    return stepped.isPresent()
        ? stepped.get().read(source, f)
        : LogReader.read(source, new Voltages());
  }

  private static List<String> head(Source source) throws IOException {
    List<String> lines = new ArrayList<>();
    try (BufferedReader in =
        new BufferedReader(new InputStreamReader(source.open(), StandardCharsets.UTF_8))) {
      StringBuilder line = new StringBuilder();
      int c;
      while (lines.size() < LOOKED_AT && (c = in.read()) >= 0 && line.length() < LONGEST_LINE) {
        if (c == '\n') {
          lines.add(line.toString().replace("\uFEFF", "").strip());
          line.setLength(0);
        } else {
          line.append((char) c);
        }
      }
      lines.add(line.toString().strip());
    }
    return lines;
  }

  /// Rows of volts that are evenly apart.
  private record Stepped(
      double step, double start, int firstRow, char separator, boolean comma, List<String> names) {
    static Optional<Stepped> find(Source source, Findings f) throws IOException {
      double step = 0;
      double start = 0;
      int stated = 0; // the line that says how far apart rows are
      List<String> lines = head(source);
      int first = -1;
      char separator = ',';
      for (int i = 0; i < lines.size() && first < 0; i++) {
        String l = lines.get(i);
        Matcher m;
        if ((m = STEP.matcher(l)).matches()) {
          step = number(m.group(1), Unit.SECOND);
          stated = i + 1;
        } else if ((m = RATE.matcher(l)).matches()) {
          double rate = number(m.group(1).replaceAll("(?i)sa/s|sps|s/s", "Hz"), Unit.HERTZ);
          step = 1 / rate;
          stated = i + 1;
        } else if ((m = START.matcher(l)).matches()) {
          start = number(m.group(1), Unit.SECOND);
        } else {
          for (char sep : new char[] {';', '\t', ','}) {
            String[] cells = cells(l, sep);
            boolean comma = sep == ';' && l.indexOf(',') >= 0;
            if (first < 0 && cells.length > 0 && numbers(cells, comma)) {
              first = i;
              separator = sep;
            }
          }
        }
      }
      if (stated > 0 && !(step > 0 && Double.isFinite(step))) {
        f.error(
            stated,
            0,
            "expected an increment or a rate above 0, found '" + lines.get(stated - 1) + "'");
        return Optional.empty();
      }
      if (!(step > 0) || first < 0 || Double.isNaN(start)) {
        return Optional.empty();
      }
      String[] row = cells(lines.get(first), separator);
      List<String> names = new ArrayList<>();
      String[] above = first > 0 ? cells(lines.get(first - 1), separator) : new String[0];
      boolean named = above.length == row.length && !STEP.matcher(lines.get(first - 1)).matches();
      if (named && Arrays.stream(above).anyMatch(TimeCell::heading)) {
        return Optional.empty(); // the rows have times of their own
      }
      boolean heads =
          named
              && !RATE.matcher(lines.get(first - 1)).matches()
              && !START.matcher(lines.get(first - 1)).matches();
      for (int c = 0; c < row.length; c++) {
        names.add(heads && !above[c].isBlank() ? above[c] : "CH" + (c + 1));
      }
      boolean comma = separator == ';' && lines.get(first).indexOf(',') >= 0;
      return Optional.of(new Stepped(step, start, first, separator, comma, names));
    }

    private static double number(String text, Unit unit) {
      try {
        return EngineeringNumber.parse(text.strip(), unit);
      } catch (NumberFormatException e) {
        return Double.NaN;
      }
    }

    private static String[] cells(String line, char separator) {
      String[] all = line.split(Pattern.quote(String.valueOf(separator)), -1);
      for (int i = 0; i < all.length; i++) {
        all[i] = all[i].replace("\"", "").strip();
      }
      int n = all.length;
      while (n > 0 && all[n - 1].isEmpty()) {
        n--;
      }
      return Arrays.copyOf(all, n);
    }

    private static boolean numbers(String[] cells, boolean comma) {
      for (String c : cells) {
        String plain = comma ? c.replace(',', '.') : c;
        if (!plain.matches("[+-]?(\\d+(\\.\\d*)?|\\.\\d+)([eE][+-]?\\d{1,3})?")) {
          return false;
        }
      }
      return true;
    }

    Read<Log> read(Source source, Findings f) throws IOException {
      Growing[] columns = new Growing[names.size()];
      Arrays.setAll(columns, _ -> new Growing());
      int rows = 0;
      int number = 0;
      try (BufferedReader in =
          new BufferedReader(new InputStreamReader(source.open(), StandardCharsets.UTF_8))) {
        String line;
        while ((line = in.readLine()) != null && f.count() <= Findings.MOST) {
          number++;
          if (number <= firstRow || line.isBlank() || line.startsWith("#")) {
            continue;
          }
          String[] cells = cells(line, separator);
          if (cells.length < columns.length
              || !numbers(Arrays.copyOf(cells, columns.length), comma)) {
            f.error(
                number,
                0,
                "expected " + columns.length + " voltages, found '" + shorten(line) + "'");
            continue;
          }
          if (++rows > MOST_ROWS) {
            f.error(number, 0, "more than " + MOST_ROWS + " rows");
            break;
          }
          for (int c = 0; c < columns.length; c++) {
            columns[c].add(Double.parseDouble(comma ? cells[c].replace(',', '.') : cells[c]));
          }
        }
      }
      if (rows < 2 && !f.failed()) {
        f.error(0, 0, "fewer than two rows of numbers below the heading");
      }
      if (f.failed()) {
        return f.flawed();
      }
      double[] seconds = new double[rows];
      for (int i = 0; i < rows; i++) {
        seconds[i] = start + i * step;
      }
      Log.Clock clock = new Log.Clock(seconds);
      Voltages volts = new Voltages();
      List<Series> all = new ArrayList<>();
      for (int c = 0; c < columns.length; c++) {
        Sense.Column column =
            volts.column(names.get(c)).orElse(new Sense.Column(names.get(c), v -> v));
        double[] v = columns[c].take();
        for (int i = 0; i < v.length; i++) {
          v[i] = column.scale().applyAsDouble(v[i]);
        }
        all.add(clock.column(column.name(), v));
      }
      f.found(
          String.format(
              Locale.ROOT,
              "%d samples every %s",
              rows,
              EngineeringNumber.print(step, Unit.SECOND, 4)));
      return f.done(new Log(all));
    }

    private static String shorten(String s) {
      return s.length() > 60 ? s.substring(0, 60) + "..." : s;
    }
  }
}
