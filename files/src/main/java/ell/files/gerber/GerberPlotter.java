package ell.files.gerber;

import ell.core.artwork.Arcs;
import ell.core.artwork.Artwork;
import ell.core.artwork.Figure;
import ell.core.artwork.Template;
import ell.files.Findings;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.locationtech.jts.geom.TopologyException;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.util.AssertionFailedException;

/// The pen of a Gerber file: its state, moved word by word, and the figures that it leaves.
final class GerberPlotter {
  private static final int MOST_FIGURES = 3_000_000;
  private static final Pattern REPEAT =
      Pattern.compile("SRX(\\d+)Y(\\d+)I([+-]?[\\d.]+)J([+-]?[\\d.]+)");
  private static final Pattern APERTURE =
      Pattern.compile("ADD(\\d+)([A-Za-z_.$][A-Za-z0-9_.$-]*)(?:,(.*))?");

  private enum Moving {
    STRAIGHT,
    CLOCKWISE,
    COUNTER
  }

  private final Findings f;
  private final Map<Integer, Template> apertures = new HashMap<>();
  private final Map<Integer, List<Figure>> blocks = new HashMap<>();
  private final Map<String, GerberMacro> macros = new HashMap<>();
  private final Map<String, Template> turned = new HashMap<>();
  private final Deque<Open> open = new ArrayDeque<>();
  private List<Figure> figures = new ArrayList<>();
  private int made;
  private int line;

  private final GerberFormat numbers = new GerberFormat();

  // where the pen is and how it moves
  private double x;
  private double y;
  private Moving moving = Moving.STRAIGHT;
  private Boolean oneQuadrant;
  private int aperture = -1;
  private int lastAct = -1;
  private boolean dark = true;
  private String mirror = "N";
  private double turn;
  private double scale = 1;
  private List<double[]> path;
  private List<double[]> edge;
  private boolean region;
  private boolean ended;

  private final GerberTags tags = new GerberTags();

  /// A block or a repeat that is not closed yet.
  private record Open(int block, int nx, int ny, double dx, double dy, List<Figure> outside) {}

  GerberPlotter(Findings f) {
    this.f = f;
  }

  boolean ended() {
    return ended;
  }

  Artwork finish() {
    endPath();
    if (region) {
      f.error(line, 0, "the file ends within a region; expected G37");
    }
    while (!open.isEmpty()) {
      if (open.peek().block() < 0) {
        close();
      } else {
        f.error(line, 0, "the file ends within aperture block D" + open.peek().block());
        figures = open.pop().outside();
      }
    }
    if (!numbers.stated() && figures.isEmpty()) {
      f.error(0, 0, "nothing is drawn in it; expected a Gerber layer with %FS...*% and %MO...*%");
    }
    if (!ended) {
      f.warn(line, 0, "no end of file: expected M02");
    }
    return new Artwork(figures, tags.function());
  }

  /// A definition `AMname*...*`.
  void macro(String text, int at) {
    try {
      GerberMacro m = GerberMacro.parse(text);
      macros.put(m.name(), m);
    } catch (IllegalArgumentException e) {
      f.error(at, 0, e.getMessage());
    }
  }

  /// One word, without its star.
  void word(String w, int at, boolean extended) {
    line = at;
    try {
      if (extended) {
        extended(w);
      } else {
        plain(w);
      }
    } catch (NumberFormatException e) {
      f.error(at, 0, "'" + cut(w) + "' has a number that cannot be read: " + e.getMessage());
    } catch (IllegalArgumentException e) {
      f.error(at, 0, "'" + cut(w) + "': " + e.getMessage());
    } catch (TopologyException | AssertionFailedException e) {
      f.error(at, 0, "'" + cut(w) + "': its shape crosses itself beyond repair");
    }
  }

  private static String cut(String w) {
    return w.length() > 60 ? w.substring(0, 60) + "..." : w;
  }

  private void extended(String w) {
    endPath();
    String two = w.length() < 2 ? w : w.substring(0, 2);
    switch (two) {
      case "FS" -> numbers.format(w);
      case "MO" -> numbers.units(w.substring(2));
      case "AD" -> aperture(w);
      case "AB" -> block(w.substring(2));
      case "SR" -> repeat(w);
      case "LP" -> {
        switch (w.substring(2)) {
          case "D" -> dark = true;
          case "C" -> dark = false;
          default -> throw new IllegalArgumentException("expected LPD or LPC");
        }
      }
      case "LM" -> {
        if (!w.matches("LM(N|X|Y|XY)")) {
          throw new IllegalArgumentException("expected LMN, LMX, LMY or LMXY");
        }
        mirror = w.substring(2);
      }
      case "LR" -> turn = Double.parseDouble(w.substring(2));
      case "LS" -> {
        scale = Double.parseDouble(w.substring(2));
        if (!(scale > 0)) {
          throw new IllegalArgumentException("expected a scale above 0");
        }
      }
      case "TF", "TA", "TO", "TD" -> tags.take(w);
      case "IP" -> {
        if (w.equals("IPNEG")) {
          throw new IllegalArgumentException("a negative image is not read; export it as positive");
        }
      }
      case "OF", "SF", "MI", "AS", "IR" -> old(w);
      case "IN", "LN" -> f.pass(line, "name: " + w);
      default -> f.pass(line, "unknown command: " + cut(w));
    }
  }

