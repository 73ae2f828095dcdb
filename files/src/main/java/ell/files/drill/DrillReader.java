package ell.files.drill;

import ell.core.artwork.Arcs;
import ell.core.artwork.Drilling;
import ell.core.artwork.Drilling.Hole;
import ell.files.Findings;
import ell.files.Looks;
import ell.files.Read;
import ell.files.Source;
import ell.files.TextFile;
import java.io.BufferedReader;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Reads drill files: XNC, and Excellon as found in the wild. Header with unit and zeros, tools,
/// hits, slots (`G85`, or routed with or without `M15`, `M16`), repeats (`R`), patterns laid down
/// again (`M25`, `M01`, `M02X..Y..`), plated or not by attribute, comment or name. Millimetre.
public final class DrillReader {
  private static final Pattern WORD = Pattern.compile("([XYIJA])([+-]?[\\d.]+)");
  private static final Pattern REPEAT = Pattern.compile("R(\\d{1,7})(?:M02)?(.*)");
  private static final Pattern FUNCTION = Pattern.compile("G(\\d{2})");
  private static final Pattern REMARK = Pattern.compile("\\([^)]*\\)");
  private static final Pattern NOT_PLATED =
      Pattern.compile(".*(NON?[-_ ]?PLATED|NOT[-_ ]?PLATED|UNPLATED|NPTH).*");
  private static final int MOST = 2_000_000;
  private static final int MOST_LINES = 4_000_000;
  private static final int LONGEST = 4000;

  /// No hole of a board lies further from the origin, in millimetre.
  private static final double FARTHEST_MM = 2000;

  private final Findings f;
  private final List<String> lines;
  private final DrillNumbers numbers = new DrillNumbers();
  private final DrillTools tools = new DrillTools();
  private final List<Hole> holes = new ArrayList<>();
  private boolean header;
  private boolean ended;
  private boolean incremental;
  private Optional<Boolean> plated = Optional.empty();
  private int tool = -1;
  private double x;
  private double y;
  private boolean down;
  private boolean plunges; // whether the file says when the bit is down
  private boolean routes;
  private int motion = -1; // -1 drills, 0 moves, 1 routs straight, 2 and 3 arcs
  private boolean slotNext; // a G85 without its end
  private int patternFrom = -1;
  private int patternTo = -1;
  private double patternX;
  private double patternY;
  private int copies;
  private int line;

  private DrillReader(Findings f, List<String> lines) {
    this.f = f;
    this.lines = lines;
  }

  /// Reads a file.
  ///
  /// @throws IOException when it cannot be read at all
  public static Read<Drilling> read(Source source) throws IOException {
    Findings f = new Findings(source.name());
    Optional<String> wrong = Looks.wrong(source, Looks.DRILL, "a drill file");
    if (wrong.isPresent()) {
      f.error(0, 0, wrong.get());
      return f.flawed();
    }
    List<String> lines = new ArrayList<>();
    try (BufferedReader in = new BufferedReader(TextFile.open(source, TextFile.encoding(source)))) {
      String l;
      while ((l = in.readLine()) != null && lines.size() < MOST_LINES) {
        lines.add(l.replace("\0", "").strip());
      }
    }
    return new DrillReader(f, lines).run(source.name());
  }

  private Read<Drilling> run(String name) {
    beforehand();
    boolean any = false;
    for (String l : lines) {
      line++;
      if (ended || f.count() > Findings.MOST) {
        break;
      }
      try {
        if (l.length() > LONGEST) {
          throw new IllegalArgumentException("a line of " + l.length() + " characters");
        }
        any |= take(l);
      } catch (DrillNumbers.NotStated e) {
        f.error(line, 0, e.getMessage() + ", found '" + l + "'"); // one cause is one problem
        break;
      } catch (NumberFormatException e) {
        f.error(line, 0, "a number that cannot be read in '" + l + "'");
      } catch (IllegalArgumentException e) {
        f.error(line, 0, e.getMessage() + ", found '" + l + "'");
      }
    }
    if (!f.failed() && holes.isEmpty() && !any) {
      f.error(0, 0, "no tool and no hole in it; expected M48, a unit, and tools such as T01C0.300");
    }
    if (f.failed()) {
      return f.flawed();
    }
    tell(name);
    return f.done(new Drilling(holes));
  }

