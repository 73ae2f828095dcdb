package ell.cli;

import ell.work.Workspace;
import java.time.Clock;
import picocli.CommandLine.Command;

/// Makes a workspace.
@Command(name = "new", description = "make a new workspace file")
final class NewCommand extends Act {
  @Override
  public Integer call() throws Exception {
    try (Workspace w = Workspace.create(file, Clock.systemDefaultZone())) {
      if (json) {
        print(Shapes.object().put("workspace", w.book().file().toString()));
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
    return Main.DONE;
  }
}
