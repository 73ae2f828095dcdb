package ell.core.trace;

import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.record.Section;
import ell.core.record.Section.Row;
import ell.core.record.Section.Tone;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/// The search for faults in a board's record.
public final class TraceSection {
  private TraceSection() {}

  /// The section, empty when nothing was searched.
  public static Optional<Section> of(TraceFacts facts) {
    if (facts.symptoms().isEmpty() && facts.found().isEmpty()) {
      return Optional.empty();
    }
    List<Row> rows = new ArrayList<>();
    for (Logged l : facts.found()) {
      Entry.Found f = (Entry.Found) l.entry();
      rows.add(
          Section.cells(
              Tone.PLAIN,
              f.fault(),
              String.format(Locale.ROOT, "%.0f %%", 100 * f.chance()),
              f.evidence().isEmpty()
                  ? "as it was said"
                  : "by entries "
                      + String.join(", ", f.evidence().stream().map(String::valueOf).toList())));
      f.todo().forEach(t -> rows.add(Section.cells(Tone.PLAIN, "", "", t)));
    }
    for (Logged l : facts.symptoms()) {
      rows.add(Section.cells(Tone.PLAIN, "", String.valueOf(l.number()), EntryWords.of(l.entry())));
    }
    return Optional.of(
        new Section(
            "Trace",
            facts.found().isEmpty()
                ? "not found yet"
                : facts.found().size() + (facts.found().size() == 1 ? " finding" : " findings"),
            List.of(0.3, 0.1, 0.6),
            rows));
  }
}