  private void tell(String name) {
    if (holes.isEmpty()) {
      f.found("no holes");
    }
    if (!ended) {
      f.warn(line, 0, "no end of file: expected M30");
    }
    if (copies > 0) {
      f.found("a pattern laid down " + (copies + 1) + " times");
    }
    List<Integer> remarked = tools.fromRemarks();
    if (!remarked.isEmpty()) {
      f.guess(
          "the size of " + remarked.size() + " tools, but in comments,",
          String.join(
              ", ",
              remarked.stream()
                  .sorted()
                  .map(n ->
                      String.format(Locale.ROOT, "T%d %.3g mm", n, tools.diameter(n).orElseThrow()))
                  .toList()),
          "");
    }
    if (holes.stream().allMatch(h -> h.plated().isEmpty()) && !holes.isEmpty()) {
      String n = name.toUpperCase(Locale.ROOT);
      boolean not = NOT_PLATED.matcher(n).matches();
      if (not || n.matches(".*(PTH|PLATED).*")) {
        f.guess(
            "whether its holes are plated", not ? "not, by its name" : "plated, by its name", "");
        holes.replaceAll(
            h -> new Hole(h.x(), h.y(), h.toX(), h.toY(), h.diameter(), Optional.of(!not)));
      }
    }
  }

  /// What holds for the whole file and may stand behind what needs it: unit, format, sizes in
  /// comments, whether routes say when the bit is down.
  private void beforehand() {
    List<String> plain = new ArrayList<>();
    List<String> comments = new ArrayList<>();
    List<Double> sizes = new ArrayList<>();
    for (String l : lines) {
      String u = l.toUpperCase(Locale.ROOT);
      if (u.length() > LONGEST) {
        continue;
      }
      if (u.startsWith(";") || u.startsWith("//") || u.startsWith("(")) {
        comments.add(u.replaceFirst("^[;/(\\s]+", ""));
        continue;
      }
      if (u.startsWith("METRIC") || u.startsWith("INCH") || u.equals("M71") || u.equals("M72")) {
        numbers.units(u);
      }
      DrillTools.size(u).ifPresent(sizes::add);
      plunges |= u.equals("M15") || u.equals("M14");
      routes |= u.startsWith("G00") || plunges;
      plain.add(u);
    }
    for (String c : comments) {
      String u = c.replace(" ", "");
      if (u.startsWith("FILE_FORMAT=") || u.startsWith("FORMAT=")) {
        numbers.format(u);
      }
      if (!numbers.unit() && u.matches("(UNITS?[:=]?)?(METRIC|MM|MILLIMET(ER|RE)S?).*")) {
        numbers.units("METRIC");
      } else if (!numbers.unit() && u.matches("(UNITS?[:=]?)?(INCH|INCHES|IMPERIAL).*")) {
        numbers.units("INCH");
      }
    }
    numbers.decide(plain, sizes, f);
    comments.forEach(c -> tools.remark(c, numbers.mm()));
  }

  /// @return whether the line says something of a drill file
  private boolean take(String written) {
    String l = written;
    if (l.isEmpty()) {
      return false;
    }
    if (l.startsWith(";") || l.startsWith("//")) {
      comment(l.replaceFirst("^[;/\\s]+", ""));
      return false;
    }
    l = REMARK.matcher(l).replaceAll("").strip();
    int remark = l.indexOf(';');
    if (remark >= 0) {
      l = l.substring(0, remark).strip();
    }
    String u = l.toUpperCase(Locale.ROOT);
    if (u.isEmpty()) {
      return false;
    }
    if (u.equals("M48")) {
      header = true;
    } else if (u.equals("%") || u.equals("M95")) {
      header = false;
    } else if (u.startsWith("METRIC")
        || u.startsWith("INCH")
        || u.equals("M71")
        || u.equals("M72")) {
      numbers.units(u);
    } else if (u.equals("M30") || u.equals("M02") || u.equals("M00") && last()) {
      ended = true;
    } else if (u.equals("M00") || u.equals("M06")) {
      f.pass(line, "a stop: " + u);
    } else if (u.equals("ICI") || u.equals("ICI,ON") || u.equals("G91")) {
      incremental = true;
    } else if (u.equals("G90") || u.equals("ICI,OFF")) {
      incremental = false;
    } else if (u.startsWith("T") && u.matches("T\\d+.*")) {
      tool(u);
    } else if (header && !u.matches("[XYG].*")) {
      if (!u.matches(
          "FMAT,[12]|VER,\\d+|DETECT.*|ATC.*|CP,.*|TCST.*|BLKD.*|M47.*|G05|R,[TCDH]+|FORMAT.*")) {
        f.pass(line, "header: " + l);
      }
    } else {
      body(u);
    }
    return true;
  }

