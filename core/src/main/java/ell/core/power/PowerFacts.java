package ell.core.power;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.Ladder.RailSpec;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// What the book says of what was measured on a board, and of its supply.
///
/// @param readings latest reading by place, in the order of first mention; of currents by the place
///   and the word `current`
/// @param supply latest supply entry
public record PowerFacts(Map<String, Logged> readings, Optional<Entry.Supply> supply) {
  public PowerFacts {
    readings = Collections.unmodifiableMap(new LinkedHashMap<>(readings));
  }

  /// The facts of a board.
  public static PowerFacts of(BoardState s) {
    return s.facts(PowerFacts.class, PowerFacts::fold);
  }

  /// Whether the supply's output may be on, as far as the book knows.
  public boolean mayBeOn() {
    return supply.map(Entry.Supply::mayBeOn).orElse(false);
  }

  /// The latest reading at a place.
  public Optional<Entry.Reading> reading(String place) {
    return Optional.ofNullable(readings.get(place)).map(l -> (Entry.Reading) l.entry());
  }

  /// The latest reading of a rail, under its own name or at its test point.
  public Optional<Entry.Reading> reading(RailSpec rail) {
    return reading(rail.net()).or(() -> reading(rail.readAt()));
  }

  /// The verdict on a rail by its latest reading, held against the limits that the ladder has now;
  /// empty where its volts are guessed, for a guess decides nothing.
  public Optional<Verdict> verdict(RailSpec rail) {
    return reading(rail)
        .filter(r -> !rail.guessed() && r.unit() == Unit.VOLT)
        .map(
            r -> new Limits(rail.low(), rail.high()).judge(r.value(), r.uncertainty().orElse(0.0)));
  }

  /// How many of some rails were read, and judged where there is something to judge by.
  public int read(List<RailSpec> rails) {
    return (int)
        rails.stream()
            .filter(r -> r.guessed() ? reading(r).isPresent() : verdict(r).isPresent())
            .count();
  }

  private static PowerFacts fold(List<Logged> standing) {
    Map<String, Logged> readings = new LinkedHashMap<>();
    Optional<Entry.Supply> supply = Optional.empty();
    for (Logged l : standing) {
      if (l.entry() instanceof Entry.Reading r) {
        // the current of a rail does not stand for its volts
        readings.put(r.unit() == Unit.AMPERE ? r.place() + " current" : r.place(), l);
      } else if (l.entry() instanceof Entry.Supply s) {
        supply = Optional.of(s);
      }
    }
    return new PowerFacts(Collections.unmodifiableMap(readings), supply);
  }
}
