package ell.core.order;

import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LineString;

/// Parts beside the edge of a board, which bend when it is cut from its panel.
final class EdgeParts {
  /// Ceramic so near to a cut cracks; common practice, no source.
  private static final double NEAR_MM = 5;

  static final String NEAR_WORDS = "5 mm";

  private EdgeParts() {}

  /// Fitted ceramic capacitors near the edge; none when the edge is not known.
  static List<String> brittle(Revision revision) {
    if (revision.outline().loops().isEmpty()) {
      return List.of();
    }
    GeometryFactory geometry = new GeometryFactory();
    List<Coordinate> ring =
        new java.util.ArrayList<>(
            revision.outline().loops().getFirst().stream()
                .map(p -> new Coordinate(p.xMm(), p.yMm()))
                .toList());
    ring.add(ring.getFirst().copy());
    LineString edge = geometry.createLineString(ring.toArray(Coordinate[]::new));
    return revision.parts().stream()
        .filter(p -> p.fitted() && p.kind() == PartKind.CAPACITOR && p.place().isPresent())
        .filter(p -> !revision.throughHole(p))
        .filter(p -> Bodies.outline(revision.shape(p), p.place().get()).distance(edge) < NEAR_MM)
        .map(Part::reference)
        .toList();
  }
}
