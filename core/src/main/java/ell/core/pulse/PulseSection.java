package ell.core.pulse;

import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.record.Section;
import ell.core.record.Section.Row;
import ell.core.record.Section.Tone;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// What a board's record says of its captures.
public final class PulseSection {
  private PulseSection() {}

  /// The section, empty when nothing was captured.
  public static Optional<Section> of(PulseFacts facts) {
    List<Row> rows = new ArrayList<>();
    for (Logged l : facts.latest().values()) {
      Entry.Capture c = (Entry.Capture) l.entry();
      String[] cells = {
        c.place(), c.says(), limits(c), c.told().isEmpty() ? "" : String.join("; ", c.told())
      };
      rows.add(
          c.verdict().isPresent()
              ? Section.judged(c.verdict().get(), cells)
              : Section.cells(Tone.PLAIN, cells));
    }
    return rows.isEmpty()
        ? Optional.empty()
        : Optional.of(
            new Section(
                "Clocks and edges",
                rows.size() + (rows.size() == 1 ? " place captured" : " places captured"),
                List.of(0.12, 0.26, 0.28, 0.34),
                rows));
  }

  private static String limits(Entry.Capture c) {
    return String.join(
        ", ",
        c.measures().stream()
            .filter(m -> m.limits().isPresent())
            .map(m -> m.name() + " " + m.limits().get().text(m.unit(), 4))
            .toList());
  }
}
