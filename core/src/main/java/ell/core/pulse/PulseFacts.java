package ell.core.pulse;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// What the book says of a board's captures.
///
/// @param latest capture of each place, in the order in which places were first captured
/// @param all captures, oldest first
public record PulseFacts(Map<String, Logged> latest, List<Logged> all) {
  public PulseFacts {
    latest = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(latest));
    all = List.copyOf(all);
  }

  /// Folds a board.
  public static PulseFacts of(BoardState s) {
    return s.facts(PulseFacts.class, PulseFacts::fold);
  }

  private static PulseFacts fold(List<Logged> standing) {
    Map<String, Logged> latest = new LinkedHashMap<>();
    List<Logged> all = new ArrayList<>();
    for (Logged l : standing) {
      if (l.entry() instanceof Entry.Capture c) {
        latest.put(c.place(), l);
        all.add(l);
      }
    }
    return new PulseFacts(latest, all);
  }

  /// The latest capture of a place.
  public Optional<Entry.Capture> at(String place) {
    return Optional.ofNullable(latest.get(place)).map(l -> (Entry.Capture) l.entry());
  }

  /// How many places that something is wanted of were captured.
  public int captured(PulsePlan plan) {
    return (int)
        plan.places().stream()
            .filter(w -> latest.containsKey(w.place()) || latest.containsKey(w.net()))
            .count();
  }
}
