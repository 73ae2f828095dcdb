package ell.core.artwork;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Polygon;

/// One connected filled area of a layer. Millimetre; the template lies around its own origin.
///
/// @param x where the template's origin lies
/// @param y where the template's origin lies
/// @param tag of the largest figure in it
public record Island(Template template, double x, double y, Tag tag) {
  /// Its edges, the outer one first in each polygon: `{x0, y0, x1, y1, ...}` around its origin.
  public List<double[]> rings() {
    List<double[]> out = new ArrayList<>();
    Geometry g = template.shape();
    for (int i = 0; i < g.getNumGeometries(); i++) {
      if (g.getGeometryN(i) instanceof Polygon p) {
        out.add(flat(p.getExteriorRing().getCoordinates()));
        for (int k = 0; k < p.getNumInteriorRing(); k++) {
          out.add(flat(p.getInteriorRingN(k).getCoordinates()));
        }
      }
    }
    return out;
  }

  /// A point that is not far from its middle, in board coordinates.
  public double[] middle() {
    Coordinate c = template.shape().getEnvelopeInternal().centre();
    return new double[] {x + c.x, y + c.y};
  }

  private static double[] flat(Coordinate[] c) {
    double[] out = new double[2 * (c.length - 1)];
    for (int i = 0; i + 1 < c.length; i++) {
      out[2 * i] = c[i].x;
      out[2 * i + 1] = c[i].y;
    }
    return out;
  }
}
