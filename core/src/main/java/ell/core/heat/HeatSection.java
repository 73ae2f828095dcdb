package ell.core.heat;

import ell.core.board.Revision;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.record.Section;
import ell.core.record.Section.Row;
import ell.core.record.Section.Tone;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// What a board's record says of heat: the profiles that were run, and the parts that were heated
/// more than once.
public final class HeatSection {
  private HeatSection() {}

  /// The section, empty when no profile was run and nothing was heated twice.
  public static Optional<Section> of(Revision revision, HeatFacts facts) {
    List<Row> rows = new ArrayList<>();
    for (Logged l : facts.runs()) {
      Entry.HeatRun r = (Entry.HeatRun) l.entry();
      rows.add(
          new Section.Cells(
              List.of(
                  Section.time(l.at()),
                  r.side().isEmpty() ? "test piece" : r.side() + " side",
                  r.window()
                      + (Double.isFinite(r.pwi())
                          ? ", index " + EngineeringNumber.print(r.pwi(), Unit.ONE, 3)
                          : ""),
                  peaks(r)),
              r.verdict(),
              Tone.PLAIN));
    }
    facts.heatCycles().entrySet().stream()
        .filter(e -> e.getValue() > 1)
        .sorted(
            Comparator.comparing((Map.Entry<String, Integer> e) -> -e.getValue())
                .thenComparing(Map.Entry::getKey))
        .forEach(e -> rows.add(heated(revision, e.getKey(), e.getValue())));
    return rows.isEmpty()
        ? Optional.empty()
        : Optional.of(
            new Section(
                "Heat",
                facts.runs().size() + (facts.runs().size() == 1 ? " profile" : " profiles"),
                List.of(0.25, 0.14, 0.25, 0.2),
                rows));
  }

  private static Row heated(Revision revision, String part, int times) {
    Optional<Integer> limit = revision.part(part).map(p -> HeatBudget.limit(revision, p));
    boolean past = limit.filter(n -> times > n).isPresent();
    return Section.cells(
        past ? Tone.BAD : Tone.SOFT,
        part,
        "heated " + times + " times",
        limit.map(n -> "takes " + n + " (typical)").orElse(""));
  }

  /// The hottest of each thermocouple that sits on the board.
  private static String peaks(Entry.HeatRun r) {
    List<String> all = new ArrayList<>();
    for (Entry.HeatRun.Curve c : r.curves()) {
      if (!c.role().equals("set") && !c.role().equals("plate") && !c.celsius().isEmpty()) {
        double top = c.celsius().stream().mapToDouble(v -> v).max().getAsDouble();
        all.add(c.role() + " " + EngineeringNumber.print(top, Unit.CELSIUS, 3));
      }
    }
    return String.join(", ", all);
  }
}
