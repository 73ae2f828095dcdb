package ell.cli.book;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.WorkspaceCommand;
import ell.work.Workshop;
import java.time.Clock;
import picocli.CommandLine.Command;

/// Makes a workspace.
@Command(name = "new", description = "make a new workspace file")
public final class NewCommand extends WorkspaceCommand {
  @Override
  public Integer call() throws Exception {
    try (Workshop w = Workshop.create(file, Clock.systemDefaultZone())) {
      if (json) {
        print(Json.object().put("workspace", w.book().place().toString()));
      } else {
        out()
            .println(
                "made "
                    + file
                    + "; next: import "
                    + file
                    + " --design D --revision R"
                    + " --bom F --placement F --netlist F");
      }
    }
    return Exit.DONE;
  }
}
