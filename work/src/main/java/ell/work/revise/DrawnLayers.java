package ell.work.revise;

import ell.core.artwork.Artwork;
import ell.core.artwork.Drilling;
import ell.core.artwork.Islands;
import ell.core.board.Revision;
import ell.core.revise.difference.LayerDifference;
import ell.core.revise.difference.LayerDifference.Shape;
import ell.core.revise.difference.RevisionDifference;
import ell.work.bring.KeptHoles;
import ell.work.bring.LayerKind;
import ell.work.bring.Layers;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// The layers that are kept with two revisions, held against each other.
final class DrawnLayers {
  private DrawnLayers() {}

  /// What differs in layers that one or both have; the edge is in the drawing itself.
  static List<LayerDifference> of(
      Workspace space, RevisionDifference d, Revision first, Revision second)
      throws IOException, ActException {
    List<LayerDifference> all = new ArrayList<>();
    for (LayerKind k : LayerKind.values()) {
      if (k == LayerKind.OUTLINE) {
        continue;
      }
      Optional<List<Shape>> a = shapes(space, first, k);
      Optional<List<Shape>> b = shapes(space, second, k);
      if (a.isPresent() && b.isPresent()) {
        all.add(
            LayerDifference.of(
                k.words(), a.get(), b.get(), first, second, d.shiftXMm(), d.shiftYMm()));
      } else if (a.isPresent() || b.isPresent()) {
        all.add(LayerDifference.one(k.words(), a.isPresent() ? first.title() : second.title()));
      }
    }
    return all.stream().filter(l -> !l.same()).toList();
  }

  private static Optional<List<Shape>> shapes(Workspace space, Revision r, LayerKind k)
      throws IOException, ActException {
    if (k == LayerKind.DRILL) {
      Optional<Drilling> holes = KeptHoles.of(space.book(), r);
      return holes.map(h -> h.holes().stream().map(Shape::of).toList());
    }
    Optional<Artwork> art =
        Layers.kept(space.book().document(r.design(), r.name(), k.key()), k.words());
    return art.map(a -> Islands.of(a).stream().map(Shape::of).toList());
  }
}