  /// Whether nothing but blanks stands behind this line.
  private boolean last() {
    return lines.subList(line, lines.size()).stream().allMatch(l -> l.isEmpty() || l.equals("%"));
  }

  private void comment(String c) {
    String u = c.toUpperCase(Locale.ROOT).replace(" ", "");
    boolean not = NOT_PLATED.matcher(u).matches();
    if (not || u.matches(".*(TYPE=PLATED|,PTH|FILEFUNCTION,PLATED|,PLATED).*")) {
      plated = Optional.of(!not);
    }
  }

  private void tool(String u) {
    Matcher m = DrillTools.TOOL.matcher(u);
    if (!m.matches()) {
      throw new IllegalArgumentException("expected a tool such as T01C0.300");
    }
    int n = Integer.parseInt(m.group(1));
    Optional<Double> size = DrillTools.size(u);
    if (size.isPresent()) {
      if (!numbers.unit()) {
        throw new DrillNumbers.NotStated();
      }
      tools.define(n, size.get() * numbers.mm());
      plated.ifPresent(p -> tools.plated(n, p));
    }
    if (!header) {
      tool = n;
    }
    int place = u.indexOf('X') >= 0 ? u.indexOf('X') : u.indexOf('Y');
    if (!header && place > 0) {
      body(u.substring(place));
    }
  }

  private void body(String u) {
    Matcher g = FUNCTION.matcher(u);
    String rest = u;
    boolean slot = u.contains("G85");
    if (!slot && g.lookingAt()) {
      rest = u.substring(3);
      switch (Integer.parseInt(g.group(1))) {
        case 0 -> motion = 0;
        case 1 -> motion = routes ? 1 : motion; // nothing is routed without a move to its start
        case 2 -> motion = 2;
        case 3 -> motion = 3;
        case 5, 81 -> {
          motion = -1;
          down = false;
        }
        case 93 -> {
          return;
        }
        default -> {
          f.pass(line, u);
          return;
        }
      }
    } else if (u.matches("M1[4-9]|M0[1689]|M25|M02[XY].*")) {
      control(u);
      return;
    } else if (u.matches("R\\d+.*")) {
      repeat(u);
      return;
    }
    if (slot) {
      slot(u.split("G85", 2));
      return;
    }
    if (!WORD.matcher(rest).find()) {
      if (!rest.isBlank()) {
        f.pass(line, u);
      }
      return;
    }
    double fromX = x;
    double fromY = y;
    go(rest);
    if (slotNext) {
      slotNext = false;
      instead(fromX, fromY);
      add(fromX, fromY, x, y);
      return;
    }
    boolean cuts = down || !plunges;
    switch (motion) {
      case -1 -> add(x, y, x, y);
      case 1 -> {
        if (cuts) {
          add(fromX, fromY, x, y);
        }
      }
      case 2, 3 -> {
        if (cuts) {
          arc(rest, fromX, fromY);
        }
      }
      default -> {}
    }
  }

  /// A slot: from a place in the same line, or from the hit before it.
  private void slot(String[] ends) {
    boolean from = WORD.matcher(ends[0]).find();
    boolean to = WORD.matcher(ends[1]).find();
    if (from) {
      go(ends[0]);
    }
    double fromX = x;
    double fromY = y;
    if (!to) {
      if (from) {
        add(x, y, x, y);
      }
      slotNext = true;
      return;
    }
    if (!from) {
      instead(fromX, fromY);
    }
    go(ends[1]);
    add(fromX, fromY, x, y);
  }

  /// The hit at which a slot begins is part of the slot.
  private void instead(double fromX, double fromY) {
    if (!holes.isEmpty()) {
      Hole h = holes.getLast();
      if (!h.slot() && h.x() == fromX && h.y() == fromY) {
        holes.removeLast();
      }
    }
  }

  /// The bit goes down or up; a pattern begins, ends, or is laid down again.
  private void control(String u) {
    switch (u.substring(0, 3)) {
      case "M14", "M15" -> down = true;
      case "M16", "M17" -> down = false;
      case "M25" -> {
        patternFrom = holes.size();
        patternTo = -1;
        patternX = 0;
        patternY = 0;
      }
      case "M01" -> patternTo = patternFrom < 0 ? -1 : holes.size();
      case "M02" -> again(u.substring(3));
      case "M08" -> {
        patternFrom = -1;
        patternTo = -1;
      }
      default -> {}
    }
  }

