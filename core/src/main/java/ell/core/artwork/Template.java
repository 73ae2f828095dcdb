package ell.core.artwork;

import ell.core.quantity.Check;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.locationtech.jts.algorithm.MinimumAreaRectangle;
import org.locationtech.jts.algorithm.MinimumDiameter;
import org.locationtech.jts.algorithm.construct.MaximumInscribedCircle;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.util.AffineTransformation;

/// A shape that can be laid down many times, around its own origin. Millimetre.
///
/// @param shape polygons, may be several
/// @param area exact where the shape is a simple one
/// @param perimeter of all its edges, those of holes too
/// @param narrowest smallest width across; of a shape with thousands of corners, the mean width
/// @param longest length of the tightest rectangle around it
/// @param penMm diameter when it is a plain disc, else NaN
public record Template(
    Geometry shape, double area, double perimeter, double narrowest, double longest, double penMm) {
  /// How far the corners of a round end may lie from it, in millimetre.
  private static final double CHORD_MM = 5e-4;

  /// Paths that are worked out together as finely as one.
  private static final int FEW_PATHS = 8;

  /// Shapes with more corners have their mean width for the smallest.
  private static final int MANY_CORNERS = 4000;

  /// Makes every shape of this package.
  public static final GeometryFactory MAKE = new GeometryFactory();

  /// A disc.
  ///
  /// @throws IllegalArgumentException when diameter is not above 0
  public static Template circle(double d) {
    Check.positive(d, "diameter");
    return new Template(disc(0, 0, d / 2), Math.PI * d * d / 4, Math.PI * d, d, d, d);
  }

  /// A rectangle, `w` along x.
  ///
  /// @throws IllegalArgumentException when width is not above 0 or height is not above 0
  public static Template rectangle(double w, double h) {
    Check.positive(w, "width");
    Check.positive(h, "height");
    return new Template(
        polygon(
            List.of(
                new double[] {-w / 2, -h / 2},
                new double[] {w / 2, -h / 2},
                new double[] {w / 2, h / 2},
                new double[] {-w / 2, h / 2})),
        w * h,
        2 * (w + h),
        Math.min(w, h),
        Math.max(w, h),
        Double.NaN);
  }

  /// A rectangle whose short ends are half circles.
  ///
  /// @throws IllegalArgumentException when width is not above 0 or height is not above 0
  public static Template obround(double w, double h) {
    Check.positive(w, "width");
    Check.positive(h, "height");
    if (w == h) {
      return circle(w);
    }
    double d = Math.min(w, h);
    double run = Math.max(w, h) - d;
    double x = w > h ? run / 2 : 0;
    double y = w > h ? 0 : run / 2;
    Geometry g = along(new double[][] {{-x, -y}, {x, y}}, d);
    return new Template(
        g, run * d + Math.PI * d * d / 4, 2 * run + Math.PI * d, d, run + d, Double.NaN);
  }

  /// A regular polygon.
  ///
  /// @param d diameter of the circle through its corners
  /// @param corners 3...12
  /// @param degrees how far the first corner is turned from x, counter-clockwise
  /// @throws IllegalArgumentException when diameter is not above 0 or corners is not in 3...12
  public static Template regular(double d, int corners, double degrees) {
    Check.positive(d, "diameter");
    Check.inRange(corners, 3, 12, "corners");
    List<double[]> at = new ArrayList<>();
    for (int i = 0; i < corners; i++) {
      double a = Math.toRadians(degrees) + 2 * Math.PI * i / corners;
      at.add(new double[] {d / 2 * Math.cos(a), d / 2 * Math.sin(a)});
    }
    return of(polygon(at));
  }

  /// The same shape with a round hole in its middle.
  public Template pierced(double d) {
    return d > 0 ? of(shape.difference(disc(0, 0, d / 2))) : this;
  }

  /// The same shape with a rectangle cut out of its middle, `w` along x; nothing is cut when either
  /// is 0.
  public Template pierced(double w, double h) {
    return w > 0 && h > 0 ? of(shape.difference(rectangle(w, h).shape)) : this;
  }

  /// Any shape, measured.
  public static Template of(Geometry g) {
    if (g.isEmpty()) {
      return new Template(g, 0, 0, 0, 0, Double.NaN);
    }
    return new Template(g, g.getArea(), g.getLength(), narrowest(g), longest(g), Double.NaN);
  }

  /// The same shape through a linear map.
  public Template through(AffineTransformation map, double scale) {
    if (penMm > 0) {
      return circle(penMm * scale);
    }
    return new Template(
        map.transform(shape),
        area * scale * scale,
        perimeter * scale,
        narrowest * scale,
        longest * scale,
        Double.NaN);
  }

  /// A disc as a polygon.
  public static Polygon disc(double x, double y, double r) {
    List<double[]> at = new ArrayList<>(Arcs.PER_TURN);
    for (int i = 0; i < Arcs.PER_TURN; i++) {
      double a = 2 * Math.PI * i / Arcs.PER_TURN;
      at.add(new double[] {x + r * Math.cos(a), y + r * Math.sin(a)});
    }
    return polygon(at);
  }

  /// A closed ring as a polygon.
  ///
  /// @param at corners in order, three or more
  public static Polygon polygon(List<double[]> at) {
    Coordinate[] c = new Coordinate[at.size() + 1];
    for (int i = 0; i < at.size(); i++) {
      c[i] = new Coordinate(at.get(i)[0], at.get(i)[1]);
    }
    c[at.size()] = c[0].copy();
    return MAKE.createPolygon(c);
  }

  /// What a round pen leaves along a path.
  static Geometry along(double[][] path, double pen) {
    return along(List.of(Arrays.asList(path)), pen);
  }

  /// What a round pen leaves along several paths; of many, the round ends have corners that lie
  /// within half a micrometre of them. A path that closes would be taken for a ring, with a false
  /// hole where the pen is wider than the ring; cut in two at a corner it is two lines that meet.
  static Geometry along(List<List<double[]>> paths, double pen) {
    List<Geometry> lines = new ArrayList<>();
    for (List<double[]> path : paths) {
      Coordinate[] c = new Coordinate[path.size()];
      for (int i = 0; i < c.length; i++) {
        c[i] = new Coordinate(path.get(i)[0], path.get(i)[1]);
      }
      if (c.length == 1) {
        lines.add(MAKE.createPoint(c[0]));
      } else if (c.length > 2 && c[0].equals2D(c[c.length - 1])) {
        int cut = c.length / 2;
        lines.add(MAKE.createLineString(Arrays.copyOfRange(c, 0, cut + 1)));
        lines.add(MAKE.createLineString(Arrays.copyOfRange(c, cut, c.length)));
      } else {
        lines.add(MAKE.createLineString(c));
      }
    }
    Geometry all = lines.size() == 1 ? lines.getFirst() : MAKE.buildGeometry(lines);
    // of a few the ends are as fine as any disc; of many, as fine as anybody can see
    int corners = paths.size() <= FEW_PATHS ? Arcs.PER_TURN / 4 : quarter(pen / 2);
    return all.buffer(pen / 2, corners);
  }

  /// Corners of a quarter turn whose chords lie within half a micrometre of it.
  private static int quarter(double radius) {
    double half = Math.acos(Math.max(0, 1 - CHORD_MM / radius));
    return Math.clamp((long) Math.ceil(Math.PI / 4 / half), 6, Arcs.PER_TURN / 4);
  }

  private static double narrowest(Geometry g) {
    double across = new MinimumDiameter(g).getLength();
    boolean convex = g.getArea() > 0.9999 * g.convexHull().getArea();
    if (convex) {
      return across;
    }
    if (g.getNumPoints() > MANY_CORNERS) {
      return Math.min(across, 2 * g.getArea() / g.getLength()); // of a strip it is the width
    }
    double inside =
        new MaximumInscribedCircle(g, Math.max(across * 0.002, 1e-4)).getRadiusLine().getLength();
    return Math.min(across, 2 * inside);
  }

  private static double longest(Geometry g) {
    Geometry box = MinimumAreaRectangle.getMinimumRectangle(g);
    if (!(box instanceof Polygon p)) {
      return box.getLength();
    }
    Coordinate[] c = p.getExteriorRing().getCoordinates();
    return Math.max(c[0].distance(c[1]), c[1].distance(c[2]));
  }
}
