package ell.cli.order;

import ell.book.Build;
import ell.cli.shell.Exit;
import ell.cli.shell.Which;
import ell.cli.shell.WorkspaceCommand;
import ell.core.board.Folded;
import ell.core.board.Revision;
import ell.core.order.BuildOrder;
import ell.core.order.Rows;
import ell.core.order.Schools;
import ell.core.order.SeveralBoards;
import ell.core.order.Step;
import ell.core.order.StepTimes;
import ell.core.order.Wish;
import ell.core.rack.Plan;
import ell.work.Workshop;
import ell.work.order.Wishes;
import ell.work.space.ActException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ObjectNode;

/// Which part next, and why.
@Command(name = "order", description = "which part next, and why: steps, gates, minutes")
public final class OrderCommand extends WorkspaceCommand {
  @Mixin Which which;

  @Option(
      names = "--wish",
      description =
          "PART first, PART last, PART before PART, PART by-hand, PART by-house, PART after GATE or"
              + " second-side first; surface, first-side, second-side and all are groups for"
              + " by-hand and by-house; may be given several times")
  List<String> wishes = new ArrayList<>();

  @Option(names = "--keep", description = "keep these wishes with the revision")
  boolean keep;

  @Option(names = "--forget", description = "forget the wishes that were kept")
  boolean forget;

  @Option(names = "--boards", description = "compare for so many boards; the build's when not said")
  Optional<Integer> boards = Optional.empty();

  @Option(names = "--per-plate", description = "boards on the plate at once, 1 when not said")
  int perPlate = 1;

  @Override
  public Integer call() throws Exception {
    boolean writes = keep || forget;
    try (Workshop w = writes ? open() : look()) {
      Plan plan = which.plan(w);
      Optional<Build> build = which.build(w);
      int n = boards.or(() -> build.map(b -> b.boards().size())).orElse(1);
      if (n < 1 || n > 1_000_000 || perPlate < 1) {
        throw new ActException("boards and boards on the plate must be 1 or more");
      }
      List<Wish> wanted =
          new ArrayList<>(forget ? List.of() : w.wishes().of(plan.revision(), plan.blocks()));
      for (Wish x : Wishes.parse(plan, wishes)) {
        if (!wanted.contains(x)) {
          wanted.add(x);
        }
      }
      BuildOrder order = plan.order();
      if (forget || !wishes.isEmpty()) {
        order =
            BuildOrder.of(
                plan.revision(), order.method(), plan.blocks(), wanted, plan.panel(), () -> false);
      }
      if (writes) {
        w.wishes().keep(plan, wanted);
      }
      StepTimes times = w.ordering().times(plan);
      Schools schools = w.ordering().schools(plan, n);
      SeveralBoards several = SeveralBoards.of(order.steps(), times, n, perPlate, plan.panel());
      if (json) {
        ObjectNode o = OrderJson.order(order, times, plan.revision());
        OrderJson.schools(o, schools);
        OrderJson.several(o, several);
        OrderJson.wishes(o, wanted.stream().map(Wish::text).toList());
        print(o);
      } else {
        text(order, times, schools, several, plan.revision());
      }
    }
    return Exit.DONE;
  }

  private static String rows(List<List<String>> rows) {
    return String.join(
            "; ", rows.stream().limit(4).map(r -> r.getFirst() + " to " + r.getLast()).toList())
        + (rows.size() > 4 ? "; …" : "");
  }

  private void text(
      BuildOrder order,
      StepTimes times,
      Schools schools,
      SeveralBoards several,
      Revision revision) {
    out()
        .printf(
            "%s: %d steps, %.0f min a board%n",
            order.method().key(), order.steps().size(), times.seconds(order.steps()) / 60);
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
                              : Folded.references(s.parts()))
                          + " · "
                          + String.join("; ", s.reasons())));
      List<List<String>> rows = Rows.of(s, revision);
      if (rows.size() > 1) {
        out().println("        " + rows.size() + " rows: " + rows(rows));
      }
      s.how().forEach(h -> out().println("        " + h));
      s.cautions().forEach(c -> out().println("        take care: " + c));
    }
    order.mind().forEach(d -> out().println("mind: " + d));
    out()
        .println(
            order.effort().exact()
                ? "reels and ways: nothing is shorter"
                : String.format(
                    Locale.ROOT,
                    "reels and ways: at most %.1f %% longer than the shortest",
                    100 * order.effort().gap()));
    out()
        .printf(
            Locale.ROOT,
            "%d boards all at once: %.0f min expected, block by block: %.0f min%s%n",
            schools.boards(),
            schools.totalAtOnce(),
            schools.totalByBlock(),
            schools
                .breakEven()
                .map(b -> String.format(Locale.ROOT, "; both the same at %.1f boards", b))
                .orElse(""));
    if (several.boards() > 1) {
      out()
          .printf(
              Locale.ROOT,
              "%d boards one after the other: %.0f min, each step on all: %.0f min%n",
              several.boards(),
              several.boardAfterBoard() / 60,
              several.stepAfterStep() / 60);
    }
  }
}
