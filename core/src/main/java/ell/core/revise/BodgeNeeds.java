package ell.core.revise;

import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.revise.difference.RevisionDifference;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// The parts that bodges take which are still to be made: what the kit has to count beside the
/// bill.
public final class BodgeNeeds {
  private BodgeNeeds() {}

  /// The code of the part that a step takes, empty where it takes none. What is said by its value
  /// is the code of the bill with that value, where there is one.
  public static Optional<String> code(BodgeStep s, Revision revision) {
    return switch (s.kind()) {
      case ADD -> Optional.of(known(s.code(), revision));
      case FIT, REPLACE ->
          s.code().isEmpty()
              ? revision
                  .part(s.places().getFirst())
                  .map(p -> p.code().isEmpty() ? p.label() : p.code())
              : Optional.of(known(s.code(), revision));
      default -> Optional.empty();
    };
  }

  private static String known(String said, Revision revision) {
    return revision.parts().stream()
        .filter(p -> p.code().equalsIgnoreCase(said))
        .findFirst()
        .or(() ->
            revision.parts().stream()
                .filter(p -> RevisionDifference.sameValue(p.value(), said))
                .findFirst())
        .map(Part::code)
        .filter(c -> !c.isEmpty())
        .orElse(said);
  }

  /// Codes with how many are still needed.
  ///
  /// @param errata that the revision has and that are open
  /// @param boards what the books say of its boards
  /// @param more boards that are not begun and have no book yet
  public static Map<String, Integer> of(
      List<Erratum> errata, Revision revision, Collection<BoardState> boards, int more) {
    Map<String, Integer> all = new LinkedHashMap<>();
    for (Erratum e : errata) {
      if (e.bodge().isEmpty()) {
        continue;
      }
      int left = more;
      for (BoardState s : boards) {
        left += Stand.of(e, revision, s).state() == Stand.State.NEEDED ? 1 : 0;
      }
      for (BodgeStep s : e.bodge()) {
        Optional<String> c = code(s, revision);
        if (left > 0 && c.isPresent()) {
          all.merge(c.get(), left, Integer::sum);
        }
      }
    }
    return all;
  }

  /// A revision as the kit counts it: what bodges take of a code lies beside the build; a code that
  /// the bill does not have is a part of its own, called after it.
  public static Revision counted(Revision revision, Map<String, Integer> needs) {
    if (needs.isEmpty()) {
      return revision;
    }
    Map<String, Integer> open = new LinkedHashMap<>(needs);
    List<Part> parts = new ArrayList<>();
    for (Part p : revision.parts()) {
      Integer n = p.fitted() ? open.remove(p.code()) : null;
      parts.add(n == null ? p : with(p, p.spares() + n, true));
    }
    open.forEach((code, n) ->
        parts.add(
            new Part(
                "bodge-" + code,
                code,
                "",
                code,
                "for a bodge",
                true,
                false,
                List.of(),
                "",
                Optional.empty(),
                Double.NaN,
                Double.NaN)));
    return new Revision(
        revision.design(),
        revision.name(),
        parts,
        revision.joints(),
        revision.outline(),
        revision.packages());
  }

  private static Part with(Part p, int spares, boolean fitted) {
    return new Part(
        p.reference(),
        p.value(),
        p.packageName(),
        p.code(),
        p.description(),
        fitted,
        p.key(),
        p.alternates(),
        p.block(),
        p.place(),
        p.massGrams(),
        p.unitCost(),
        p.variants(),
        spares);
  }

  /// On how many boards the parts of [#counted] that are of no bill are not needed any more.
  ///
  /// @param boards of the build
  public static Map<String, Long> placed(
      Revision revision, Map<String, Integer> needs, int boards) {
    Map<String, Long> all = new LinkedHashMap<>();
    needs.forEach((code, n) -> {
      if (revision.parts().stream().noneMatch(p -> p.fitted() && p.code().equals(code))) {
        all.put("bodge-" + code, (long) Math.max(0, boards - n));
      }
    });
    return all;
  }
}
