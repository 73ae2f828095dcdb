package ell.cli;

import ell.work.DemoWorkspace;
import ell.work.Workspace;
import picocli.CommandLine.Command;

/// Makes a workspace with the demo.
@Command(name = "demo-workspace", description = "make a workspace that holds the demo")
final class DemoWorkspaceCommand extends Act {
  @Override
  public Integer call() throws Exception {
    try (Workspace w = DemoWorkspace.make(file)) {
      if (json) {
        print(Shapes.object().put("workspace", file.toString()).put("entries", w.book().size()));
      } else {
        out().println("made " + file + " with " + w.book().size() + " entries");
      }
    }
    return Main.DONE;
  }
}
