package ell.cli.share;

import ell.book.Waiting;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.WorkspaceCommand;
import ell.core.entry.EntryWords;
import ell.work.Workshop;
import ell.work.share.Hands;
import ell.work.space.ActException;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// What was written while the server did not answer, and still waits.
@Command(
    name = "outbox",
    description =
        "what this bench wrote while the server did not answer and could not be taken over; keep it"
            + " behind what others wrote, or lay it aside")
public final class OutboxCommand extends WorkspaceCommand {
  @Option(
      names = "--keep",
      paramLabel = "BOARD",
      description = "write what waits of a board behind what others wrote on it")
  Optional<String> keep = Optional.empty();

  @Option(
      names = "--lay-aside",
      paramLabel = "BOARD",
      description = "what waits of a board is not so any more; it stays in this bench's own file")
  Optional<String> aside = Optional.empty();

  @Option(names = "--why", paramLabel = "WORDS", description = "why; it is logged")
  Optional<String> why = Optional.empty();

  @Override
  public Integer call() throws Exception {
    if (keep.isPresent() && aside.isPresent()) {
      throw new ActException("say either --keep or --lay-aside");
    }
    try (Workshop w = open()) {
      Hands hands = new Hands(w);
      if (keep.isPresent()) {
        hands.keep(keep.get(), why);
      } else if (aside.isPresent()) {
        hands.layAside(aside.get(), why);
      }
      List<Waiting> left = hands.shared().waiting();
      print(left, hands.shared().away());
      return left.isEmpty() ? Exit.DONE : Exit.NOT_HELD;
    }
  }

  private void print(List<Waiting> left, boolean away) {
    if (json) {
      ObjectNode root = Json.object().put("away", away);
      ArrayNode all = root.putArray("waiting");
      for (Waiting x : left) {
        all.addObject()
            .put("number", x.number())
            .put("at", x.at().toString())
            .put("board", x.board())
            .put("words", EntryWords.of(x.entry()))
            .put("after", x.after())
            .put("conflict", x.conflict());
      }
      print(root);
      return;
    }
    if (left.isEmpty()) {
      out().println("nothing waits");
    }
    for (Waiting x : left) {
      out()
          .println(
              (x.board().isEmpty() ? "no board" : "board " + x.board())
                  + " · "
                  + EntryWords.of(x.entry())
                  + (x.conflict().isEmpty() ? " · waits for the server" : " · " + x.conflict()));
    }
    left.stream()
        .filter(x -> !x.conflict().isEmpty() && !x.board().isEmpty())
        .map(Waiting::board)
        .distinct()
        .forEach(b ->
            out()
                .println(
                    "settle it with: --keep "
                        + b
                        + " --why WORDS, or --lay-aside "
                        + b
                        + " --why WORDS"));
  }
}
