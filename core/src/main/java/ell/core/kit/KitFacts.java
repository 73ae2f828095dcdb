package ell.core.kit;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/// What the book says of the parts that a board took.
///
/// @param fitted code by reference, of parts that are another than the bill says
/// @param lost how many parts were dropped or broken, by reference
public record KitFacts(Map<String, String> fitted, Map<String, Integer> lost) {
  public KitFacts {
    fitted = Collections.unmodifiableMap(new LinkedHashMap<>(fitted));
    lost = Collections.unmodifiableMap(new LinkedHashMap<>(lost));
  }

  /// The facts of a board.
  public static KitFacts of(BoardState s) {
    return s.facts(KitFacts.class, KitFacts::fold);
  }

  private static KitFacts fold(List<Logged> standing) {
    Map<String, String> fitted = new LinkedHashMap<>();
    Map<String, Integer> lost = new LinkedHashMap<>();
    for (Logged l : standing) {
      if (l.entry() instanceof Entry.Fitted f) {
        fitted.put(f.place(), f.code());
      } else if (l.entry() instanceof Entry.Lost x) {
        lost.merge(x.place(), x.count(), Integer::sum);
      }
    }
    return new KitFacts(Collections.unmodifiableMap(fitted), Collections.unmodifiableMap(lost));
  }
}