  /// Lays the pattern down again; its place is told from the one before.
  private void again(String words) {
    if (patternFrom < 0) {
      throw new IllegalArgumentException("expected M25 and M01 around a pattern before M02X..Y..");
    }
    if (patternTo < 0) {
      patternTo = holes.size();
    }
    if (words.matches(".*M[789]0.*")) {
      throw new IllegalArgumentException("a pattern that is turned or mirrored is not read");
    }
    Matcher m = WORD.matcher(words);
    while (m.find()) {
      switch (m.group(1)) {
        case "X" -> patternX += numbers.millimetre(m.group(2));
        case "Y" -> patternY += numbers.millimetre(m.group(2));
        default -> {}
      }
    }
    if ((long) holes.size() + patternTo - patternFrom > MOST) {
      throw new IllegalArgumentException("more than 2 million holes");
    }
    copies++;
    for (int i = patternFrom; i < patternTo; i++) {
      Hole h = holes.get(i);
      holes.add(
          new Hole(
              h.x() + patternX,
              h.y() + patternY,
              h.toX() + patternX,
              h.toY() + patternY,
              h.diameter(),
              h.plated()));
    }
  }

  private void arc(String words, double fromX, double fromY) {
    double cx = fromX;
    double cy = fromY;
    Matcher m = WORD.matcher(words);
    double radius = Double.NaN;
    while (m.find()) {
      switch (m.group(1)) {
        case "I" -> cx = fromX + numbers.millimetre(m.group(2));
        case "J" -> cy = fromY + numbers.millimetre(m.group(2));
        case "A" -> radius = numbers.millimetre(m.group(2));
        default -> {}
      }
    }
    boolean clockwise = motion == 2;
    if (radius > 0) {
      double dx = x - fromX;
      double dy = y - fromY;
      double half = Math.hypot(dx, dy) / 2;
      double up = Math.sqrt(Math.max(0, radius * radius - half * half));
      double s = clockwise ? -1 : 1;
      cx = (x + fromX) / 2 - s * up * dy / (2 * half);
      cy = (y + fromY) / 2 + s * up * dx / (2 * half);
    }
    double px = fromX;
    double py = fromY;
    for (double[] p : Arcs.corners(fromX, fromY, x, y, cx, cy, clockwise, true)) {
      add(px, py, p[0], p[1]);
      px = p[0];
      py = p[1];
    }
  }

  private void repeat(String u) {
    Matcher m = REPEAT.matcher(u);
    if (!m.matches() || holes.isEmpty()) {
      throw new IllegalArgumentException("expected a repeat such as R05X2.54 behind a hole");
    }
    double dx = 0;
    double dy = 0;
    Matcher w = WORD.matcher(m.group(2));
    while (w.find()) {
      dx = w.group(1).equals("X") ? numbers.millimetre(w.group(2)) : dx;
      dy = w.group(1).equals("Y") ? numbers.millimetre(w.group(2)) : dy;
    }
    int times = Integer.parseInt(m.group(1));
    for (int i = 0; i < times; i++) {
      x += dx;
      y += dy;
      add(x, y, x, y);
    }
  }

  private void go(String words) {
    Matcher m = WORD.matcher(words);
    boolean any = false;
    while (m.find()) {
      double v = 0;
      if (m.group(1).equals("X") || m.group(1).equals("Y")) {
        v = numbers.millimetre(m.group(2));
        any = true;
      }
      if (m.group(1).equals("X")) {
        x = incremental ? x + v : v;
      } else if (m.group(1).equals("Y")) {
        y = incremental ? y + v : v;
      }
    }
    if (!any) {
      throw new IllegalArgumentException("expected X and Y");
    }
  }

  private void add(double x0, double y0, double x1, double y1) {
    if (tool < 0) {
      throw new IllegalArgumentException("no tool was chosen before this hole");
    }
    Optional<Double> d = tools.diameter(tool);
    if (d.isEmpty()) {
      if (tools.firstLack(tool)) {
        throw new IllegalArgumentException("tool T" + tool + " has no diameter");
      }
      return;
    }
    if (!(Math.abs(x1) <= FARTHEST_MM && Math.abs(y1) <= FARTHEST_MM)) {
      throw new DrillNumbers.NotStated(
          "a hole lies more than %.0f mm from the origin: another number format than stated?"
              .formatted(FARTHEST_MM));
    }
    if (holes.size() >= MOST) {
      throw new IllegalArgumentException("more than 2 million holes");
    }
    Boolean own = tools.plated(tool);
    holes.add(new Hole(x0, y0, x1, y1, d.get(), own != null ? Optional.of(own) : plated));
  }
}
