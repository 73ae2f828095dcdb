package ell.files.drill;

import ell.core.artwork.Arcs;
import ell.core.artwork.Drilling;
import ell.core.artwork.Drilling.Hole;
import ell.files.Findings;
import ell.files.Read;
import ell.files.Source;
import ell.files.TextFile;
import java.io.BufferedReader;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Reads drill files: XNC, and Excellon as found in the wild. Header with unit and zeros, tools,
/// hits, slots (`G85`, or routed with `M15`, `M16`), repeats (`R`), plated or not by attribute or
/// comment. Millimetre.
public final class DrillReader {
  private static final Pattern TOOL = Pattern.compile("T0*(\\d+)((?:[A-Z][+-]?[\\d.]+)*)");
  private static final Pattern SIZE = Pattern.compile("C([\\d.]+)");
  private static final Pattern FORMAT = Pattern.compile("(\\d)[:.](\\d)");
  private static final Pattern WORD = Pattern.compile("([XYIJA])([+-]?[\\d.]+)");
  private static final int MOST = 2_000_000;

  private final Findings f;
  private final Map<Integer, Double> tools = new HashMap<>();
  private final List<Hole> holes = new ArrayList<>();
  private boolean header;
  private boolean ended;
  private double mm = Double.NaN;
  private boolean trailingKept = true;
  private boolean zeros;
  private int whole = -1;
  private int places = -1;
  private boolean incremental;
  private Optional<Boolean> plated = Optional.empty();
  private final Map<Integer, Boolean> platedBy = new HashMap<>();
  private int tool = -1;
  private double x;
  private double y;
  private boolean down;
  private int motion = -1; // -1 drills, 0 moves, 1 routs straight, 2 and 3 arcs
  private int line;

  private DrillReader(Findings f) {
    this.f = f;
  }

  /// Whether the beginning of a file looks like a drill file.
  public static boolean looksRight(String head) {
    return head.lines().limit(40).anyMatch(l -> l.strip().equals("M48"))
        || head.lines().limit(60).anyMatch(l -> l.strip().matches("T\\d+C[\\d.]+.*"));
  }

  /// Reads a file.
  ///
  /// @throws IOException when it cannot be read at all
  public static Read<Drilling> read(Source source) throws IOException {
    Findings f = new Findings(source.name());
    DrillReader r = new DrillReader(f);
    try (BufferedReader in = new BufferedReader(TextFile.open(source, TextFile.encoding(source)))) {
      String l;
      while ((l = in.readLine()) != null && !r.ended && f.count() <= Findings.MOST) {
        r.line++;
        try {
          r.take(l.strip());
        } catch (NumberFormatException e) {
          f.error(r.line, 0, "a number that cannot be read in '" + l.strip() + "'");
        } catch (IllegalArgumentException e) {
          f.error(r.line, 0, e.getMessage() + ", found '" + l.strip() + "'");
        }
      }
    }
    if (!f.failed() && r.tools.isEmpty()) {
      f.error(0, 0, "no tool and no hole in it; expected M48, a unit, and tools such as T01C0.300");
    } else if (!f.failed() && r.holes.isEmpty()) {
      f.warn(0, 0, "no holes in it");
    }
    if (!r.ended) {
      f.warn(r.line, 0, "no end of file: expected M30");
    }
    return f.failed() ? f.flawed() : f.done(new Drilling(r.holes));
  }

  private void take(String l) {
    if (l.isEmpty()) {
      return;
    }
    if (l.startsWith(";")) {
      comment(l.substring(1).strip());
      return;
    }
    String u = l.toUpperCase(Locale.ROOT);
    if (u.equals("M48")) {
      header = true;
    } else if (u.equals("%") || u.equals("M95")) {
      header = false;
    } else if (u.startsWith("METRIC")
        || u.startsWith("INCH")
        || u.equals("M71")
        || u.equals("M72")) {
      units(u);
    } else if (u.equals("M30") || u.equals("M00")) {
      ended = true;
    } else if (u.equals("ICI") || u.equals("ICI,ON") || u.equals("G91")) {
      incremental = true;
    } else if (u.equals("G90") || u.equals("ICI,OFF")) {
      incremental = false;
    } else if (u.startsWith("T") && u.matches("T\\d+.*")) {
      tool(u);
    } else if (header) {
      if (!u.matches("FMAT,[12]|VER,\\d+|DETECT.*|ATC.*|CP,.*|TCST.*|BLKD.*|M47.*|G05|R,[TCDH]+")) {
        f.pass(line, "header: " + l);
      }
    } else {
      body(u);
    }
  }

  private void units(String u) {
    mm = u.startsWith("M") && !u.equals("M72") ? 1 : 25.4;
    zeros |= u.contains("LZ") || u.contains("TZ");
    if (u.contains("LZ")) {
      trailingKept = false;
    }
    if (u.contains("TZ")) {
      trailingKept = true;
    }
    Matcher m = Pattern.compile("(0+)\\.(0+)").matcher(u);
    if (m.find()) {
      whole = m.group(1).length();
      places = m.group(2).length();
    }
  }

