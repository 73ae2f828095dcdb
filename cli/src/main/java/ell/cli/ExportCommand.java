package ell.cli;

import ell.work.Export;
import ell.work.Workspace;
import java.nio.file.Path;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ObjectNode;

/// Everything as CSV, JSON and netlists.
@Command(name = "export", description = "everything as CSV, JSON and netlists, into a new folder")
final class ExportCommand extends Act {
  @Option(names = "--out", required = true, description = "the folder to make")
  Path to;

  @Override
  public Integer call() throws Exception {
    try (Workspace w = Workspace.look(file)) {
      List<String> files = Export.write(w, to);
      if (json) {
        ObjectNode o = Shapes.object().put("folder", to.toString());
        Shapes.strings(o, "files", files);
        print(o);
      } else {
        files.forEach(f -> out().println(to.resolve(f)));
      }
    }
    return Main.DONE;
  }
}
