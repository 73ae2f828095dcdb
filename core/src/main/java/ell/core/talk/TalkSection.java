package ell.core.talk;

import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.record.Section;
import ell.core.record.Section.Row;
import ell.core.record.Section.Tone;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// What a board's record says of its links, its firmware and its line.
public final class TalkSection {
  private TalkSection() {}

  /// The section, empty when nothing was said, linked or written.
  public static Optional<Section> of(TalkPlan plan, TalkFacts facts) {
    List<Row> rows = new ArrayList<>();
    Map<String, Logged> last = new LinkedHashMap<>();
    for (Logged l : facts.talks()) {
      Entry.Talk t = (Entry.Talk) l.entry();
      last.put(t.script().isEmpty() ? t.operation() : t.script(), l);
    }
    for (Logged l : last.values()) {
      Entry.Talk t = (Entry.Talk) l.entry();
      String[] cells = {
        t.script().isEmpty() ? t.operation().isEmpty() ? "by hand" : t.operation() : t.script(),
        EntryWords.of(t),
        t.told().isEmpty() ? "" : String.join("; ", t.told())
      };
      rows.add(
          t.verdict().isPresent()
              ? Section.judged(t.verdict().get(), cells)
              : Section.cells(Tone.PLAIN, cells));
    }
    facts
        .knows()
        .ifPresent(k -> rows.add(Section.cells(Tone.PLAIN, "number", EntryWords.of(k), "")));
    LinkPlan.Stand stand = facts.stand(plan);
    List<String> links =
        plan.links().stream()
            .filter(l -> facts.stands().containsKey(l.part()))
            .map(l -> l.part() + " " + Link.word(stand.links().get(l.part())))
            .toList();
    if (!links.isEmpty()) {
      rows.add(Section.cells(Tone.PLAIN, "links", String.join(", ", links), ""));
    }
    return rows.isEmpty()
        ? Optional.empty()
        : Optional.of(
            new Section(
                "Loading and talking",
                facts.firmware().map(f -> "firmware " + f).orElse(""),
                List.of(0.14, 0.5, 0.36),
                rows));
  }
}
