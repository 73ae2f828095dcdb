package ell.cli;

import ell.book.Build;
import ell.core.kit.KitCheck;
import ell.work.ActException;
import ell.work.Workspace;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

/// Can I start.
@Command(name = "kit", description = "can I start: need, shortage, boards now, verdict")
final class KitCommand extends Act {
  @Mixin Which which;

  @Option(names = "--boards", description = "for so many boards; the build's when not said")
  Optional<Integer> boards = Optional.empty();

  @Override
  public Integer call() throws Exception {
    try (Workspace w = Workspace.look(file)) {
      Optional<Build> build = which.build(w);
      int n =
          boards
              .or(() -> build.map(b -> b.boards().size()))
              .orElseThrow(() ->
                  new ActException("for how many boards? make a build first, or say --boards N"));
      if (n < 1 || n > 1_000_000) {
        throw new ActException("boards must be 1 or more, got " + n);
      }
      KitCheck k = w.kit(which.plan(w), n);
      if (json) {
        print(Shapes.kit(k));
      } else {
        text(k);
      }
    }
    return Main.DONE;
  }

  private void text(KitCheck k) {
    String verdict =
        switch (k.verdict()) {
          case START -> "start";
          case START_UP_TO -> "start, up to gate " + k.gate().orElse("");
          case WAIT -> "wait" + k.date().map(d -> " until " + d).orElse("");
        };
    out().println(k.boards() + " boards: " + verdict);
    k.reasons().forEach(r -> out().println("  " + r));
    out()
        .println(
            "the shelf supports "
                + k.boardsNow()
                + " boards now"
                + k.limiting().map(c -> "; " + c + " limits").orElse(""));
    k.gates()
        .forEach(g ->
            out()
                .println(
                    "  gate "
                        + g.gate()
                        + (g.reachable()
                            ? ": can be reached"
                            : ": waits for " + String.join(", ", g.blockedBy()))));
    int code = k.lines().stream().mapToInt(l -> l.code().length()).max().orElse(4);
    out()
        .printf(
            "%-" + code + "s %9s %9s %9s %9s  bin%n",
            "code",
            "per board",
            "need",
            "on hand",
            "short");
    for (KitCheck.Line l : k.lines()) {
      out()
          .printf(
              "%-" + code + "s %9d %9d %9d %9s  %s%n",
              l.code(),
              l.perBoard(),
              l.need(),
              l.onHand() + l.fromAlternates(),
              l.shortBy() == 0 ? "" : String.valueOf(l.shortBy()),
              l.bin());
    }
  }
}
