package ell.core.talk;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.quantity.Verdict;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// What the book says of a board's links, lines, numbers and chains.
///
/// @param stands how links stand, true for closed, and what is in (true) or out, as it was logged
/// @param done operations whose script went through, in the order in which they last did
/// @param talks oldest first
/// @param knows what its memory holds
/// @param chains what was last seen of each
public record TalkFacts(
    Map<String, Boolean> stands,
    Set<String> done,
    List<Logged> talks,
    Optional<Entry.Knows> knows,
    Map<String, Entry.ChainLook> chains) {
  public TalkFacts {
    stands = Collections.unmodifiableMap(new LinkedHashMap<>(stands));
    done = Collections.unmodifiableSet(new LinkedHashSet<>(done));
    talks = List.copyOf(talks);
    chains = Collections.unmodifiableMap(new LinkedHashMap<>(chains));
  }

  /// Folds a board.
  public static TalkFacts of(BoardState s) {
    return s.facts(TalkFacts.class, TalkFacts::fold);
  }

  private static TalkFacts fold(List<Logged> standing) {
    Map<String, Boolean> stands = new LinkedHashMap<>();
    Set<String> done = new LinkedHashSet<>();
    List<Logged> talks = new ArrayList<>();
    Map<String, Entry.ChainLook> chains = new LinkedHashMap<>();
    Entry.Knows knows = null;
    for (Logged l : standing) {
      switch (l.entry()) {
        case Entry.Stands s -> {
          switch (s.stand()) {
            case "open", "out" -> stands.put(s.place(), false);
            case "closed", "in" -> stands.put(s.place(), true);
            default -> {} // says nothing of a link or a plug
          }
        }
        case Entry.StepDone d -> {
          if (d.action().equals("plug in")) {
            d.parts().forEach(p -> stands.put(p, true));
          }
        }
        case Entry.Talk t -> {
          talks.add(l);
          if (!t.operation().isEmpty()) {
            done.remove(t.operation());
            if (t.verdict().filter(v -> v == Verdict.WITHIN).isPresent()) {
              done.add(t.operation());
            }
          }
        }
        case Entry.Knows k -> knows = k;
        case Entry.ChainLook c -> chains.put(c.chain(), c);
        default -> {} // says nothing of it
      }
    }
    return new TalkFacts(stands, done, talks, Optional.ofNullable(knows), chains);
  }

  /// How everything stands: links as the book has them, else as they come from the fabricator.
  public LinkPlan.Stand stand(TalkPlan plan) {
    Map<String, Boolean> links = new HashMap<>();
    for (Link l : plan.links()) {
      links.put(l.part(), stands.getOrDefault(l.part(), l.closed()));
    }
    Map<String, Boolean> plugged = new HashMap<>(stands);
    plugged.keySet().removeAll(links.keySet());
    return new LinkPlan.Stand(links, plugged);
  }

  /// The firmware that it said last.
  public Optional<String> firmware() {
    return talks.reversed().stream()
        .map(l -> ((Entry.Talk) l.entry()).firmware())
        .filter(f -> !f.isEmpty())
        .findFirst();
  }

  /// The latest talk, the one of a script if a name is given.
  public Optional<Logged> latest(String script) {
    return talks.reversed().stream()
        .filter(l -> script.isEmpty() || ((Entry.Talk) l.entry()).script().equals(script))
        .findFirst();
  }
}
