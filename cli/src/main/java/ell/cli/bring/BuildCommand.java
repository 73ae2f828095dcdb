package ell.cli.bring;

import ell.book.Build;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.WorkspaceCommand;
import ell.core.heat.Alloy;
import ell.core.order.Method;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.util.ArrayList;
import java.util.List;
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

  @Option(
      names = "--panel",
      description = "boards that hang together until their paste is melted, 1 when not said")
  int panel = 1;

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
    try (Workshop w = open()) {
      Build b = w.makeBuild(design, revision, boards, how, with, prefix, variant, panel);
      if (json) {
        ObjectNode o =
            Json.object()
                .put("build", b.id())
                .put("design", b.design())
                .put("revision", b.revision())
                .put("method", b.method())
                .put("alloy", b.alloy())
                .put("variant", b.variant())
                .put("panel", panel);
        Json.strings(o, "boards", b.boards());
        print(o);
      } else {
        out().println("build " + b.id() + ": boards " + String.join(" ", b.boards()));
        if (panel > 1) {
          out()
              .println(
                  "panels of "
                      + panel
                      + ": "
                      + String.join(
                          ", ", panels(w, b).stream().map(BuildCommand::joined).toList()));
        }
        if (with.leaded()) {
          out().println("take care: " + b.alloy() + " holds lead: no food here, wash hands");
        }
      }
    }
    return Exit.DONE;
  }

  private static String joined(List<String> serials) {
    return String.join(" ", serials);
  }

  private static List<List<String>> panels(Workshop w, Build b) throws Exception {
    List<List<String>> all = new ArrayList<>();
    for (String serial : b.boards()) {
      List<String> own = w.panels().panel(b, serial);
      if (own.getFirst().equals(serial)) {
        all.add(own);
      }
    }
    return all;
  }
}
