package ell.cli.book;

import ell.book.Book;
import ell.book.Rescue;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.WorkspaceCommand;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// What can still be read of a damaged workspace, in a new one.
@Command(
    name = "rescue",
    description = "write what can still be read of a damaged workspace into a new one")
public final class RescueCommand extends WorkspaceCommand {
  @Parameters(index = "1", paramLabel = "OUT", description = "the new workspace")
  Path to;

  @Override
  public Integer call() throws Exception {
    Rescue r = Rescue.read(file.fileOnly());
    boolean whole = false;
    try (Book b = Book.create(to, Clock.systemDefaultZone())) {
      b.restore(r.contents());
      whole = true;
    } finally {
      if (!whole) {
        Files.deleteIfExists(to);
      }
    }
    if (json) {
      ObjectNode o =
          Json.object()
              .put("workspace", to.toString())
              .put("entries", r.contents().entries().size())
              .put("revisions", r.contents().revisions().size());
      ArrayNode missing = o.putArray("missing");
      r.missing().forEach(missing::add);
      print(o);
    } else {
      out()
          .println(
              to
                  + " holds "
                  + r.contents().revisions().size()
                  + " revisions and "
                  + r.contents().entries().size()
                  + " entries");
      r.missing().stream().limit(200).forEach(m -> out().println("missing: " + m));
      if (r.missing().size() > 200) {
        out().println("missing: and " + (r.missing().size() - 200) + " more");
      }
    }
    return r.missing().isEmpty() ? Exit.DONE : Exit.NOT_HELD;
  }
}