  /// Image changes that are no longer allowed: harmless when they change nothing.
  private void old(String w) {
    if (w.matches("OFA0*(\\.0*)?B0*(\\.0*)?|SFA1(\\.0*)?B1(\\.0*)?|MIA0B0|ASAXBY|IR0")) {
      return;
    }
    throw new IllegalArgumentException(
        "this old image change is not read; export the layer without it");
  }

  private void aperture(String w) {
    Matcher m = APERTURE.matcher(w);
    if (!m.matches()) {
      throw new IllegalArgumentException("expected an aperture such as ADD10C,0.25");
    }
    int code = Integer.parseInt(m.group(1));
    if (code < 10) {
      throw new IllegalArgumentException("aperture numbers begin at 10");
    }
    String[] words = m.group(3) == null ? new String[0] : m.group(3).split("[Xx]");
    double[] p = new double[words.length];
    for (int i = 0; i < p.length; i++) {
      p[i] = Double.parseDouble(words[i].strip());
    }
    String name = m.group(2);
    Template t =
        switch (name) {
          case "C" ->
              zero(p, 1, 2) ? nothing() : Template.circle(p[0] * numbers.mm()).pierced(at(p, 1));
          case "R" -> {
            need(p, 2, 3, "R,widthXheight");
            yield Template.rectangle(p[0] * numbers.mm(), p[1] * numbers.mm()).pierced(at(p, 2));
          }
          case "O" -> {
            need(p, 2, 3, "O,widthXheight");
            yield Template.obround(p[0] * numbers.mm(), p[1] * numbers.mm()).pierced(at(p, 2));
          }
          case "P" -> {
            need(p, 2, 4, "P,diameterXcorners");
            yield Template.regular(p[0] * numbers.mm(), (int) p[1], p.length > 2 ? p[2] : 0)
                .pierced(at(p, 3));
          }
          default -> {
            GerberMacro macro = macros.get(name);
            if (macro == null) {
              throw new IllegalArgumentException("there is no aperture macro '" + name + "'");
            }
            yield macro.shape(p, numbers.mm());
          }
        };
    apertures.put(code, t);
    blocks.remove(code);
    turned.clear();
  }

  private static Template nothing() {
    return Template.of(Template.MAKE.createPolygon());
  }

  /// A pen of no width is allowed and leaves nothing.
  private static boolean zero(double[] p, int least, int most) {
    need(p, least, most, "C,diameter");
    return p[0] == 0;
  }

  private static void need(double[] p, int least, int most, String form) {
    if (p.length < least || p.length > most) {
      throw new IllegalArgumentException("expected " + form + ", found " + p.length + " numbers");
    }
  }

  private double at(double[] p, int i) {
    return p.length > i ? p[i] * numbers.mm() : 0;
  }

  private void block(String rest) {
    if (rest.isEmpty()) {
      if (open.isEmpty() || open.peek().block() < 0) {
        throw new IllegalArgumentException("no aperture block is open");
      }
      Open o = open.pop();
      blocks.put(o.block(), figures);
      apertures.remove(o.block());
      figures = o.outside();
      return;
    }
    if (!rest.matches("D\\d{2,6}")) {
      throw new IllegalArgumentException("expected a block such as ABD12");
    }
    open.push(new Open(Integer.parseInt(rest.substring(1)), 1, 1, 0, 0, figures));
    figures = new ArrayList<>();
    if (open.size() > 50) {
      throw new IllegalArgumentException("blocks are nested more than 50 deep");
    }
  }

  private void repeat(String w) {
    if (!open.isEmpty() && open.peek().block() < 0) {
      close();
    }
    if (w.equals("SR") || w.matches("SRX1Y1(I.*)?")) {
      return;
    }
    Matcher m = REPEAT.matcher(w);
    if (!m.matches()) {
      throw new IllegalArgumentException("expected a repeat such as SRX2Y3I10.0J20.0");
    }
    int nx = Integer.parseInt(m.group(1));
    int ny = Integer.parseInt(m.group(2));
    if (nx < 1 || ny < 1 || (long) nx * ny > MOST_FIGURES) {
      throw new IllegalArgumentException("expected a repeat of 1 or more");
    }
    open.push(
        new Open(
            -1,
            nx,
            ny,
            Double.parseDouble(m.group(3)) * numbers.mm(),
            Double.parseDouble(m.group(4)) * numbers.mm(),
            figures));
    figures = new ArrayList<>();
  }

