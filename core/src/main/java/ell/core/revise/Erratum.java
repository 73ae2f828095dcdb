package ell.core.revise;

import ell.core.board.Revision;
import ell.core.power.Fault;
import ell.core.power.FaultWords;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// A mistake of a design, as the book says it now.
///
/// @param id such as `E1`
/// @param title in a few words
/// @param design that it is of
/// @param revisions that have it
/// @param fault in the words of faults, empty where none says it
/// @param places joints, parts and nets
/// @param severity how bad it is
/// @param bodge steps that mend a board, empty while nobody has said how
/// @param proposed whether the bodge is as Ell has proposed it, and nobody has said it yet
/// @param proof what shows that a board is mended, empty where nothing does
/// @param fix what the next revision should have, as steps; empty where it is what the bodge does
/// @param fixWords the fix as it was said, where it is no steps
/// @param fixedIn the revision in which somebody says it is right
/// @param closed why nothing more is done about it
/// @param taughtBy numbers of the entries that it rests on
/// @param board on which it was written down
/// @param number of the entry that wrote it down
public record Erratum(
    String id,
    String title,
    String design,
    List<String> revisions,
    Optional<Fault> fault,
    List<String> places,
    Severity severity,
    List<BodgeStep> bodge,
    boolean proposed,
    Optional<Proof> proof,
    List<BodgeStep> fix,
    String fixWords,
    Optional<String> fixedIn,
    Optional<String> closed,
    List<Long> taughtBy,
    String board,
    long number) {
  public Erratum {
    revisions = List.copyOf(revisions);
    places = List.copyOf(places);
    bodge = List.copyOf(bodge);
    fix = List.copyOf(fix);
    taughtBy = List.copyOf(taughtBy);
  }

  /// The fault in words, empty where none says it.
  public String faultWords() {
    return fault.map(FaultWords::words).orElse("");
  }

  /// Whether anything has to be done about it.
  public boolean open() {
    return closed.isEmpty();
  }

  /// Whether a revision has it.
  public boolean of(String itsDesign, String revision) {
    return design.equals(itsDesign) && revisions.contains(revision);
  }

  /// Minutes of the bodge on one board; typical.
  public double minutes() {
    return bodge.stream().mapToDouble(BodgeStep::minutes).sum();
  }

  /// How often each part is heated by the bodge, its steps made one after the other: a part that
  /// stays in hand from one step to the next is heated once.
  public Map<String, Integer> heats(Revision revision) {
    Map<String, Integer> all = new LinkedHashMap<>();
    java.util.Set<String> before = java.util.Set.of();
    for (BodgeStep s : bodge) {
      java.util.Set<String> now = s.heats(revision);
      for (String p : now) {
        if (!before.contains(p)) {
          all.merge(p, 1, Integer::sum);
        }
      }
      before = now;
    }
    return all;
  }

  /// The parts that it is at: those of its places and of the steps that mend it.
  public List<String> parts(Revision revision) {
    List<String> all = new ArrayList<>();
    places.forEach(p -> all.add(BodgeStep.part(p, revision)));
    bodge.forEach(s -> s.places().forEach(p -> all.add(BodgeStep.part(p, revision))));
    return all.stream().filter(p -> revision.part(p).isPresent()).distinct().toList();
  }

  /// What shows that a board is mended: as it was said, else what the last step of the bodge does.
  public Optional<Proof> shows() {
    if (proof.isPresent()) {
      return proof;
    }
    for (BodgeStep s : bodge.reversed()) {
      if (s.kind() == BodgeStep.Kind.WIRE) {
        return Optional.of(new Proof.Joined(s.places().get(0), s.places().get(1)));
      }
      if (s.kind() == BodgeStep.Kind.CUT && s.places().size() == 2) {
        return Optional.of(new Proof.Apart(s.places().get(0), s.places().get(1)));
      }
    }
    return Optional.empty();
  }
}
