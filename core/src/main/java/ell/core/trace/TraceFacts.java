package ell.core.trace;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// What the book says of the search for the fault of a board.
///
/// @param symptoms how it behaves, oldest first
/// @param found findings, oldest first
public record TraceFacts(List<Logged> symptoms, List<Logged> found) {
  public TraceFacts {
    symptoms = List.copyOf(symptoms);
    found = List.copyOf(found);
  }

  /// The facts of a board.
  public static TraceFacts of(BoardState s) {
    return s.facts(TraceFacts.class, TraceFacts::fold);
  }

  private static TraceFacts fold(List<Logged> standing) {
    List<Logged> symptoms = new ArrayList<>();
    List<Logged> found = new ArrayList<>();
    for (Logged l : standing) {
      if (l.entry() instanceof Entry.Symptom) {
        symptoms.add(l);
      } else if (l.entry() instanceof Entry.Found) {
        found.add(l);
      }
    }
    return new TraceFacts(symptoms, found);
  }

  /// The last finding.
  public Optional<Entry.Found> last() {
    return found.isEmpty() ? Optional.empty() : Optional.of((Entry.Found) found.getLast().entry());
  }
}
