package ell.cli;

import ell.work.Workspace;
import java.nio.file.Path;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/// Copies a workspace, also while a window has it open.
@Command(name = "backup", description = "copy the workspace, also while a window has it open")
final class BackupCommand extends Act {
  @Option(names = "--out", required = true, description = "the file to make")
  Path to;

  @Override
  public Integer call() throws Exception {
    try (Workspace w = Workspace.look(file)) {
      w.book().backup(to);
      if (json) {
        print(Shapes.object().put("file", to.toString()).put("entries", w.book().size()));
      } else {
        out().println("copied to " + to);
      }
    }
    return Main.DONE;
  }
}
