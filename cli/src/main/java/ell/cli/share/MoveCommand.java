package ell.cli.share;

import ell.book.Moving;
import ell.book.Place;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.WorkspaceCommand;
import ell.work.Workshop;
import ell.work.practice.Practice;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/// Carries a workspace from a file to a server, or back.
@Command(
    name = "move",
    description =
        "carry a workspace from a file to a server that several benches share, or back; every entry,"
            + " table and photograph is held against what left before anything is kept")
public final class MoveCommand extends WorkspaceCommand {
  @Parameters(
      index = "1",
      paramLabel = "TO",
      description = "where no workspace is yet: a file, or postgresql://HOST/DATABASE")
  Place to;

  @Override
  public Integer call() throws Exception {
    if (to instanceof Place.OnServer) {
      try (Workshop w = look()) {
        Practice.mustBeReal(w, "a server");
      }
    }
    Moving.Moved m = Moving.move(file, to);
    if (json) {
      print(
          Json.object()
              .put("from", file.toString())
              .put("to", to.toString())
              .put("entries", m.entries())
              .put("seal", m.seal())
              .put("things", m.things()));
    } else {
      out()
          .println(
              to
                  + " holds "
                  + m.entries()
                  + " entries, as "
                  + file
                  + " does: seal "
                  + m.seal()
                  + (m.things() > 0
                      ? ", and "
                          + m.things()
                          + " revisions, documents and tables are the same by their hashes"
                      : ""));
      out().println("go on with " + to + "; " + file + " stays as it is, as a copy");
    }
    return Exit.DONE;
  }
}
