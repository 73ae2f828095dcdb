package ell.core.look;

import ell.core.board.Joint;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.order.OrderFacts;
import ell.core.record.Section;
import ell.core.record.Section.Row;
import ell.core.record.Section.Tone;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// What a board's record says of its inspection: joints that were seen, what was found and mended,
/// photographs.
public final class LookSection {
  private LookSection() {}

  /// The section, empty when nothing was looked at.
  public static Optional<Section> of(Revision revision, BoardState s) {
    LookFacts facts = LookFacts.of(s);
    List<Row> rows = new ArrayList<>();
    for (Logged l : s.standing()) {
      if (l.entry() instanceof Entry.Defect || l.entry() instanceof Entry.Action) {
        rows.add(
            Section.cells(
                l.entry() instanceof Entry.Defect ? Tone.PLAIN : Tone.SOFT,
                Section.time(l.at()),
                EntryWords.of(l.entry())));
      }
    }
    for (List<Entry.Photo> of : facts.photos().values()) {
      of.forEach(p -> rows.add(new Section.Picture(p.place(), p.name(), p.sha256())));
    }
    long all = 0;
    long good = 0;
    for (String part : OrderFacts.of(s).placed()) {
      for (Joint j : revision.jointsOf(part)) {
        all++;
        good += facts.sawGood(j.place()) ? 1 : 0;
      }
    }
    return rows.isEmpty() && facts.seen().isEmpty()
        ? Optional.empty()
        : Optional.of(
            new Section(
                "Joints",
                good
                    + " of "
                    + all
                    + " seen good"
                    + (facts.who().isEmpty() ? "" : ", last at the bench: " + facts.who()),
                List.of(0.25, 0.75),
                rows));
  }
}
