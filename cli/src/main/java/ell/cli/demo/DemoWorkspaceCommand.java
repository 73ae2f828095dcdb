package ell.cli.demo;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.WorkspaceCommand;
import ell.work.Workshop;
import ell.work.demo.DemoWorkspace;
import picocli.CommandLine.Command;

/// Makes a workspace with the demo.
@Command(name = "demo-workspace", description = "make a workspace that holds the demo")
public final class DemoWorkspaceCommand extends WorkspaceCommand {
  @Override
  public Integer call() throws Exception {
    try (Workshop w = DemoWorkspace.make(file.fileOnly())) {
      if (json) {
        print(Json.object().put("workspace", file.toString()).put("entries", w.book().size()));
      } else {
        out().println("made " + file + " with " + w.book().size() + " entries");
      }
    }
    return Exit.DONE;
  }
}
