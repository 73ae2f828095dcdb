package ell.cli.book;

import ell.book.Verification;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.WorkspaceCommand;
import ell.work.Workshop;
import picocli.CommandLine.Command;
import tools.jackson.databind.node.ObjectNode;

/// Walks the hash chain of the book.
@Command(name = "verify", description = "check that every entry is as it was written")
public final class VerifyCommand extends WorkspaceCommand {
  @Override
  public Integer call() throws Exception {
    try (Workshop w = Workshop.look(file)) {
      Verification v = w.book().verify();
      if (json) {
        ObjectNode o = Json.object().put("ok", v.ok()).put("entries", v.entries());
        v.firstBad().ifPresent(n -> o.put("firstBad", n));
        print(o.put("message", v.message()).put("seal", w.book().seal()));
      } else {
        out().println(v.message());
      }
      return v.ok() ? Exit.DONE : Exit.NOT_HELD;
    }
  }
}
