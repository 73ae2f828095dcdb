package ell.files.gerber;

import ell.core.artwork.Template;
import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.geom.util.GeometryFixer;
import org.locationtech.jts.operation.overlayng.OverlayNG;
import org.locationtech.jts.operation.overlayng.OverlayNGRobust;

/// One shape of an aperture macro, in millimetre.
///
/// @param on whether it adds, or takes away
/// @param exact the same with exact measures when it lies about the origin, else null
record MacroPrimitive(Geometry shape, boolean on, Template exact) {
  private static final int MOST_RINGS = 100;
  private static final int MOST_CORNERS = 10_000;

  /// The shape for the numbers of a statement, its code first, in the file's unit.
  ///
  /// @throws IllegalArgumentException when one is missing or cannot be
  static MacroPrimitive of(double[] n, double mm) {
    int code = GerberNumbers.whole(n[0], 0, 999, "the code of a primitive");
    return switch (code) {
      case 1 -> disc(n, mm);
      case 2, 20 -> line(n, mm);
      case 21 -> {
        need(n, 6);
        yield rectangle(n, length(n, 4, mm), length(n, 5, mm), mm);
      }
      case 22 -> {
        need(n, 6);
        yield rectangle(
            n,
            length(n, 4, mm) + length(n, 2, mm) / 2,
            length(n, 5, mm) + length(n, 3, mm) / 2,
            mm);
      }
      case 4 -> outline(n, mm);
      case 5 -> {
        need(n, 6);
        int corners = GerberNumbers.whole(n[2], 3, 12, "the corners of a polygon");
        Template t = Template.regular(length(n, 5, mm), corners, 0);
        yield plain(moved(t.shape(), length(n, 3, mm), length(n, 4, mm)), n, 6);
      }
      case 6 -> new MacroPrimitive(turned(rings(n, mm), n, 9), true, null);
      case 7 -> new MacroPrimitive(turned(thermal(n, mm), n, 6), true, null);
      default -> throw new IllegalArgumentException("unknown primitive " + code);
    };
  }

  private static void need(double[] n, int least) {
    if (n.length < least) {
      throw new IllegalArgumentException(
          "primitive "
              + (int) n[0]
              + " needs "
              + (least - 1)
              + " numbers, found "
              + (n.length - 1));
    }
  }

  /// A measure or place, in millimetre, within what an aperture can be.
  private static double length(double[] n, int i, double mm) {
    return n.length > i ? GerberNumbers.measure(n[i] * mm) : 0;
  }

  private static MacroPrimitive plain(Geometry g, double[] n, int turn) {
    return new MacroPrimitive(turned(g, n, turn), n[1] != 0, null);
  }

  /// 1, on, diameter, x, y, turn.
  private static MacroPrimitive disc(double[] n, double mm) {
    need(n, 4);
    double d = length(n, 2, mm);
    double x = length(n, 3, mm);
    double y = length(n, 4, mm);
    if (d == 0) {
      return new MacroPrimitive(Template.MAKE.createPolygon(), n[1] != 0, null);
    }
    Template t = Template.circle(d);
    return new MacroPrimitive(
        turned(moved(t.shape(), x, y), n, 5), n[1] != 0, x == 0 && y == 0 ? t : null);
  }

  /// 20, on, width, x and y of the start, x and y of the end, turn.
  private static MacroPrimitive line(double[] n, double mm) {
    need(n, 7);
    double w = length(n, 2, mm);
    double x0 = length(n, 3, mm);
    double y0 = length(n, 4, mm);
    double x1 = length(n, 5, mm);
    double y1 = length(n, 6, mm);
    double run = Math.hypot(x1 - x0, y1 - y0);
    if (w < 0) {
      throw new IllegalArgumentException("a line of a negative width");
    }
    if (run == 0 || w == 0) {
      return new MacroPrimitive(Template.MAKE.createPolygon(), n[1] != 0, null);
    }
    double ox = -(y1 - y0) / run * w / 2;
    double oy = (x1 - x0) / run * w / 2;
    return plain(
        Template.polygon(
            List.of(
                new double[] {x0 + ox, y0 + oy},
                new double[] {x0 - ox, y0 - oy},
                new double[] {x1 - ox, y1 - oy},
                new double[] {x1 + ox, y1 + oy})),
        n,
        7);
  }

