package ell.files.gerber;

import ell.core.artwork.Template;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.operation.overlayng.OverlayNG;
import org.locationtech.jts.operation.overlayng.OverlayNGRobust;

/// An aperture macro: primitives with expressions in them, worked out for the numbers of an
/// aperture.
///
/// Primitives: 1 disc, 20 (and 2) line, 21 rectangle about its centre, 22 from its lower left
/// corner, 4 outline, 5 polygon, 6 rings with a cross, 7 thermal, 0 comment. Expressions know `+`,
/// `-`, `x`, `/`, brackets and `$1`. A later primitive that is off takes away from the earlier
/// ones.
///
/// @param statements in order, each its fields
record GerberMacro(String name, List<String> statements) {
  GerberMacro {
    statements = List.copyOf(statements);
  }

  /// Reads `AMname*statement*...`.
  static GerberMacro parse(String text) {
    String[] p = text.split("\\*");
    String name = p[0].substring(2).strip();
    if (name.isEmpty()) {
      throw new IllegalArgumentException("an aperture macro without a name");
    }
    List<String> all = new ArrayList<>();
    for (int i = 1; i < p.length; i++) {
      if (!p[i].isBlank()) {
        all.add(p[i].strip());
      }
    }
    return new GerberMacro(name, all);
  }

  /// The shape for the numbers of an aperture.
  ///
  /// @param given what stands behind the name, in the file's unit
  /// @param mm millimetre in a unit of the file
  Template shape(double[] given, double mm) {
    Map<Integer, Double> values = new HashMap<>();
    for (int i = 0; i < given.length; i++) {
      values.put(i + 1, given[i]);
    }
    Geometry all = Template.MAKE.createPolygon();
    Template only = null;
    int drawn = 0;
    for (String s : statements) {
      if (s.startsWith("0")) {
        continue;
      }
      if (s.startsWith("$")) {
        int eq = s.indexOf('=');
        if (eq < 2) {
          throw wrong("expected $n=..., found '" + s + "'");
        }
        values.put(
            Integer.parseInt(s.substring(1, eq).strip()), value(s.substring(eq + 1), values));
        continue;
      }
      String[] fields = s.split(",");
      double[] n = new double[fields.length];
      for (int i = 0; i < n.length; i++) {
        n[i] = value(fields[i], values);
      }
      Primitive p = primitive(n, mm);
      drawn++;
      only = drawn == 1 && p.on() ? p.exact() : null;
      all =
          OverlayNGRobust.overlay(all, p.shape(), p.on() ? OverlayNG.UNION : OverlayNG.DIFFERENCE);
    }
    return only != null ? only : Template.of(all);
  }

  /// @param exact the same with exact measures when it lies about the origin, else null
  private record Primitive(Geometry shape, boolean on, Template exact) {}

  private IllegalArgumentException wrong(String why) {
    return new IllegalArgumentException("aperture macro " + name + ": " + why);
  }

  private void need(double[] n, int least) {
    if (n.length < least) {
      throw wrong(
          "primitive "
              + (int) n[0]
              + " needs "
              + (least - 1)
              + " numbers, found "
              + (n.length - 1));
    }
  }

  private Primitive primitive(double[] n, double mm) {
    switch ((int) n[0]) {
      case 1 -> {
        need(n, 4);
        double x = n.length > 3 ? n[3] * mm : 0;
        double y = n.length > 4 ? n[4] * mm : 0;
        if (n[2] == 0) {
          return new Primitive(Template.MAKE.createPolygon(), n[1] != 0, null);
        }
        Template t = Template.circle(n[2] * mm);
        return new Primitive(
            turned(moved(t.shape(), x, y), at(n, 5)), n[1] != 0, x == 0 && y == 0 ? t : null);
      }
      case 2, 20 -> {
        need(n, 7);
        double dx = (n[5] - n[3]) * mm;
        double dy = (n[6] - n[4]) * mm;
        double run = Math.hypot(dx, dy);
        if (run == 0 || n[2] == 0) {
          return new Primitive(Template.MAKE.createPolygon(), n[1] != 0, null);
        }
        double ox = -dy / run * n[2] * mm / 2;
        double oy = dx / run * n[2] * mm / 2;
        double x0 = n[3] * mm;
        double y0 = n[4] * mm;
        double x1 = n[5] * mm;
        double y1 = n[6] * mm;
        return new Primitive(
            turned(
                Template.polygon(
                    List.of(
                        new double[] {x0 + ox, y0 + oy},
                        new double[] {x0 - ox, y0 - oy},
                        new double[] {x1 - ox, y1 - oy},
                        new double[] {x1 + ox, y1 + oy})),
                at(n, 7)),
            n[1] != 0,
            null);
      }
      case 21 -> {
        need(n, 6);
        Template t = Template.rectangle(n[2] * mm, n[3] * mm);
        return new Primitive(
            turned(moved(t.shape(), n[4] * mm, n[5] * mm), at(n, 6)), n[1] != 0, null);
      }
      case 22 -> {
        need(n, 6);
        Template t = Template.rectangle(n[2] * mm, n[3] * mm);
        return new Primitive(
            turned(moved(t.shape(), (n[4] + n[2] / 2) * mm, (n[5] + n[3] / 2) * mm), at(n, 6)),
            n[1] != 0,
            null);
      }
      case 4 -> {
        need(n, 3);
        int corners = (int) n[2];
        need(n, 3 + 2 * (corners + 1));
        List<double[]> edge = new ArrayList<>();
        for (int i = 0; i < corners; i++) {
          edge.add(new double[] {n[3 + 2 * i] * mm, n[4 + 2 * i] * mm});
        }
        if (corners < 3) {
          throw wrong("an outline needs at least 3 corners");
        }
        Geometry g = Template.polygon(edge);
        g = g.isValid() ? g : org.locationtech.jts.geom.util.GeometryFixer.fix(g);
        return new Primitive(turned(g, at(n, 5 + 2 * corners)), n[1] != 0, null);
      }
      case 5 -> {
        need(n, 6);
        Template t = Template.regular(n[5] * mm, (int) n[2], 0);
        return new Primitive(
            turned(moved(t.shape(), n[3] * mm, n[4] * mm), at(n, 6)), n[1] != 0, null);
      }
      case 6 -> {
        need(n, 9);
        return new Primitive(turned(rings(n, mm), at(n, 9)), true, null);
      }
      case 7 -> {
        need(n, 6);
        return new Primitive(turned(thermal(n, mm), at(n, 6)), true, null);
      }
      default -> throw wrong("unknown primitive " + (int) n[0]);
    }
  }

