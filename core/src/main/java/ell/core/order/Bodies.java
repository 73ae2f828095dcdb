package ell.core.order;

import ell.core.board.PackageShape;
import ell.core.board.Part;
import ell.core.board.Revision;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiConsumer;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.index.strtree.STRtree;

/// The outlines of the bodies on a board, and which of them are near or over each other.
/// Millimetre.
public final class Bodies {
  private static final GeometryFactory GEOMETRY = new GeometryFactory();
  private static final int CORNERS = 32;

  /// A body covers another when it lies over so much of it.
  private static final double COVERED = 0.3;

  private final List<Part> parts;
  private final Geometry[] outlines;
  private final PackageShape[] shapes;
  private final STRtree tree = new STRtree();
  private final Map<String, Integer> index = new HashMap<>();

  /// The bodies of parts of a revision; parts without a place have none.
  public Bodies(Revision revision, List<Part> parts) {
    this.parts = parts;
    this.outlines = new Geometry[parts.size()];
    this.shapes = new PackageShape[parts.size()];
    for (int i = 0; i < outlines.length; i++) {
      Part p = parts.get(i);
      index.put(p.reference(), i);
      shapes[i] = revision.shape(p);
      if (p.place().isPresent()) {
        outlines[i] = outline(shapes[i], p.place().get());
        tree.insert(outlines[i].getEnvelopeInternal(), i);
      }
    }
    tree.build();
  }

  /// The outline of a body where it sits: round cans as a circle, everything else as its turned
  /// rectangle.
  public static Geometry outline(PackageShape shape, Part.Spot spot) {
    boolean round = shape.round();
    double l = shape.lengthMm() / 2;
    double w = shape.widthMm() / 2;
    double[][] local = new double[round ? CORNERS : 4][];
    for (int k = 0; k < local.length; k++) {
      double a = 2 * Math.PI * k / CORNERS;
      local[k] =
          round
              ? new double[] {l * Math.cos(a), l * Math.sin(a)}
              : new double[] {k == 0 || k == 3 ? -l : l, k < 2 ? -w : w};
    }
    double c = Math.cos(Math.toRadians(spot.rotationDeg()));
    double s = Math.sin(Math.toRadians(spot.rotationDeg()));
    Coordinate[] ring = new Coordinate[local.length + 1];
    for (int k = 0; k < local.length; k++) {
      ring[k] =
          new Coordinate(
              spot.xMm() + local[k][0] * c - local[k][1] * s,
              spot.yMm() + local[k][0] * s + local[k][1] * c);
    }
    ring[local.length] = ring[0].copy();
    return GEOMETRY.createPolygon(ring);
  }

  double height(int i) {
    return shapes[i].heightMm();
  }

  /// The height in words, to a tenth of a millimetre; by hand, for a formatter is slow to begin.
  String words(int i) {
    return Math.round(height(i) * 10) / 10.0 + " mm";
  }

  PackageShape shape(int i) {
    return shapes[i];
  }

  /// Calls back once for each pair on one side whose outlines are at most `clearanceMm` apart.
  void near(double clearanceMm, BiConsumer<Integer, Integer> pair) {
    for (int a = 0; a < outlines.length; a++) {
      if (outlines[a] == null) {
        continue;
      }
      for (int b : around(a, clearanceMm)) {
        if (b > a && distance(a, b) <= clearanceMm) {
          pair.accept(a, b);
        }
      }
    }
  }

  @SuppressWarnings("unchecked")
  private int[] around(int a, double clearanceMm) {
    Envelope box = new Envelope(outlines[a].getEnvelopeInternal());
    box.expandBy(clearanceMm);
    return ((List<Integer>) tree.query(box))
        .stream()
            .mapToInt(Integer::intValue)
            .filter(b -> b != a && parts.get(a).side() == parts.get(b).side())
            .sorted()
            .toArray();
  }

  private double distance(int a, int b) {
    return outlines[a].distance(outlines[b]);
  }

  /// Whether the body of `over` lies over a good part of the body of `under`, or over its middle.
  boolean covers(int over, int under) {
    if (outlines[over] == null || outlines[under] == null) {
      return false;
    }
    if (!outlines[over].getEnvelopeInternal().intersects(outlines[under].getEnvelopeInternal())) {
      return false;
    }
    return outlines[over].contains(outlines[under].getCentroid())
        || outlines[over].intersection(outlines[under]).getArea()
            > COVERED * outlines[under].getArea();
  }

  /// Whether the body of `over` lies over a point on its side.
  boolean covers(int over, double xMm, double yMm) {
    return outlines[over] != null
        && outlines[over].getEnvelopeInternal().contains(xMm, yMm)
        && outlines[over].contains(GEOMETRY.createPoint(new Coordinate(xMm, yMm)));
  }

  /// A neighbour of a part and how far its body is.
  public record Neighbour(String reference, double distanceMm) {}

  /// The nearest bodies on the same side, nearest first.
  public List<Neighbour> nearest(String reference, int most) {
    Integer a = index.get(reference);
    if (a == null || outlines[a] == null) {
      return List.of();
    }
    List<Neighbour> found = new ArrayList<>();
    for (double reach = 5; found.size() < most && reach < 400; reach *= 2) {
      found =
          Arrays.stream(around(a, reach))
              .mapToObj(b -> new Neighbour(parts.get(b).reference(), distance(a, b)))
              .sorted((x, y) -> Double.compare(x.distanceMm(), y.distanceMm()))
              .toList();
    }
    return found.stream().limit(most).toList();
  }
}