  private static MacroPrimitive rectangle(double[] n, double x, double y, double mm) {
    Template t = Template.rectangle(length(n, 2, mm), length(n, 3, mm));
    return plain(moved(t.shape(), x, y), n, 6);
  }

  /// 4, on, corners, x and y of each and of the first again, turn.
  private static MacroPrimitive outline(double[] n, double mm) {
    need(n, 3);
    int corners = GerberNumbers.whole(n[2], 3, MOST_CORNERS, "the corners of an outline");
    need(n, 3 + 2 * (corners + 1));
    List<double[]> edge = new ArrayList<>();
    for (int i = 0; i < corners; i++) {
      edge.add(new double[] {length(n, 3 + 2 * i, mm), length(n, 4 + 2 * i, mm)});
    }
    Geometry g = Template.polygon(edge);
    return plain(g.isValid() ? g : GeometryFixer.fix(g), n, 5 + 2 * corners);
  }

  /// 6, x, y, outer diameter, ring, gap, most rings, cross thickness, cross length, turn.
  private static Geometry rings(double[] n, double mm) {
    need(n, 9);
    double ring = length(n, 4, mm);
    double gap = length(n, 5, mm);
    int most = GerberNumbers.whole(n[6], 0, MOST_RINGS, "the number of rings");
    if (ring < 0 || gap < 0 || n[7] < 0 || n[8] < 0) {
      throw new IllegalArgumentException("rings of a negative measure");
    }
    Geometry all = Template.MAKE.createPolygon();
    double d = length(n, 3, mm);
    for (int i = 0; i < most && d > 0 && ring > 0; i++) {
      Geometry one = Template.disc(0, 0, d / 2);
      double in = d - 2 * ring;
      if (in > 0) {
        one = one.difference(Template.disc(0, 0, in / 2));
      }
      all = OverlayNGRobust.overlay(all, one, OverlayNG.UNION);
      d = in - 2 * gap;
    }
    double thick = length(n, 7, mm);
    double across = length(n, 8, mm);
    if (thick > 0 && across > 0) {
      all =
          OverlayNGRobust.union(
              List.of(
                  all,
                  Template.rectangle(across, thick).shape(),
                  Template.rectangle(thick, across).shape()));
    }
    return moved(all, length(n, 1, mm), length(n, 2, mm));
  }

  /// 7, x, y, outer diameter, inner diameter, gap, turn.
  private static Geometry thermal(double[] n, double mm) {
    need(n, 6);
    double outer = length(n, 3, mm);
    double inner = length(n, 4, mm);
    double gap = length(n, 5, mm);
    if (!(outer > 0) || inner < 0 || inner >= outer || gap < 0) {
      throw new IllegalArgumentException(
          "a thermal needs an outer diameter above its inner one, and no negative gap");
    }
    Geometry g = Template.disc(0, 0, outer / 2);
    if (inner > 0) {
      g = g.difference(Template.disc(0, 0, inner / 2));
    }
    if (gap > 0) {
      g =
          g.difference(Template.rectangle(2 * outer, gap).shape())
              .difference(Template.rectangle(gap, 2 * outer).shape());
    }
    return moved(g, length(n, 1, mm), length(n, 2, mm));
  }

  private static Geometry moved(Geometry g, double x, double y) {
    return x == 0 && y == 0 ? g : AffineTransformation.translationInstance(x, y).transform(g);
  }

  /// Primitives turn about the origin of the macro, not about their own middle.
  private static Geometry turned(Geometry g, double[] n, int i) {
    double degrees = n.length > i ? n[i] : 0;
    if (!(Math.abs(degrees) <= 3600)) {
      throw new IllegalArgumentException("expected a turn within 3600 degrees");
    }
    return degrees == 0
        ? g
        : AffineTransformation.rotationInstance(Math.toRadians(degrees)).transform(g);
  }
}
