package ell.files.series;

import ell.core.series.Log;
import ell.core.series.Series;
import ell.files.Findings;
import ell.files.Read;
import ell.files.Source;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Reads a value change dump, the logic capture of IEEE 1364 (from memory): scopes, single wires,
/// vectors, real numbers. A wire is 0 and 1, a vector the number it spells; what is `x` or `z` is
/// no value, and counted.
///
/// It streams words; a change takes two numbers of memory.
public final class VcdReader {
  private static final int LONGEST_WORD = 4096;
  private static final int MOST_VARIABLES = 10_000;
  private static final int MOST_CHANGES = 20_000_000;
  private static final int MOST_BITS = 52;
  private static final Map<String, Double> UNITS =
      Map.of("s", 1.0, "ms", 1e-3, "us", 1e-6, "ns", 1e-9, "ps", 1e-12, "fs", 1e-15);

  private final Findings f;
  private final Map<String, Wire> wires = new HashMap<>();
  private final List<Wire> order = new ArrayList<>();
  private final List<String> scope = new ArrayList<>();
  private InputStream in = InputStream.nullInputStream();
  private int line = 1;
  private double scale = 1e-9;
  private boolean scaled;
  private double now = Double.NaN;
  private double first = Double.NaN;
  private int changes;

  private static final class Wire {
    final String name;
    final Growing seconds = new Growing();
    final Growing values = new Growing();
    double last = Double.NaN;
    int unknown;
    int count;

    Wire(String name) {
      this.name = name;
    }
  }

  private VcdReader(Findings f) {
    this.f = f;
  }

  /// Whether a file begins as one does.
  ///
  /// @throws IOException when it cannot be read at all
  static boolean looksLike(Source source) throws IOException {
    try (InputStream in = source.open()) {
      String head =
          new String(in.readNBytes(LONGEST_WORD), java.nio.charset.StandardCharsets.ISO_8859_1);
      return head.stripLeading().startsWith("$")
          && head.matches("(?s).*\\$(date|version|timescale|scope|var|comment)\\b.*");
    }
  }

  /// Reads a file.
  ///
  /// @return a series for each variable that changes, by its name and its scopes
  /// @throws IOException when it cannot be read at all
  public static Read<Log> read(Source source) throws IOException {
    VcdReader r = new VcdReader(new Findings(source.name()));
    try (InputStream in = new BufferedInputStream(source.open(), 1 << 16)) {
      r.in = in;
      r.words();
    }
    return r.done();
  }

  private Optional<String> word() throws IOException {
    int c = in.read();
    while (c >= 0 && c <= ' ') {
      line += c == '\n' ? 1 : 0;
      c = in.read();
    }
    if (c < 0) {
      return Optional.empty();
    }
    StringBuilder w = new StringBuilder();
    while (c > ' ') {
      if (w.length() == LONGEST_WORD) {
        f.error(line, 0, "a word of more than " + LONGEST_WORD + " characters");
        return Optional.empty();
      }
      w.append((char) c);
      c = in.read();
    }
    line += c == '\n' ? 1 : 0;
    return Optional.of(w.toString());
  }

  private void words() throws IOException {
    Optional<String> next;
    while (!f.failed() && (next = word()).isPresent()) {
      String w = next.get();
      switch (w.charAt(0)) {
        case '$' -> section(w);
        case '#' -> time(w.substring(1));
        case '0', '1', 'x', 'X', 'z', 'Z' -> change(w.substring(1), bit(w.charAt(0)));
        case 'b', 'B' -> change(word().orElse(""), bits(w.substring(1)));
        case 'r', 'R' -> change(word().orElse(""), real(w.substring(1)));
        default ->
            f.error(line, 0, "expected a change, a time or a section, found '" + shorten(w) + "'");
      }
    }
  }

  private void section(String word) throws IOException {
    switch (word) {
      case "$end",
          "$dumpvars",
          "$dumpall",
          "$dumpon",
          "$dumpoff" -> {} // changes stand between them
      case "$timescale" -> timescale(String.join("", untilEnd()));
      case "$scope" -> {
        List<String> w = untilEnd();
        scope.add(w.isEmpty() ? "" : w.getLast());
      }
      case "$upscope" -> {
        untilEnd();
        if (!scope.isEmpty()) {
          scope.removeLast();
        }
      }
      case "$var" -> variable(untilEnd());
      default -> untilEnd(); // a date, a version, a comment
    }
  }

  private List<String> untilEnd() throws IOException {
    List<String> all = new ArrayList<>();
    int began = line;
    Optional<String> w;
    while ((w = word()).isPresent()) {
      if (w.get().equals("$end")) {
        return all;
      }
      if (all.size() < 64) {
        all.add(w.get());
      }
    }
    f.error(began, 0, "a section without $end");
    return all;
  }

