package ell.cli.book;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.Replacing;
import ell.cli.shell.WorkspaceCommand;
import ell.work.Workshop;
import ell.work.send.RecordMaker;
import java.nio.file.Path;
import java.time.OffsetDateTime;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

/// The record of a board as PDF.
@Command(name = "report", description = "the record of one board as PDF")
public final class ReportCommand extends WorkspaceCommand {
  @Option(names = "--board", required = true, description = "serial of the board")
  String board;

  @Option(names = "--out", required = true, description = "the PDF to write")
  Path to;

  @Mixin Replacing replacing;

  @Override
  public Integer call() throws Exception {
    try (Workshop w = Workshop.look(file)) {
      RecordMaker.pdf(w, board, OffsetDateTime.now(), to, replacing.over(file));
      if (json) {
        print(Json.object().put("board", board).put("file", to.toString()));
      } else {
        out().println("wrote " + to);
      }
    }
    return Exit.DONE;
  }
}
