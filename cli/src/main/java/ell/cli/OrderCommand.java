package ell.cli;

import ell.core.order.BuildOrder;
import ell.core.order.Step;
import ell.work.Workspace;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

/// Which part next, and why.
@Command(name = "order", description = "which part next, and why: steps, gates, minutes")
final class OrderCommand extends Act {
  @Mixin Which which;

  @Override
  public Integer call() throws Exception {
    try (Workspace w = Workspace.look(file)) {
      BuildOrder order = which.plan(w).order();
      if (json) {
        print(Shapes.order(order));
        return Main.DONE;
      }
      out()
          .printf(
              "%s: %d steps, %.0f min a board%n",
              order.method().key(), order.steps().size(), order.minutes());
      for (Step s : order.steps()) {
        out()
            .printf(
                "%4d  %-11s %s%n",
                s.number(),
                s.action().words(),
                s.gate()
                    .map(g -> "GATE " + g + ": " + s.reasons().getFirst())
                    .orElse(
                        (s.parts().isEmpty()
                                ? s.side().key() + " side"
                                : String.join(" ", s.parts()))
                            + " · "
                            + String.join("; ", s.reasons())));
        s.cautions().forEach(c -> out().println("        take care: " + c));
      }
      order.dropped().forEach(d -> out().println("mind: " + d));
    }
    return Main.DONE;
  }
}
