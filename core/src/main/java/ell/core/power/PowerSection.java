package ell.core.power;

import ell.core.entry.Entry;
import ell.core.power.Ladder.RailSpec;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.record.Section;
import ell.core.record.Section.Row;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/// What a board's record says of what was measured: the rails on their limit strips, then every
/// other reading.
public final class PowerSection {
  private PowerSection() {}

  /// The rails, in ladder order; empty when the ladder has none.
  public static Optional<Section> rails(Ladder ladder, PowerFacts facts) {
    List<Row> rows = new ArrayList<>();
    for (RailSpec r : ladder.supplied()) {
      Optional<Entry.Reading> read = facts.reading(r);
      rows.add(
          new Section.Strip(
              r.net() + (r.readAt().isEmpty() ? "" : " at " + r.readAt()),
              read.map(Entry.Reading::value),
              Unit.VOLT,
              r.guessed() ? Optional.empty() : Optional.of(new Limits(r.low(), r.high())),
              read.flatMap(Entry.Reading::uncertainty),
              facts.verdict(r)));
    }
    return rows.isEmpty()
        ? Optional.empty()
        : Optional.of(
            new Section(
                "Rails",
                "guard bands hatched; bar = reading with its uncertainty",
                List.of(),
                rows));
  }

  /// Readings that are not of a rail; empty when there are none.
  public static Optional<Section> others(Ladder ladder, PowerFacts facts) {
    Set<String> onRails = new HashSet<>();
    for (RailSpec r : ladder.supplied()) {
      onRails.add(r.net());
      onRails.add(r.readAt());
    }
    List<Row> rows = new ArrayList<>();
    facts
        .readings()
        .forEach((place, l) -> {
          if (!onRails.contains(place) && l.entry() instanceof Entry.Reading r) {
            rows.add(
                new Section.Strip(
                    place,
                    Optional.of(r.value()),
                    r.unit(),
                    r.limits(),
                    r.uncertainty(),
                    r.verdict()));
          }
        });
    return rows.isEmpty()
        ? Optional.empty()
        : Optional.of(new Section("Other readings", "", List.of(), rows));
  }
}
