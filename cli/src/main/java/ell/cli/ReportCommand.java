package ell.cli;

import ell.files.RecordPdf;
import ell.work.RecordMaker;
import ell.work.Workspace;
import java.nio.file.Path;
import java.time.OffsetDateTime;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/// The record of a board as PDF.
@Command(name = "report", description = "the record of one board as PDF")
final class ReportCommand extends Act {
  @Option(names = "--board", required = true, description = "serial of the board")
  String board;

  @Option(names = "--out", required = true, description = "the PDF to write")
  Path to;

  @Override
  public Integer call() throws Exception {
    try (Workspace w = Workspace.look(file)) {
      RecordPdf.write(RecordMaker.of(w, board, OffsetDateTime.now()), to);
      if (json) {
        print(Shapes.object().put("board", board).put("file", to.toString()));
      } else {
        out().println("wrote " + to);
      }
    }
    return Main.DONE;
  }
}
