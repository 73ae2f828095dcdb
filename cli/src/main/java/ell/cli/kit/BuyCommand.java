package ell.cli.kit;

import ell.book.Build;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.Which;
import ell.cli.shell.WorkspaceCommand;
import ell.core.kit.buy.OrderSplit;
import ell.files.Problem;
import ell.files.Source;
import ell.work.Workshop;
import ell.work.kit.Buying;
import ell.work.kit.Stockroom;
import ell.work.space.ActException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ObjectNode;

/// What to order from whom.
@Command(
    name = "buy",
    description = "what to order from whom, so that everything is there in time and costs least")
public final class BuyCommand extends WorkspaceCommand {
  @Mixin Which which;

  @Option(names = "--offers", required = true, description = "sellers' offers, CSV")
  Path offers;

  @Option(names = "--by", required = true, description = "when everything must be there")
  String by;

  @Option(names = "--today", description = "the day from which days are counted")
  Optional<String> today = Optional.empty();

  @Option(names = "--boards", description = "for so many boards; the build's when not said")
  Optional<Integer> boards = Optional.empty();

  @Option(names = "--seconds", description = "work on it at most so long, 5 when not said")
  double seconds = 5;

  @Option(names = "--out", description = "a folder for one CSV for each seller")
  Optional<Path> out = Optional.empty();

  @Override
  public Integer call() throws Exception {
    LocalDate until = date(by);
    LocalDate from = today.isEmpty() ? LocalDate.now() : date(today.get());
    if (!(seconds > 0)) {
      throw new ActException("seconds must be above 0, got " + seconds);
    }
    List<Problem> mind = new ArrayList<>();
    var read = Buying.read(Source.of(offers), mind);
    try (Workshop w = look()) {
      Optional<Build> build = which.build(w);
      int n = Which.boards(boards, build);
      Buying buying =
          new Buying(
              w.stockroom()
                  .question(
                      build.filter(b -> b.boards().size() == n),
                      which.plan(w),
                      Stockroom.Ask.today(n)),
              read,
              from);
      long end = System.nanoTime() + (long) (seconds * 1e9);
      OrderSplit split = buying.by(until, () -> System.nanoTime() > end);
      mind.forEach(p -> err().println("mind: " + p));
      List<Path> files = out.isEmpty() ? List.of() : Buying.write(split, out.get());
      if (json) {
        ObjectNode o = KitJson.split(split);
        Json.strings(o, "files", files.stream().map(Path::toString).toList());
        print(o);
      } else {
        text(split, files);
      }
      return split.unmet().isEmpty() ? Exit.DONE : Exit.NOT_HELD;
    }
  }

  private void text(OrderSplit s, List<Path> files) {
    out()
        .println(
            "by "
                + s.by()
                + ": "
                + Buying.money(s.total())
                + ", of which shipping "
                + Buying.money(s.shipping())
                + (s.proven()
                    ? "; nothing is cheaper"
                    : String.format("; at most %.1f %% too dear", 100 * s.gap())));
    for (OrderSplit.Shipment x : s.shipments()) {
      out()
          .println(
              "from " + String.join(" and ", x.sellers()) + ", shipping " + Buying.money(x.cost()));
      s.purchases().stream()
          .filter(p -> x.sellers().contains(p.offer().seller()))
          .forEach(p ->
              out()
                  .println(
                      "  "
                          + p.quantity()
                          + " "
                          + p.offer().code()
                          + (p.offer().code().equals(p.line()) ? "" : " for " + p.line())
                          + " at "
                          + Buying.money(p.unitPrice())
                          + " = "
                          + Buying.money(p.price())
                          + ", there on "
                          + p.arrives()));
    }
    s.unmet()
        .forEach(u ->
            out()
                .println(
                    "not to be had by then: "
                        + u.quantity()
                        + " "
                        + u.code()
                        + u.earliest().map(d -> ", the soonest is " + d).orElse(", nowhere")));
    s.oneSeller()
        .ifPresentOrElse(
            x -> out().println(x.words() + " would be " + Buying.money(x.total())),
            () -> {
              if (!s.purchases().isEmpty()) {
                out().println("no one seller has everything in time");
              }
            });
    s.cheapestEach()
        .ifPresent(x -> out().println(x.words() + " would be " + Buying.money(x.total())));
    s.assumptions().forEach(a -> out().println("taken for granted: " + a));
    files.forEach(f -> out().println("wrote " + f));
  }
}
