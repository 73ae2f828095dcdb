package ell.files.gerber;

import ell.core.artwork.Arcs;
import ell.core.artwork.Artwork;
import ell.core.artwork.Figure;
import ell.core.artwork.Template;
import ell.files.Findings;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.locationtech.jts.geom.TopologyException;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.util.AssertionFailedException;

/// The pen of a Gerber file: its state, moved word by word, and the figures that it leaves.
final class GerberPlotter {
  private static final Pattern REPEAT =
      Pattern.compile("SRX(\\d{1,9}+)Y(\\d{1,9}+)I([+-]?+[\\d.]++)J([+-]?+[\\d.]++)");
  private static final Pattern TAG = Pattern.compile("G0?+4\\s*+#@!\\s*+(T[FAOD].*+)");

  private static final Pattern COMMAND =
      Pattern.compile("(?:FS|MO|AD|AB|SR|LP|LM|LR|LS|TF|TA|TO|TD|IP|OF|SF|MI|AS|IR|IN|LN).*");

  /// Start, end and centre of an arc fit when their radii differ by less, in millimetre; files
  /// round to 0.0001 inch.
  private static final double FITS_MM = 0.03;

  /// A pen of no width still shows where an edge runs.
  private static final Template HAIR = Template.circle(1e-4);

  private enum Moving {
    STRAIGHT,
    CLOCKWISE,
    COUNTER
  }

  private static final List<String> MILLIMETRES = List.of("MOMM", "G71", "G071");
  private static final List<String> INCHES = List.of("MOIN", "G70", "G070");

  private final Findings f;
  private final GerberFormat numbers = new GerberFormat();
  private final GerberApertures apertures = new GerberApertures(numbers);
  private final GerberFigures figures = new GerberFigures();
  private final GerberTags tags = new GerberTags();
  private int line;

  // where the pen is and how it moves
  private double x;
  private double y;
  private Moving moving = Moving.STRAIGHT;
  private Boolean oneQuadrant;
  private boolean untoldArcs;
  private int lastAct = -1;
  private boolean dark = true;
  private List<double[]> path;
  private List<double[]> edge;
  private boolean region;
  private boolean ended;

  private final Set<Integer> unknownApertures = new HashSet<>();

  GerberPlotter(Findings f) {
    this.f = f;
  }

  boolean ended() {
    return ended;
  }

  Artwork finish() {
    attempt("the end of the file", this::end);
    return new Artwork(figures.laid(), tags.function());
  }

  /// A unit that is stated once holds for what stands before it too: writers put it behind their
  /// first apertures.
  void unitsOfWholeFile(String text) {
    boolean mm = false;
    boolean inch = false;
    for (char first : new char[] {'M', 'G'}) { // to look for one character is very fast
      for (int at = text.indexOf(first); at >= 0; at = text.indexOf(first, at + 1)) {
        mm |= stands(text, at, MILLIMETRES);
        inch |= stands(text, at, INCHES);
      }
    }
    if (mm != inch) {
      numbers.units(mm ? "MM" : "IN");
    }
  }

  /// Whether one of the words stands there alone, up to its star.
  private static boolean stands(String text, int at, List<String> words) {
    for (String word : words) {
      if (text.startsWith(word, at)) {
        int i = at + word.length();
        while (i < text.length() && Character.isWhitespace(text.charAt(i))) {
          i++;
        }
        return i < text.length() && text.charAt(i) == '*';
      }
    }
    return false;
  }

  private void end() {
    endPath();
    if (region) {
      f.error(line, 0, "the file ends within a region; expected G37");
    }
    while (figures.anyOpen()) {
      if (figures.openBlock() < 0) {
        figures.endRepeat();
      } else {
        f.error(line, 0, "the file ends within aperture block D" + figures.endBlock().number());
      }
    }
    if (!numbers.stated() && figures.laid().isEmpty()) {
      f.error(0, 0, "nothing is drawn in it; expected a Gerber layer with %FS...*% and %MO...*%");
    }
    if (!ended) {
      f.warn(line, 0, "no end of file: expected M02");
    }
  }

  /// A definition `AMname*...*`.
  void macro(String text, int at) {
    line = at;
    attempt(text, () -> apertures.macro(GerberMacro.parse(text)));
  }

  /// One word, without its star.
  void word(String w, int at, boolean extended) {
    line = at;
    attempt(
        w,
        () -> {
          if (extended) {
            extended(w);
          } else {
            plain(w);
          }
        });
  }