  private void comment(String c) {
    String u = c.toUpperCase(Locale.ROOT).replace(" ", "");
    if (u.startsWith("FILE_FORMAT=") || u.startsWith("FORMAT=")) {
      Matcher m = FORMAT.matcher(u);
      if (m.find()) {
        whole = Integer.parseInt(m.group(1));
        places = Integer.parseInt(m.group(2));
      }
    }
    boolean not = u.matches(".*(NON[-_]?PLATED|NPTH|NONPLATED).*");
    if (not || u.matches(".*(TYPE=PLATED|,PTH|FILEFUNCTION,PLATED|,PLATED).*")) {
      plated = Optional.of(!not);
    }
  }

  private void tool(String u) {
    Matcher m = TOOL.matcher(u);
    if (!m.matches()) {
      throw new IllegalArgumentException("expected a tool such as T01C0.300");
    }
    int n = Integer.parseInt(m.group(1));
    Matcher size = SIZE.matcher(m.group(2));
    if (size.find()) {
      if (Double.isNaN(mm)) {
        throw new IllegalArgumentException(
            "a tool before any unit; expected METRIC or INCH above it");
      }
      double d = Double.parseDouble(size.group(1)) * mm;
      if (!(d > 0)) {
        throw new IllegalArgumentException("expected a diameter above 0");
      }
      tools.put(n, d);
      plated.ifPresent(p -> platedBy.put(n, p));
    }
    if (!header) {
      if (n != 0 && !tools.containsKey(n)) {
        throw new IllegalArgumentException("tool T" + n + " has no diameter");
      }
      tool = n;
    }
  }

  private void body(String u) {
    Matcher g = Pattern.compile("G(\\d{2})").matcher(u);
    String rest = u;
    boolean slot = u.contains("G85");
    if (!slot && g.lookingAt()) {
      rest = u.substring(3);
      switch (Integer.parseInt(g.group(1))) {
        case 0 -> motion = 0;
        case 1 -> motion = 1;
        case 2 -> motion = 2;
        case 3 -> motion = 3;
        case 5, 81 -> motion = -1;
        case 93 -> {
          return;
        }
        default -> {
          f.pass(line, u);
          return;
        }
      }
    } else if (u.matches("M1[4-9]|M0[68]|M25|M01|M09.*")) {
      down = u.equals("M15") || u.equals("M14") || down && !u.equals("M16") && !u.equals("M17");
      return;
    } else if (u.matches("R\\d+.*")) {
      repeat(u);
      return;
    }
    if (slot) {
      String[] ends = u.split("G85", 2);
      go(ends[0]);
      double fromX = x;
      double fromY = y;
      go(ends[1]);
      add(fromX, fromY, x, y);
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
    switch (motion) {
      case -1 -> add(x, y, x, y);
      case 1 -> {
        if (down) {
          add(fromX, fromY, x, y);
        }
      }
      case 2, 3 -> {
        if (down) {
          arc(rest, fromX, fromY);
        }
      }
      default -> {}
    }
  }

  private void arc(String words, double fromX, double fromY) {
    double cx = fromX;
    double cy = fromY;
    Matcher m = WORD.matcher(words);
    double radius = Double.NaN;
    while (m.find()) {
      switch (m.group(1)) {
        case "I" -> cx = fromX + value(m.group(2));
        case "J" -> cy = fromY + value(m.group(2));
        case "A" -> radius = value(m.group(2));
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
    Matcher m = Pattern.compile("R(\\d+)(?:M02)?(.*)").matcher(u);
    if (!m.matches() || holes.isEmpty()) {
      throw new IllegalArgumentException("expected a repeat such as R05X2.54 behind a hole");
    }
    double dx = 0;
    double dy = 0;
    Matcher w = WORD.matcher(m.group(2));
    while (w.find()) {
      dx = w.group(1).equals("X") ? value(w.group(2)) : dx;
      dy = w.group(1).equals("Y") ? value(w.group(2)) : dy;
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
        v = value(m.group(2));
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

  private double value(String digits) {
    if (Double.isNaN(mm)) {
      throw new IllegalArgumentException("a place before any unit; expected METRIC or INCH");
    }
    if (digits.indexOf('.') >= 0) {
      return Double.parseDouble(digits) * mm;
    }
    boolean minus = digits.startsWith("-");
    String d = digits.replaceFirst("^[+-]", "");
    if (!zeros && whole < 0 && d.length() <= 3) {
      return Double.parseDouble(digits) * mm; // XNC leaves a point behind whole numbers out
    }
    // by custom, where nothing is said: inch 2.4, metric 3.3
    int a = whole >= 0 ? whole : mm == 1 ? 3 : 2;
    int b = places >= 0 ? places : mm == 1 ? 3 : 4;
    long n = Long.parseLong(d);
    if (!trailingKept) {
      for (int i = d.length(); i < a + b; i++) {
        n *= 10;
      }
    }
    return (minus ? -n : n) / Math.pow(10, b) * mm;
  }

  private void add(double x0, double y0, double x1, double y1) {
    Double d = tools.get(tool);
    if (d == null) {
      throw new IllegalArgumentException("no tool was chosen before this hole");
    }
    if (holes.size() >= MOST) {
      throw new IllegalArgumentException("more than 2 million holes");
    }
    Boolean own = platedBy.get(tool);
    holes.add(new Hole(x0, y0, x1, y1, d, own != null ? Optional.of(own) : plated));
  }
}
