package ell.cli.share;

import ell.book.Lease;
import ell.book.Shared;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.WorkspaceCommand;
import ell.work.Workshop;
import ell.work.share.Hands;
import ell.work.space.ActException;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// Which bench has which board in hand, of a workspace on a server.
@Command(
    name = "hand",
    description =
        "which bench has which board in hand; take one, lay it down, or hand it over with words")
public final class HandCommand extends WorkspaceCommand {
  @Option(names = "--board", description = "the board that is taken, laid down or handed over")
  Optional<String> board = Optional.empty();

  @Option(
      names = "--take",
      description = "take it; with --why also when another bench has it, which is logged")
  boolean take;

  @Option(names = "--lay-down", description = "this bench has done with it")
  boolean down;

  @Option(names = "--to", paramLabel = "BENCH", description = "hand it over to a bench")
  Optional<String> to = Optional.empty();

  @Option(names = "--why", paramLabel = "WORDS", description = "why it is handed over")
  Optional<String> why = Optional.empty();

  @Override
  public Integer call() throws Exception {
    int asked = (take ? 1 : 0) + (down ? 1 : 0) + (to.isPresent() ? 1 : 0);
    if (asked > 1 || asked == 1 && board.isEmpty() || asked == 0 && board.isPresent()) {
      throw new ActException("say --board with one of --take, --lay-down and --to BENCH");
    }
    try (Workshop w = asked == 0 ? look() : open()) {
      Hands hands = new Hands(w);
      if (take) {
        hands.take(board.get(), why);
      } else if (down) {
        hands.layDown(board.get());
      } else if (to.isPresent()) {
        hands.handOver(board.get(), to.get(), why);
      }
      print(hands.shared());
    }
    return Exit.DONE;
  }

  private void print(Shared shared) throws Exception {
    List<Lease> all = shared.leases();
    if (json) {
      ObjectNode root = Json.object().put("bench", shared.bench()).put("away", shared.away());
      ArrayNode boards = root.putArray("boards");
      for (Lease l : all) {
        boards
            .addObject()
            .put("board", l.board())
            .put("bench", l.bench())
            .put("person", l.person())
            .put("since", l.since().toString())
            .put("until", l.until().toString())
            .put("words", l.words());
      }
      print(root);
      return;
    }
    out().println("this bench is " + shared.bench());
    if (shared.away()) {
      out()
          .println(
              "the server does not answer since " + shared.since() + ": who has what is not known");
    } else if (all.isEmpty()) {
      out().println("no board is in hand");
    }
    for (Lease l : all) {
      out()
          .println(
              l.board()
                  + "  at "
                  + l.bench()
                  + " ("
                  + l.person()
                  + ") until "
                  + Hands.clock(l.until())
                  + (l.words().isEmpty() ? "" : ": " + l.words()));
    }
  }
}
