package ell.files.series;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.files.Findings;
import ell.files.Source;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// The heading of a capture whose rows are volts alone: it says how far apart they are.
///
/// @param step seconds from row to row
/// @param start seconds of the first
/// @param firstRow line of the first row, counted from 0
/// @param comma whether a comma stands before the tenths
record SteppedHeading(
    double step, double start, int firstRow, char separator, boolean comma, List<String> names) {
  /// What stands for a sample that is missing is no name.
  private static final Pattern GAP = Pattern.compile("(?i)|nan|[+-]?inf(inity)?|[-–]+");

  private static final int LOOKED_AT = 80;
  private static final int LONGEST_LINE = 1 << 16;
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

  static Optional<SteppedHeading> find(Source source, Findings f) throws IOException {
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
      names.add(heads && !GAP.matcher(above[c]).matches() ? above[c] : "CH" + (c + 1));
    }
    boolean comma = separator == ';' && lines.get(first).indexOf(',') >= 0;
    return Optional.of(new SteppedHeading(step, start, first, separator, comma, names));
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
}