  private void close() {
    Open o = open.pop();
    List<Figure> inside = figures;
    figures = o.outside();
    for (int i = 0; i < o.nx(); i++) {
      for (int k = 0; k < o.ny(); k++) {
        for (Figure g : inside) {
          lay(i == 0 && k == 0 ? g : g.moved(i * o.dx(), k * o.dy()));
        }
      }
    }
  }

  private void lay(Figure g) {
    if (++made > MOST_FIGURES) {
      throw new IllegalArgumentException("more than 3 million figures");
    }
    figures.add(g);
  }

  private void plain(String w) {
    if (w.startsWith("G04") || w.startsWith("G4 ") || w.equals("G4")) {
      Matcher m = Pattern.compile("G0?4\\s*#@!\\s*(T[FAOD].*)").matcher(w);
      if (m.matches()) {
        endPath();
        tags.take(m.group(1).strip());
      }
      return;
    }
    if (w.matches("M0*[012]")) {
      endPath();
      ended = !w.matches("M0*1");
      return;
    }
    GerberWord word = new GerberWord(w);
    while (word.takes('G')) {
      function((int) word.number());
    }
    boolean moves = false;
    double nx = x;
    double ny = y;
    double i = 0;
    double j = 0;
    int act = -1;
    while (word.more()) {
      char letter = word.letter();
      switch (letter) {
        case 'X' -> {
          double v = numbers.millimetre(word.digits());
          nx = numbers.incremental() ? nx + v : v;
          moves = true;
        }
        case 'Y' -> {
          double v = numbers.millimetre(word.digits());
          ny = numbers.incremental() ? ny + v : v;
          moves = true;
        }
        case 'I' -> {
          i = numbers.millimetre(word.digits());
          moves = true;
        }
        case 'J' -> {
          j = numbers.millimetre(word.digits());
          moves = true;
        }
        case 'D' -> act = (int) word.number();
        case 'N' -> word.digits();
        case 'G' -> function((int) word.number());
        default -> throw new IllegalArgumentException("unknown letter '" + letter + "'");
      }
    }
    if (act >= 10) {
      endPath();
      if (!apertures.containsKey(act) && !blocks.containsKey(act)) {
        throw new IllegalArgumentException("aperture D" + act + " is not defined");
      }
      aperture = act;
      return;
    }
    if (act < 0 && !moves) {
      return;
    }
    if (act < 0) {
      // old writers leave the act out and mean the last one
      act = lastAct < 0 ? 2 : lastAct;
    }
    act(act, nx, ny, i, j);
  }

  private void act(int act, double nx, double ny, double i, double j) {
    switch (act) {
      case 1 -> draw(nx, ny, i, j);
      case 2 -> {
        endPath();
        endEdge();
      }
      case 3 -> {
        endPath();
        if (region) {
          throw new IllegalArgumentException("a flash within a region");
        }
        flash(nx, ny);
      }
      default -> throw new IllegalArgumentException("expected D01, D02 or D03, found D" + act);
    }
    lastAct = act;
    x = nx;
    y = ny;
  }

  private void function(int g) {
    switch (g) {
      case 1 -> moving = Moving.STRAIGHT;
      case 2 -> moving = Moving.CLOCKWISE;
      case 3 -> moving = Moving.COUNTER;
      case 36 -> {
        endPath();
        if (region) {
          throw new IllegalArgumentException("a region within a region");
        }
        region = true;
      }
      case 37 -> {
        endEdge();
        if (!region) {
          throw new IllegalArgumentException("no region is open");
        }
        region = false;
      }
      case 54, 55 -> {}
      case 70 -> numbers.units("IN");
      case 71 -> numbers.units("MM");
      case 74 -> oneQuadrant = true;
      case 75 -> oneQuadrant = false;
      case 90 -> numbers.incremental(false);
      case 91 -> numbers.incremental(true);
      default -> f.pass(line, "unknown function G" + g);
    }
  }

