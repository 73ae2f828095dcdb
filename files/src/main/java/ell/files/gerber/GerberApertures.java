package ell.files.gerber;

import ell.core.artwork.Figure;
import ell.core.artwork.Template;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.locationtech.jts.geom.util.AffineTransformation;

/// The apertures of a Gerber file, macros and blocks among them; and the one in hand, with how it
/// is mirrored, turned and scaled.
final class GerberApertures {
  private static final Pattern DEFINED =
      Pattern.compile("ADD\\s*+(\\d{1,9}+)\\s*+([^,\\d\\s][^,]*+)(?:,(.*+))?+");

  /// Shapes of macros in all apertures of a layer.
  private static final int MOST_DRAWN = 10_000;

  private final GerberFormat numbers;

  /// What is drawn with: a shape, or a block.
  private record Tool(Template shape, List<Figure> block) {}

  private final Map<Integer, Tool> tools = new HashMap<>();
  private final Map<String, GerberMacro> macros = new HashMap<>();
  private final Map<String, Template> mapped = new HashMap<>();
  private int drawn;
  private int inHand = -1;
  private Tool tool; // the one of that number, null while there is none
  private String mirror = "N";
  private double turn;
  private double scale = 1;

  GerberApertures(GerberFormat numbers) {
    this.numbers = numbers;
  }

  void macro(GerberMacro m) {
    macros.put(m.name(), m);
  }

  void block(GerberFigures.Block b) {
    put(b.number(), new Tool(null, b.figures()));
  }

  private void put(int code, Tool made) {
    tools.put(code, made);
    tool = code == inHand ? made : tool;
  }

  /// Takes a definition such as `ADD10C,0.25`.
  void define(String w) {
    Matcher m = DEFINED.matcher(w);
    if (!m.matches()) {
      throw new IllegalArgumentException("expected an aperture such as ADD10C,0.25");
    }
    int code = Integer.parseInt(m.group(1));
    if (code < 10) {
      throw new IllegalArgumentException("aperture numbers begin at 10");
    }
    String numbersOf = m.group(3) == null ? "" : m.group(3).strip();
    String[] words = numbersOf.isEmpty() ? new String[0] : numbersOf.split("[Xx,]");
    double[] p = new double[words.length];
    for (int i = 0; i < p.length; i++) {
      p[i] = GerberNumbers.decimal(words[i]);
    }
    put(code, new Tool(shape(m.group(2).strip(), p), null));
    mapped.clear();
  }

  private Template shape(String name, double[] p) {
    switch (name) {
      case "C" -> {
        need(p, 1, 3, "C,diameter");
        return sized(p, 1) ? pierced(Template.circle(size(p, 0)), p, 1) : nothing();
      }
      case "R" -> {
        need(p, 2, 4, "R,widthXheight");
        return sized(p, 2) ? pierced(Template.rectangle(size(p, 0), size(p, 1)), p, 2) : nothing();
      }
      case "O" -> {
        need(p, 2, 4, "O,widthXheight");
        return sized(p, 2) ? pierced(Template.obround(size(p, 0), size(p, 1)), p, 2) : nothing();
      }
      case "P" -> {
        need(p, 2, 5, "P,diameterXcorners");
        int corners = GerberNumbers.whole(p[1], 3, 12, "the corners of a polygon");
        return sized(p, 1)
            ? pierced(Template.regular(size(p, 0), corners, p.length > 2 ? p[2] : 0), p, 3)
            : nothing();
      }
      default -> {
        GerberMacro macro = macros.get(name);
        if (macro == null) {
          throw new IllegalArgumentException("there is no aperture macro '" + name + "'");
        }
        drawn += macro.size();
        if (drawn > MOST_DRAWN) {
          throw new GerberFigures.TooMuch("apertures of more than " + MOST_DRAWN + " shapes");
        }
        return macro.shape(p, numbers.mm());
      }
    }
  }

  private static Template nothing() {
    return Template.of(Template.MAKE.createPolygon());
  }

  private static void need(double[] p, int least, int most, String form) {
    if (p.length < least || p.length > most) {
      throw new IllegalArgumentException("expected " + form + ", found " + p.length + " numbers");
    }
  }

  private double size(double[] p, int i) {
    return GerberNumbers.measure(p[i] * numbers.mm());
  }

  /// Whether the measures are above 0: an aperture of no size is allowed and leaves nothing.
  private static boolean sized(double[] p, int count) {
    for (int i = 0; i < count; i++) {
      if (p[i] == 0) {
        return false;
      }
    }
    return true;
  }

  /// A hole in the middle: round, or with two numbers, as old writers have it, a rectangle.
  private Template pierced(Template whole, double[] p, int at) {
    if (p.length <= at) {
      return whole;
    }
    return p.length > at + 1
        ? whole.pierced(size(p, at), size(p, at + 1))
        : whole.pierced(size(p, at));
  }

  /// Takes an aperture in hand; whether there is one of that number shows when it is used.
  void choose(int code) {
    inHand = code;
    tool = tools.get(code);
  }

  int inHand() {
    return inHand;
  }

  boolean defined() {
    return tool != null;
  }

  void mustBeChosen() {
    if (inHand < 0) {
      throw new IllegalArgumentException("no aperture was chosen before");
    }
  }

  /// Takes `LMN`, `LMX`, `LMY` or `LMXY`.
  void mirror(String w) {
    if (!w.matches("LM(N|X|Y|XY)")) {
      throw new IllegalArgumentException("expected LMN, LMX, LMY or LMXY");
    }
    mirror = w.substring(2);
  }

  void turn(double degrees) {
    if (!(Math.abs(degrees) <= 3600)) {
      throw new IllegalArgumentException("expected a turn within 3600 degrees");
    }
    turn = degrees;
  }

  void scale(double factor) {
    if (!(factor >= 1e-3 && factor <= 1e3)) {
      throw new IllegalArgumentException("expected a scale in 0.001...1000");
    }
    scale = factor;
  }

  double scale() {
    return scale;
  }

  /// Whether what is laid down is neither mirrored nor turned nor scaled.
  boolean plain() {
    return mirror.equals("N") && turn == 0 && scale == 1;
  }

  /// The block in hand, null when it is no block.
  List<Figure> block() {
    return tool == null ? null : tool.block;
  }

  /// The aperture in hand, mirrored, turned and scaled; empty when it is a block.
  Optional<Template> shape() {
    Template t = tool == null ? null : tool.shape;
    if (t == null || plain()) {
      return Optional.ofNullable(t);
    }
    GerberNumbers.measure(t.longest() * scale);
    return Optional.of(
        mapped.computeIfAbsent(
            inHand + " " + mirror + " " + turn + " " + scale, _ -> t.through(map(), scale)));
  }

  /// How a block in hand is mirrored, turned and scaled.
  AffineTransformation map() {
    AffineTransformation m = new AffineTransformation();
    m.scale(mirror.contains("X") ? -1 : 1, mirror.contains("Y") ? -1 : 1);
    m.rotate(Math.toRadians(turn));
    m.scale(scale, scale);
    return m;
  }
}
