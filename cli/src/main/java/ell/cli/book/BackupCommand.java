package ell.cli.book;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.WorkspaceCommand;
import ell.work.Workshop;
import java.nio.file.Path;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/// Copies a workspace, also while a window has it open.
@Command(name = "backup", description = "copy the workspace, also while a window has it open")
public final class BackupCommand extends WorkspaceCommand {
  @Option(names = "--out", required = true, description = "the file to make")
  Path to;

  @Override
  public Integer call() throws Exception {
    try (Workshop w = look()) {
      w.book().backup(to);
      if (json) {
        print(Json.object().put("file", to.toString()).put("entries", w.book().size()));
      } else {
        out().println("copied to " + to);
      }
    }
    return Exit.DONE;
  }
}