  private void draw(double nx, double ny, double i, double j) {
    List<double[]> to =
        moving == Moving.STRAIGHT ? List.<double[]>of(new double[] {nx, ny}) : arc(nx, ny, i, j);
    if (region) {
      if (edge == null) {
        edge = new ArrayList<>();
        edge.add(new double[] {x, y});
      }
      edge.addAll(to);
      return;
    }
    if (aperture < 0) {
      throw new IllegalArgumentException("no aperture was chosen before");
    }
    if (path == null) {
      path = new ArrayList<>();
      path.add(new double[] {x, y});
    }
    path.addAll(to);
  }

  private List<double[]> arc(double nx, double ny, double i, double j) {
    boolean clockwise = moving == Moving.CLOCKWISE;
    if (oneQuadrant == null) {
      f.warn(line, 0, "an arc before G74 or G75: read as an arc of many quadrants");
      oneQuadrant = false;
    }
    if (!oneQuadrant) {
      if (i == 0 && j == 0) {
        throw new IllegalArgumentException("an arc without its centre; expected I or J");
      }
      return Arcs.corners(x, y, nx, ny, x + i, y + j, clockwise, true);
    }
    // one quadrant: I and J have no sign; of four centres the one that fits best and turns least
    double best = Double.POSITIVE_INFINITY;
    double cx = x;
    double cy = y;
    for (int s = 0; s < 4; s++) {
      double px = x + ((s & 1) == 0 ? Math.abs(i) : -Math.abs(i));
      double py = y + ((s & 2) == 0 ? Math.abs(j) : -Math.abs(j));
      double off = Math.abs(Math.hypot(nx - px, ny - py) - Math.hypot(x - px, y - py));
      double turn = Math.atan2(ny - py, nx - px) - Math.atan2(y - py, x - px);
      turn = clockwise ? -turn : turn;
      turn = turn < -1e-9 ? turn + 2 * Math.PI : turn;
      if (turn <= Math.PI / 2 + 1e-3 && off < best - 1e-12) {
        best = off;
        cx = px;
        cy = py;
      }
    }
    if (Double.isInfinite(best)) {
      throw new IllegalArgumentException("no centre makes this an arc of one quadrant");
    }
    return Arcs.corners(x, y, nx, ny, cx, cy, clockwise, false);
  }

  private void endPath() {
    List<double[]> p = path;
    path = null;
    if (p == null) {
      return;
    }
    Optional<Template> pen = template();
    if (pen.isEmpty()) {
      throw new IllegalArgumentException("a block cannot be drawn with, only flashed");
    }
    if (!pen.get().shape().isEmpty()) {
      lay(new Figure.Stroke(p, pen.get(), dark, tags.now()));
    } else if (Double.isNaN(pen.get().penMm())) {
      // a pen of no width still shows where an edge runs
      lay(new Figure.Stroke(p, HAIR, dark, tags.now()));
    }
  }

  private static final Template HAIR = Template.circle(1e-4);

  private void endEdge() {
    List<double[]> e = edge;
    edge = null;
    if (e == null) {
      return;
    }
    double[] a = e.getFirst();
    double[] b = e.getLast();
    if (Math.hypot(a[0] - b[0], a[1] - b[1]) < 1e-6) {
      e.removeLast();
    } else {
      f.warn(line, 0, "a region that does not close was closed");
    }
    if (e.size() >= 3) {
      lay(new Figure.Region(e, dark, tags.now()));
    }
  }

  /// The aperture in hand, mirrored, turned and scaled; empty when it is a block.
  private Optional<Template> template() {
    Template t = apertures.get(aperture);
    if (t == null) {
      return Optional.empty();
    }
    if (mirror.equals("N") && turn == 0 && scale == 1) {
      return Optional.of(t);
    }
    return Optional.of(
        turned.computeIfAbsent(
            aperture + " " + mirror + " " + turn + " " + scale, _ -> t.through(map(), scale)));
  }

  private AffineTransformation map() {
    AffineTransformation m = new AffineTransformation();
    m.scale(mirror.contains("X") ? -1 : 1, mirror.contains("Y") ? -1 : 1);
    m.rotate(Math.toRadians(turn));
    m.scale(scale, scale);
    return m;
  }

  private void flash(double nx, double ny) {
    if (aperture < 0) {
      throw new IllegalArgumentException("no aperture was chosen before");
    }
    List<Figure> block = blocks.get(aperture);
    if (block == null) {
      Template t = template().orElseThrow();
      if (!t.shape().isEmpty()) {
        lay(new Figure.Flash(t, nx, ny, dark, tags.now()));
      }
      return;
    }
    boolean plain = mirror.equals("N") && turn == 0 && scale == 1 && dark;
    AffineTransformation m = map();
    m.translate(nx, ny);
    Consumer<Figure> to = this::lay;
    for (Figure g : block) {
      to.accept(plain ? g.moved(nx, ny) : g.through(m, scale, !dark));
    }
  }
}
