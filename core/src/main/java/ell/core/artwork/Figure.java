package ell.core.artwork;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.geom.util.GeometryFixer;
import org.locationtech.jts.operation.overlayng.OverlayNGRobust;

/// One thing laid down on a layer; a clear one takes away what lies there already. Millimetre.
public sealed interface Figure {
  /// Whether it adds, or takes away.
  boolean dark();

  /// What it says of itself.
  Tag tag();

  /// The room that it covers.
  Geometry shape();

  /// The same figure elsewhere.
  Figure moved(double dx, double dy);

  /// The same figure through a linear map, turned from dark to clear when `flip`.
  Figure through(AffineTransformation map, double scale, boolean flip);

  /// A template at a place.
  record Flash(Template template, double x, double y, boolean dark, Tag tag) implements Figure {
    @Override
    public Geometry shape() {
      return AffineTransformation.translationInstance(x, y).transform(template.shape());
    }

    @Override
    public Figure moved(double dx, double dy) {
      return new Flash(template, x + dx, y + dy, dark, tag);
    }

    @Override
    public Figure through(AffineTransformation map, double scale, boolean flip) {
      double[] at = point(map, new double[] {x, y});
      return new Flash(template.through(linear(map), scale), at[0], at[1], dark ^ flip, tag);
    }
  }

  /// A template drawn along a path.
  ///
  /// @param path `{x, y}` each, two or more
  record Stroke(List<double[]> path, Template pen, boolean dark, Tag tag) implements Figure {
    public Stroke {
      path = List.copyOf(path);
    }

    @Override
    public Geometry shape() {
      if (pen.penMm() > 0) {
        return Template.along(path.toArray(double[][]::new), pen.penMm());
      }
      // any other pen sweeps the hull of its two ends along each straight run; exact when convex
      List<Geometry> runs = new ArrayList<>();
      for (int i = 1; i < path.size(); i++) {
        Geometry a = at(path.get(i - 1));
        Geometry b = at(path.get(i));
        runs.add(Template.MAKE.createGeometryCollection(new Geometry[] {a, b}).convexHull());
      }
      return OverlayNGRobust.union(runs);
    }

    private Geometry at(double[] p) {
      return AffineTransformation.translationInstance(p[0], p[1]).transform(pen.shape());
    }

    @Override
    public Figure moved(double dx, double dy) {
      return new Stroke(
          path.stream().map(p -> new double[] {p[0] + dx, p[1] + dy}).toList(), pen, dark, tag);
    }

    @Override
    public Figure through(AffineTransformation map, double scale, boolean flip) {
      return new Stroke(
          path.stream().map(p -> point(map, p)).toList(),
          pen.through(linear(map), scale),
          dark ^ flip,
          tag);
    }
  }

  /// A filled area with one edge, which may touch itself where a hole is cut in.
  record Region(List<double[]> edge, boolean dark, Tag tag) implements Figure {
    public Region {
      edge = List.copyOf(edge);
    }

    @Override
    public Geometry shape() {
      Geometry g = Template.polygon(edge);
      return g.isValid() ? g : GeometryFixer.fix(g);
    }

    @Override
    public Figure moved(double dx, double dy) {
      return new Region(
          edge.stream().map(p -> new double[] {p[0] + dx, p[1] + dy}).toList(), dark, tag);
    }

    @Override
    public Figure through(AffineTransformation map, double scale, boolean flip) {
      return new Region(edge.stream().map(p -> point(map, p)).toList(), dark ^ flip, tag);
    }
  }

  private static double[] point(AffineTransformation map, double[] p) {
    double[] m = map.getMatrixEntries();
    return new double[] {m[0] * p[0] + m[1] * p[1] + m[2], m[3] * p[0] + m[4] * p[1] + m[5]};
  }

  private static AffineTransformation linear(AffineTransformation map) {
    double[] m = map.getMatrixEntries();
    return new AffineTransformation(m[0], m[1], 0, m[3], m[4], 0);
  }
}
