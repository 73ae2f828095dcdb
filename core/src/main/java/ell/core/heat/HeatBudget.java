package ell.core.heat;

import ell.core.board.PackageShape;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import java.util.Optional;

/// How often a part may be heated. Typical, no source: three times, parts with balls twice; the
/// part's data sheet decides.
public final class HeatBudget {
  private HeatBudget() {}

  /// Heatings that a part takes.
  public static int limit(Revision revision, Part part) {
    return revision.shape(part).family() == PackageShape.Family.BALLS ? 2 : 3;
  }

  /// Why a part should not be heated once more, empty when it may be.
  public static Optional<String> refusal(Revision revision, BoardState state, String reference) {
    Optional<Part> part = revision.part(reference);
    int had = HeatFacts.of(state).heatCycles().getOrDefault(reference, 0);
    return part.filter(p -> had >= limit(revision, p))
        .map(p ->
            reference
                + " was heated "
                + had
                + (had == 1 ? " time" : " times")
                + " and takes "
                + limit(revision, p)
                + ": boards die of repeated rework");
  }
}
