package ell.core.look;

import ell.core.board.Joint;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.order.OrderFacts;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/// What the book says of the inspection of a board.
///
/// @param seen places that were looked at and are good: `part.pin`, or a part for all of its joints
/// @param photos by place
/// @param who is at the bench, empty when nobody said so
/// @param rework how many actions were logged
public record LookFacts(
    Set<String> seen, Map<String, List<Entry.Photo>> photos, String who, int rework) {
  public LookFacts {
    seen = Collections.unmodifiableSet(new LinkedHashSet<>(seen));
    photos = Collections.unmodifiableMap(new LinkedHashMap<>(photos));
  }

  /// The facts of a board.
  public static LookFacts of(BoardState s) {
    return s.facts(LookFacts.class, LookFacts::fold);
  }

  /// Whether a joint was looked at and is good.
  ///
  /// @param place `part.pin`, or a part
  public boolean sawGood(String place) {
    return seen.contains(place) || seen.contains(BoardState.part(place));
  }

  /// Places that are good when all the rest of a board is: whole parts, and single joints of parts
  /// with a finding.
  ///
  /// @return in the order in which the parts were placed; empty when every joint was looked at or
  ///   has a finding
  public static List<String> restGood(Revision revision, BoardState state) {
    LookFacts facts = of(state);
    Set<String> bad = new HashSet<>();
    state.findings().forEach(f -> bad.add(f.place()));
    List<String> places = new ArrayList<>();
    for (String part : OrderFacts.of(state).placed()) {
      List<String> own = revision.jointsOf(part).stream().map(Joint::place).distinct().toList();
      boolean clean = !bad.contains(part) && own.stream().noneMatch(bad::contains);
      if (clean && !own.isEmpty() && !own.stream().allMatch(facts::sawGood)) {
        places.add(part);
      } else if (!clean && !bad.contains(part)) {
        own.stream().filter(j -> !bad.contains(j) && !facts.sawGood(j)).forEach(places::add);
      }
    }
    return places;
  }

  private static LookFacts fold(List<Logged> standing) {
    Set<String> seen = new HashSet<>();
    Map<String, List<Entry.Photo>> photos = new LinkedHashMap<>();
    String who = "";
    int rework = 0;
    for (Logged l : standing) {
      switch (l.entry()) {
        case Entry.Seen s -> seen.addAll(s.places());
        case Entry.Defect d -> {
          seen.remove(d.place());
          seen.remove(BoardState.part(d.place()));
        }
        case Entry.Action a -> {
          rework++;
          if (a.heat()) {
            // what was molten again is looked at again
            seen.removeIf(x -> x.equals(a.place()) || BoardState.part(x).equals(a.place()));
            seen.remove(BoardState.part(a.place()));
          }
        }
        case Entry.Photo p -> photos.computeIfAbsent(p.place(), _ -> new ArrayList<>()).add(p);
        case Entry.Operator o -> who = o.who();
        default -> {} // says nothing of joints
      }
    }
    return new LookFacts(
        Collections.unmodifiableSet(seen), Collections.unmodifiableMap(photos), who, rework);
  }
}
