package ell.core.print;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.record.Section;
import ell.core.record.Section.Row;
import ell.core.record.Section.Tone;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// What a board's record says of its paste: each print, and the pads that did not come out well.
public final class PrintSection {
  private PrintSection() {}

  /// The section, empty when nothing was printed.
  public static Optional<Section> of(BoardState s) {
    List<Row> rows = new ArrayList<>();
    int prints = 0;
    for (Logged l : s.standing()) {
      if (l.entry() instanceof Entry.Printed p) {
        prints++;
        rows.add(
            Section.cells(
                Tone.PLAIN,
                Section.time(l.at()),
                p.side() + " side",
                p.wiped() ? "foil wiped" : "",
                p.jar().isEmpty() ? "jar not said" : "jar " + p.jar()));
      } else if (l.entry() instanceof Entry.PasteSeen p) {
        rows.add(Section.cells(Tone.SOFT, Section.time(l.at()), p.place(), p.look().key(), ""));
      }
    }
    return rows.isEmpty()
        ? Optional.empty()
        : Optional.of(
            new Section(
                "Paste",
                prints + (prints == 1 ? " print" : " prints"),
                List.of(0.25, 0.2, 0.2, 0.35),
                rows));
  }
}
