package ell.core.jig;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/// What the book says of a board and jigs.
///
/// @param closings how often each jig was closed over it, by serial number of the jig
public record JigFacts(Map<String, Integer> closings) {
  public JigFacts {
    closings = Collections.unmodifiableMap(new LinkedHashMap<>(closings));
  }

  /// The facts of a board.
  public static JigFacts of(BoardState s) {
    return s.facts(JigFacts.class, JigFacts::fold);
  }

  private static JigFacts fold(List<Logged> standing) {
    Map<String, Integer> closings = new LinkedHashMap<>();
    for (Logged l : standing) {
      if (l.entry() instanceof Entry.Jig j && j.what().equals("closed")) {
        closings.merge(j.jig(), j.count(), Integer::sum);
      }
    }
    return new JigFacts(closings);
  }
}
