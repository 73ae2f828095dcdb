package ell.cli.book;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.WorkspaceCommand;
import ell.work.Workshop;
import ell.work.send.Export;
import java.nio.file.Path;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ObjectNode;

/// Everything as CSV, JSON and netlists.
@Command(name = "export", description = "everything as CSV, JSON and netlists, into a new folder")
public final class ExportCommand extends WorkspaceCommand {
  @Option(names = "--out", required = true, description = "the folder to make")
  Path to;

  @Override
  public Integer call() throws Exception {
    try (Workshop w = look()) {
      List<String> files = Export.write(w, to);
      if (json) {
        ObjectNode o = Json.object().put("folder", to.toString());
        Json.strings(o, "files", files);
        print(o);
      } else {
        files.forEach(f -> out().println(to.resolve(f)));
      }
    }
    return Exit.DONE;
  }
}
