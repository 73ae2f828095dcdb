package ell.cli.bring;

import ell.book.Build;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.WorkspaceCommand;
import ell.core.heat.Alloy;
import ell.core.order.Method;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.time.Clock;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ObjectNode;

/// Makes a build.
@Command(name = "build", description = "make a build: boards of a revision, with serial numbers")
public final class BuildCommand extends WorkspaceCommand {
  @Option(names = "--design", required = true, description = "name of the design")
  String design;

  @Option(names = "--revision", required = true, description = "name of the revision")
  String revision;

  @Option(names = "--boards", required = true, description = "how many boards, 1 to 1000")
  int boards;

  @Option(names = "--method", description = "stencil-plate, hot-air or iron")
  String method = "stencil-plate";

  @Option(names = "--alloy", description = "such as sac305, sn63pb37, sn42bi58")
  String alloy = "sac305";

  @Option(names = "--prefix", description = "before the serial numbers, none when not said")
  String prefix = "";

  @Option(names = "--variant", description = "of the bill, the bill as it is when not said")
  String variant = "";

  @Override
  public Integer call() throws Exception {
    Method how;
    Alloy with;
    try {
      how = Method.of(method);
      with = Alloy.of(alloy);
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
    try (Workshop w = Workshop.open(file, Clock.systemDefaultZone())) {
      Build b = w.revisions().build(design, revision, boards, how, with, prefix, variant);
      if (json) {
        ObjectNode o =
            Json.object()
                .put("build", b.id())
                .put("design", b.design())
                .put("revision", b.revision())
                .put("method", b.method())
                .put("alloy", b.alloy())
                .put("variant", b.variant());
        Json.strings(o, "boards", b.boards());
        print(o);
      } else {
        out().println("build " + b.id() + ": boards " + String.join(" ", b.boards()));
        if (with.leaded()) {
          out().println("take care: " + b.alloy() + " holds lead: no food here, wash hands");
        }
      }
    }
    return Exit.DONE;
  }
}
