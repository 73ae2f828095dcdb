package ell.cli;

import ell.book.Verification;
import ell.work.Workspace;
import picocli.CommandLine.Command;
import tools.jackson.databind.node.ObjectNode;

/// Walks the hash chain of the book.
@Command(name = "verify", description = "check that every entry is as it was written")
final class VerifyCommand extends Act {
  @Override
  public Integer call() throws Exception {
    try (Workspace w = Workspace.look(file)) {
      Verification v = w.book().verify();
      if (json) {
        ObjectNode o = Shapes.object().put("ok", v.ok()).put("entries", v.entries());
        v.firstBad().ifPresent(n -> o.put("firstBad", n));
        print(o.put("message", v.message()).put("seal", w.book().seal()));
      } else {
        out().println(v.message());
      }
      return v.ok() ? Main.DONE : Main.NOT_HELD;
    }
  }
}
