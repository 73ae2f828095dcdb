package ell.core.beep;

import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.quantity.Unit;
import ell.core.record.Section;
import ell.core.record.Section.Row;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// What a board's record says of the checks before power.
public final class BeepSection {
  private BeepSection() {}

  /// The section, empty when no check was made.
  public static Optional<Section> of(BeepList list, BeepFacts facts) {
    List<Row> rows = new ArrayList<>();
    for (BeepCheck c : list.checks()) {
      Optional<Entry.Check> made = facts.check(c.key());
      made.ifPresent(e ->
          rows.add(
              Section.judged(
                  e.verdict(),
                  c.kind().key(),
                  c.netA().equals(c.netB())
                      ? c.netA() + ": " + c.a().place() + " to " + c.b().place()
                      : c.netA() + " to " + c.netB(),
                  EntryWords.ohms(e.ohms()),
                  "expected " + e.limits().text(Unit.OHM, 3))));
    }
    return rows.isEmpty()
        ? Optional.empty()
        : Optional.of(
            new Section(
                "Checks without power",
                rows.size() + " made",
                List.of(0.12, 0.35, 0.15, 0.25),
                rows));
  }
}