  /// Whatever is wrong with a word is a problem with its line; what the geometry says is so too.
  private void attempt(String w, Runnable what) {
    try {
      what.run();
    } catch (GerberFigures.TooMuch | GerberFormat.NotStated e) {
      f.error(line, 0, e.getMessage()); // one cause is one problem
      ended = true;
    } catch (NumberFormatException e) {
      f.error(line, 0, "'" + cut(w) + "' has a number that cannot be read: " + e.getMessage());
    } catch (TopologyException
        | AssertionFailedException
        | ArithmeticException
        | IllegalStateException e) {
      f.error(line, 0, "'" + cut(w) + "': its shape crosses itself beyond repair");
    } catch (IllegalArgumentException e) {
      f.error(line, 0, "'" + cut(w) + "': " + e.getMessage());
    }
  }

  static String cut(String w) {
    return w.length() > 60 ? w.substring(0, 60) + "..." : w;
  }

  private void extended(String w) {
    endPath();
    String two = w.length() < 2 ? w : w.substring(0, 2);
    switch (two) {
      case "FS" -> numbers.format(w);
      case "MO" -> numbers.units(w.substring(2));
      case "AD" -> apertures.define(w);
      case "AB" -> block(w.substring(2));
      case "SR" -> repeat(w);
      case "LP" -> {
        switch (w.substring(2)) {
          case "D" -> dark = true;
          case "C" -> dark = false;
          default -> throw new IllegalArgumentException("expected LPD or LPC");
        }
      }
      case "LM" -> apertures.mirror(w);
      case "LR" -> apertures.turn(GerberNumbers.decimal(w.substring(2)));
      case "LS" -> apertures.scale(GerberNumbers.decimal(w.substring(2)));
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

  private void block(String rest) {
    if (rest.isEmpty()) {
      apertures.block(figures.endBlock());
      return;
    }
    if (!rest.matches("D\\d{2,6}")) {
      throw new IllegalArgumentException("expected a block such as ABD12");
    }
    figures.beginBlock(Integer.parseInt(rest.substring(1)));
  }

  private void repeat(String w) {
    figures.endRepeat();
    if (w.equals("SR") || w.matches("SRX1Y1(I.*)?")) {
      return;
    }
    Matcher m = REPEAT.matcher(w);
    if (!m.matches()) {
      throw new IllegalArgumentException("expected a repeat such as SRX2Y3I10.0J20.0");
    }
    figures.beginRepeat(
        Integer.parseInt(m.group(1)),
        Integer.parseInt(m.group(2)),
        GerberNumbers.decimal(m.group(3)) * numbers.mm(),
        GerberNumbers.decimal(m.group(4)) * numbers.mm());
  }

  private void plain(String w) {
    if (w.startsWith("G04") || w.startsWith("G4 ") || w.equals("G4")) {
      Matcher m = TAG.matcher(w);
      if (m.matches()) {
        endPath();
        tags.take(m.group(1).strip());
      }
      return;
    }
    char first = w.charAt(0);
    if (first == 'M' && w.matches("M0*[012]")) {
      endPath();
      ended = !w.matches("M0*1");
      return;
    }
    // most words are steps of the pen, which begin with none of these
    if ("FMASLTIO".indexOf(first) >= 0 && COMMAND.matcher(w).matches()) {
      f.warn(line, 0, "a command outside of %...%: '" + cut(w) + "'");
      extended(w);
      return;
    }
    GerberWord word = new GerberWord(w);
    do {
      one(word);
    } while (word.more());
  }

  /// One step of the pen; more than one stands in a word whose star was left out.
  private void one(GerberWord word) {
    boolean moves = false;
    double nx = x;
    double ny = y;
    double i = 0;
    double j = 0;
    int act = -1;
    while (act < 0 && word.more()) {
      char letter = word.letter();
      switch (letter) {
        case 'X' -> {
          double v = word.millimetre(numbers);
          nx = GerberNumbers.place(numbers.incremental() ? nx + v : v);
          moves = true;
        }
        case 'Y' -> {
          double v = word.millimetre(numbers);
          ny = GerberNumbers.place(numbers.incremental() ? ny + v : v);
          moves = true;
        }
        case 'I' -> {
          i = GerberNumbers.place(word.millimetre(numbers));
          moves = true;
        }
        case 'J' -> {
          j = GerberNumbers.place(word.millimetre(numbers));
          moves = true;
        }
        case 'D' -> act = word.number();
        case 'N' -> word.digits();
        case 'G' -> function(word.number());
        default -> throw new IllegalArgumentException("unknown letter '" + letter + "'");
      }
    }
    if (word.more()) {
      f.warn(line, 0, "a word without its star: '" + cut(word.toString()) + "'");
    }
    if (act >= 10) {
      endPath();
      apertures.choose(act);
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
    figures.corners(to.size());
    if (region) {
      if (edge == null) {
        edge = new ArrayList<>();
        edge.add(new double[] {x, y});
      }
      edge.addAll(to);
      return;
    }
    if (!usable()) {
      return;
    }
    if (path == null) {
      path = new ArrayList<>();
      path.add(new double[] {x, y});
    }
    path.addAll(to);
  }

  private List<double[]> arc(double nx, double ny, double i, double j) {
    boolean clockwise = moving == Moving.CLOCKWISE;
    if (i == 0 && j == 0) {
      if (Math.hypot(nx - x, ny - y) > FITS_MM) {
        f.warn(line, 0, "an arc without its centre: drawn straight");
      }
      return List.<double[]>of(new double[] {nx, ny});
    }
    boolean signed = oneQuadrant == null ? fits(nx, ny, x + i, y + j) : !oneQuadrant;
    if (oneQuadrant == null && !untoldArcs) {
      untoldArcs = true;
      f.warn(line, 0, "neither G74 nor G75: the centre of each arc was taken where it fits");
    }
    if (signed) {
      if (!fits(nx, ny, x + i, y + j) && !region) {
        f.warn(line, 0, "the centre of an arc does not fit its ends: " + off(nx, ny, x + i, y + j));
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
      if (turn <= Math.PI / 2 + 1e-2 && off < best - 1e-12) {
        best = off;
        cx = px;
        cy = py;
      }
    }
    if (Double.isInfinite(best)) {
      if (Math.hypot(nx - x, ny - y) <= FITS_MM) {
        return List.<double[]>of(new double[] {nx, ny}); // too short for its centre to be known
      }
      throw new IllegalArgumentException("no centre makes this an arc of one quadrant");
    }
    return Arcs.corners(x, y, nx, ny, cx, cy, clockwise, false);
  }

  private boolean fits(double nx, double ny, double cx, double cy) {
    double r = Math.hypot(x - cx, y - cy);
    return Math.abs(Math.hypot(nx - cx, ny - cy) - r) <= Math.max(FITS_MM, r * 0.01);
  }

  private String off(double nx, double ny, double cx, double cy) {
    return String.format(
        java.util.Locale.ROOT,
        "radius %.4g mm and %.4g mm",
        Math.hypot(x - cx, y - cy),
        Math.hypot(nx - cx, ny - cy));
  }

  private void endPath() {
    List<double[]> p = path;
    path = null;
    if (p == null) {
      return;
    }
    Optional<Template> pen = apertures.shape();
    if (pen.isEmpty()) {
      throw new IllegalArgumentException("a block cannot be drawn with, only flashed");
    }
    if (!pen.get().shape().isEmpty()) {
      figures.lay(new Figure.Stroke(p, pen.get(), dark, tags.now()));
    } else if (Double.isNaN(pen.get().penMm())) {
      figures.lay(new Figure.Stroke(p, HAIR, dark, tags.now()));
    }
  }

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
      figures.lay(new Figure.Region(e, dark, tags.now()));
    }
  }

  /// Whether there is something to draw with; an aperture that is not defined is told once.
  private boolean usable() {
    apertures.mustBeChosen();
    if (apertures.defined()) {
      return true;
    }
    if (unknownApertures.add(apertures.inHand())) {
      f.error(line, 0, "aperture D" + apertures.inHand() + " is drawn with and not defined");
    }
    return false;
  }

  private void flash(double nx, double ny) {
    if (!usable()) {
      return;
    }
    List<Figure> block = apertures.block();
    if (block == null) {
      Template t = apertures.shape().orElseThrow();
      if (!t.shape().isEmpty()) {
        figures.lay(new Figure.Flash(t, nx, ny, dark, tags.now()));
      }
      return;
    }
    boolean plain = apertures.plain() && dark;
    AffineTransformation m = apertures.map();
    m.translate(nx, ny);
    for (Figure g : block) {
      if (!plain && g instanceof Figure.Flash flash) {
        figures.corners(flash.template().shape().getNumPoints()); // a shape of its own
      }
      figures.copy(plain ? g.moved(nx, ny) : g.through(m, apertures.scale(), !dark));
    }
  }
}
