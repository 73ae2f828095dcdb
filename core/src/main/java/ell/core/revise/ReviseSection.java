package ell.core.revise;

import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.record.Section;
import ell.core.record.Section.Row;
import ell.core.record.Section.Tone;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// What the record of a board says of its bodges and of what it was tried with.
public final class ReviseSection {
  private ReviseSection() {}

  /// The section, empty when there is nothing to say.
  public static Optional<Section> of(ReviseFacts f) {
    List<Row> rows = new ArrayList<>();
    for (Logged l : f.bodges()) {
      rows.add(row(l, tone(((Entry.Bodge) l.entry()).what())));
    }
    for (Logged l : f.stacks()) {
      rows.add(
          row(
              l,
              switch (((Entry.Stack) l.entry()).verdict()) {
                case WITHIN -> Tone.GOOD;
                case CLOSE -> Tone.PLAIN;
                case OUT -> Tone.BAD;
              }));
    }
    if (rows.isEmpty()) {
      return Optional.empty();
    }
    List<Entry.Bodge> latest = f.latest();
    long done =
        latest.stream().filter(b -> b.what().equals("done") || b.what().equals("proved")).count();
    return Optional.of(
        new Section(
            "Revise",
            done + (done == 1 ? " bodge on this board" : " bodges on this board"),
            List.of(0.07, 0.24, 0.69),
            rows));
  }

  private static Tone tone(String what) {
    return what.equals("proved") ? Tone.GOOD : what.equals("undone") ? Tone.BAD : Tone.PLAIN;
  }

  private static Row row(Logged l, Tone tone) {
    return Section.cells(
        tone, String.valueOf(l.number()), Section.time(l.at()), EntryWords.of(l.entry()));
  }
}
