package ell.work.send;

import ell.book.Build;
import ell.core.entry.BoardState;
import ell.core.entry.Logged;
import ell.core.rack.Plan;
import ell.core.rack.Sections;
import ell.core.rack.Standing;
import ell.core.record.BoardRecord;
import ell.files.Output;
import ell.files.pdf.RecordPdf;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.OptionalLong;

/// Gathers the record of one board from the book: what each stage has to say of it. It speaks for
/// the book up to an entry: made again from the same workspace it is the same again, byte for byte,
/// as long as what is said of the revision itself is not changed.
public final class RecordMaker {
  private RecordMaker() {}

  /// The record as the book stands.
  public static BoardRecord of(Workshop w, String board) throws IOException, ActException {
    return of(w, board, OptionalLong.empty());
  }

  /// The record as the book stood after an entry.
  ///
  /// @param asOf number of the last entry that counts, empty for all
  /// @throws ActException when the book has no such entry, or the board no entry by then
  public static BoardRecord of(Workshop w, String board, OptionalLong asOf)
      throws IOException, ActException {
    Build build = w.buildOf(board);
    Plan plan = w.plan(build);
    AsOf as = AsOf.of(w, asOf);
    List<Logged> log = w.entries(board).stream().filter(l -> l.number() <= as.number()).toList();
    BoardState s = asOf.isEmpty() ? w.state(board) : BoardState.of(board, log);
    return new BoardRecord(
        "board record",
        "Board " + board,
        plan.revision().title() + (w.space().practice() ? " · PRACTICE, no real board" : ""),
        build.method() + ", " + build.alloy() + ", build " + build.id(),
        Standing.of(s, plan, w.stages().progress()).phrase(),
        as.words(),
        as.seal(),
        Sections.of(plan, s, log, w.stages().sections()));
  }

  /// Writes the record as PDF, with the photographs that are kept.
  ///
  /// @throws IOException when the file cannot be written
  public static void pdf(Workshop w, String board, OptionalLong asOf, Path to, Output.Over over)
      throws IOException, ActException {
    RecordPdf.write(of(w, board, asOf), w.book()::photograph, to, over);
  }
}
