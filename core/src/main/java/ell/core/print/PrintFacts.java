package ell.core.print;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.entry.PasteLook;
import java.util.Collections;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/// What the book says of the paste on a board.
///
/// @param printed sides that carry a print, `first` or `second`
/// @param paste how the paste lies, by place, since the last print; places that are good are left
///   out
public record PrintFacts(Set<String> printed, Map<String, PasteLook> paste) {
  public PrintFacts {
    printed = Collections.unmodifiableSet(new LinkedHashSet<>(printed));
    paste = Collections.unmodifiableMap(new LinkedHashMap<>(paste));
  }

  /// The facts of a board.
  public static PrintFacts of(BoardState s) {
    return s.facts(PrintFacts.class, PrintFacts::fold);
  }

  private static PrintFacts fold(List<Logged> standing) {
    Set<String> printed = new HashSet<>();
    Map<String, PasteLook> paste = new LinkedHashMap<>();
    for (Logged l : standing) {
      if (l.entry() instanceof Entry.Printed p) {
        printed.add(p.side());
        paste.clear();
      } else if (l.entry() instanceof Entry.PasteSeen p) {
        if (p.look() == PasteLook.GOOD) {
          paste.remove(p.place());
        } else {
          paste.put(p.place(), p.look());
        }
      }
    }
    return new PrintFacts(Collections.unmodifiableSet(printed), Collections.unmodifiableMap(paste));
  }
}
