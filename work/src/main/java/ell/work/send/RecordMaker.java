package ell.work.send;

import ell.book.Build;
import ell.core.entry.BoardState;
import ell.core.rack.Plan;
import ell.core.rack.Sections;
import ell.core.record.BoardRecord;
import ell.core.record.Section;
import ell.files.Output;
import ell.files.pdf.RecordPdf;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Path;
import java.time.OffsetDateTime;

/// Gathers the record of one board from the book: what each stage has to say of it.
public final class RecordMaker {
  private RecordMaker() {}

  /// The record as the book stands.
  public static BoardRecord of(Workshop w, String board, OffsetDateTime now)
      throws IOException, ActException {
    Build build = w.buildOf(board);
    Plan plan = w.plan(build);
    BoardState s = w.state(board);
    return new BoardRecord(
        board,
        plan.revision().title(),
        build.method() + ", " + build.alloy() + ", build " + build.id(),
        w.standing(board).phrase(),
        Section.time(now),
        w.book().size() + ":" + w.book().seal(),
        Sections.of(plan, s, w.entries(board), w.stages().sections()));
  }

  /// Writes the record as PDF, with the photographs that are kept.
  ///
  /// @throws IOException when the file cannot be written
  public static void pdf(Workshop w, String board, OffsetDateTime now, Path to, Output.Over over)
      throws IOException, ActException {
    RecordPdf.write(of(w, board, now), w.book()::photograph, to, over);
  }
}