  private void timescale(String text) {
    String number = text.replaceAll("[^0-9].*", "");
    Double unit = UNITS.get(text.substring(number.length()));
    if (unit == null || !number.matches("1|10|100")) {
      f.error(line, 0, "expected a time scale such as 1 ns, found '" + shorten(text) + "'");
      return;
    }
    scale = Integer.parseInt(number) * unit;
    scaled = true;
  }

  private void variable(List<String> w) {
    if (w.size() < 4) {
      f.error(line, 0, "expected $var KIND BITS CODE NAME $end");
      return;
    }
    if (wires.size() >= MOST_VARIABLES) {
      f.error(line, 0, "more than " + MOST_VARIABLES + " variables");
      return;
    }
    String name = String.join("", w.subList(3, w.size()));
    List<String> path = new ArrayList<>(scope);
    path.add(name);
    Wire wire = new Wire(path.size() > 2 ? String.join(".", path.subList(1, path.size())) : name);
    if (wires.putIfAbsent(w.get(2), wire) == null) {
      order.add(wire); // another name of the same code is the same wire
    }
  }

  private void time(String text) {
    if (!text.matches("\\d{1,18}")) {
      f.error(line, 0, "expected a time, found '#" + shorten(text) + "'");
      return;
    }
    double t = Long.parseLong(text) * scale;
    if (t < now) {
      f.error(line, 0, "time does not go on: #" + text);
      return;
    }
    now = t;
    first = Double.isNaN(first) ? t : first;
  }

  private static double bit(char c) {
    return c == '0' ? 0 : c == '1' ? 1 : Double.NaN;
  }

  private double bits(String text) {
    if (!text.matches("[01xXzZ]{1,4096}")) {
      f.error(line, 0, "expected bits, found 'b" + shorten(text) + "'");
      return Double.NaN;
    }
    String plain = text.replaceFirst("^0+(?=.)", "");
    return plain.matches("[01]{1," + MOST_BITS + "}") ? Long.parseLong(plain, 2) : Double.NaN;
  }

  private double real(String text) {
    try {
      double v = Double.parseDouble(text);
      return Double.isFinite(v) ? v : Double.NaN;
    } catch (NumberFormatException e) {
      f.error(line, 0, "expected a number, found 'r" + shorten(text) + "'");
      return Double.NaN;
    }
  }

  private void change(String code, double v) {
    Wire w = wires.get(code);
    if (w == null) {
      f.error(line, 0, "no variable has the code '" + shorten(code) + "'");
      return;
    }
    if (++changes > MOST_CHANGES) {
      f.error(line, 0, "more than " + MOST_CHANGES + " changes");
      return;
    }
    double t = Double.isNaN(now) ? 0 : now;
    if (Double.isNaN(v)) {
      if (!Double.isNaN(w.last)) {
        w.seconds.add(t); // so long it was known
        w.values.add(w.last);
      }
      w.unknown++;
      w.last = v;
      return;
    }
    if (!Double.isNaN(w.last) && w.count > 0) {
      w.seconds.add(t); // it held until here
      w.values.add(w.last);
    }
    w.seconds.add(t);
    w.values.add(v);
    w.count++;
    w.last = v;
  }

  private Read<Log> done() {
    if (!f.failed() && order.isEmpty()) {
      f.error(0, 0, "no variable is declared; expected $var wire 1 ! CLK $end");
    }
    if (f.failed()) {
      return f.flawed();
    }
    if (!scaled) {
      f.guess("the time scale", "1 ns: the file says none", "");
    }
    double end = Double.isNaN(now) ? 0 : now;
    Map<String, Series> all = new LinkedHashMap<>();
    int still = 0;
    for (Wire w : order) {
      if (w.unknown > 0) {
        f.warn(0, 0, w.name + " is x or z " + w.unknown + (w.unknown == 1 ? " time" : " times"));
      }
      if (w.count == 0) {
        still++;
        continue;
      }
      if (!Double.isNaN(w.last)) {
        w.seconds.add(end);
        w.values.add(w.last);
      }
      String name = w.name;
      for (int n = 2; all.containsKey(name); n++) {
        name = w.name + " (" + n + ")";
      }
      all.put(name, new Series(name, w.seconds.take(), w.values.take()));
    }
    if (still > 0) {
      f.pass(0, still + (still == 1 ? " variable has" : " variables have") + " no value");
    }
    if (all.isEmpty() || !(end > first)) {
      f.error(0, 0, "nothing changes in time");
      return f.flawed();
    }
    return f.done(new Log(List.copyOf(all.values())));
  }

  private static String shorten(String s) {
    return s.length() > 40 ? s.substring(0, 40) + "..." : s;
  }
}
