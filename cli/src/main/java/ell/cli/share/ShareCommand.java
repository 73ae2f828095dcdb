package ell.cli.share;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.WorkspaceCommand;
import ell.work.page.PageServer;
import ell.work.space.ActException;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/// Shows boards on a phone or a tablet, to be looked at only.
@Command(
    name = "share",
    description =
        "show boards on a phone or tablet: step, beep list and record, to be looked at only, on the"
            + " address that is named, to who types the code; until Enter, or the minutes are over")
public final class ShareCommand extends WorkspaceCommand {
  @Option(
      names = "--at",
      paramLabel = "ADDRESS:PORT",
      required = true,
      description = "an address of this machine, such as 127.0.0.1:8420; port 0 for any free one")
  String at;

  @Option(names = "--board", description = "this board only")
  Optional<String> board = Optional.empty();

  @Option(names = "--minutes", description = "end after so many minutes; 1...1440")
  Optional<Integer> minutes = Optional.empty();

  @Override
  public Integer call() throws Exception {
    int most = minutes.orElse(1440);
    if (most < 1 || most > 1440) {
      throw new ActException("--minutes is in 1...1440, got " + most);
    }
    look().close(); // asks for a password where one is wanted
    try (PageServer s = PageServer.begin(file, at, board)) {
      if (json) {
        print(Json.object().put("at", s.where().toString()).put("code", s.code()));
      } else {
        out().println(s.where());
        out().println("code " + s.code());
        out()
            .println(
                "To be looked at only. What is sent is not hidden from others in the same network."
                    + " Enter ends it.");
        out().flush();
      }
      waits(most);
    }
    return Exit.DONE;
  }

  /// Until a line is typed, or the time is over; without a terminal only the time ends it.
  private static void waits(int minutes) throws Exception {
    long end = System.nanoTime() + TimeUnit.MINUTES.toNanos(minutes);
    while (System.nanoTime() - end < 0) {
      if (System.in.available() > 0 && System.in.read() >= 0) {
        return;
      }
      Thread.sleep(100);
    }
  }
}