  /// 6, x, y, outer diameter, ring, gap, most rings, cross thickness, cross length, turn.
  private static Geometry rings(double[] n, double mm) {
    Geometry all = Template.MAKE.createPolygon();
    double d = n[3] * mm;
    for (int i = 0; i < (int) n[6] && d > 0; i++) {
      Geometry ring = Template.disc(0, 0, d / 2);
      double in = d - 2 * n[4] * mm;
      if (in > 0) {
        ring = ring.difference(Template.disc(0, 0, in / 2));
      }
      all = OverlayNGRobust.overlay(all, ring, OverlayNG.UNION);
      d = in - 2 * n[5] * mm;
    }
    if (n[7] > 0 && n[8] > 0) {
      all =
          OverlayNGRobust.union(
              List.of(
                  all,
                  Template.rectangle(n[8] * mm, n[7] * mm).shape(),
                  Template.rectangle(n[7] * mm, n[8] * mm).shape()));
    }
    return moved(all, n[1] * mm, n[2] * mm);
  }

  /// 7, x, y, outer diameter, inner diameter, gap, turn.
  private static Geometry thermal(double[] n, double mm) {
    Geometry g = Template.disc(0, 0, n[3] * mm / 2);
    if (n[4] > 0) {
      g = g.difference(Template.disc(0, 0, n[4] * mm / 2));
    }
    if (n[5] > 0) {
      g =
          g.difference(Template.rectangle(2 * n[3] * mm, n[5] * mm).shape())
              .difference(Template.rectangle(n[5] * mm, 2 * n[3] * mm).shape());
    }
    return moved(g, n[1] * mm, n[2] * mm);
  }

  private static Geometry moved(Geometry g, double x, double y) {
    return x == 0 && y == 0 ? g : AffineTransformation.translationInstance(x, y).transform(g);
  }

  /// Primitives turn about the origin of the macro, not about their own middle.
  private static Geometry turned(Geometry g, double degrees) {
    return degrees == 0
        ? g
        : AffineTransformation.rotationInstance(Math.toRadians(degrees)).transform(g);
  }

  private static double at(double[] n, int i) {
    return n.length > i ? n[i] : 0;
  }

  private double value(String text, Map<Integer, Double> values) {
    Expression e = new Expression(text, values);
    double v = e.sum();
    if (e.more()) {
      throw wrong("cannot read '" + text.strip() + "'");
    }
    return v;
  }

  /// Sums of products of numbers, `$n` and brackets.
  private final class Expression {
    private final String text;
    private final Map<Integer, Double> values;
    private int at;
    private int depth;

    Expression(String text, Map<Integer, Double> values) {
      this.text = text;
      this.values = values;
    }

    boolean more() {
      while (at < text.length() && text.charAt(at) <= ' ') {
        at++;
      }
      return at < text.length();
    }

    private boolean takes(String any) {
      if (more() && any.indexOf(text.charAt(at)) >= 0) {
        at++;
        return true;
      }
      return false;
    }

    double sum() {
      double v = product();
      while (more() && "+-".indexOf(text.charAt(at)) >= 0) {
        v = text.charAt(at++) == '+' ? v + product() : v - product();
      }
      return v;
    }

    private double product() {
      double v = one();
      while (more() && "xX/".indexOf(text.charAt(at)) >= 0) {
        v = text.charAt(at++) == '/' ? v / one() : v * one();
      }
      return v;
    }

    private double one() {
      if (++depth > 200) {
        throw wrong("brackets are nested too deep in '" + text + "'");
      }
      try {
        if (takes("-")) {
          return -one();
        }
        if (takes("+")) {
          return one();
        }
        if (takes("(")) {
          double v = sum();
          if (!takes(")")) {
            throw wrong("expected ) in '" + text + "'");
          }
          return v;
        }
        boolean variable = takes("$");
        int from = at;
        while (at < text.length()
            && (Character.isDigit(text.charAt(at)) || text.charAt(at) == '.')) {
          at++;
        }
        if (from == at) {
          throw wrong("expected a number in '" + text.strip() + "'");
        }
        String digits = text.substring(from, at);
        return variable
            ? values.getOrDefault(Integer.parseInt(digits), 0.0)
            : Double.parseDouble(digits);
      } finally {
        depth--;
      }
    }
  }
}
