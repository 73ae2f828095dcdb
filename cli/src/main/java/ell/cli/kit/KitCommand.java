package ell.cli.kit;

import ell.book.Build;
import ell.cli.shell.Exit;
import ell.cli.shell.SheetText;
import ell.cli.shell.Which;
import ell.cli.shell.WorkspaceCommand;
import ell.core.board.Part;
import ell.core.kit.KitCheck;
import ell.core.kit.KitLine;
import ell.core.kit.KitQuestion;
import ell.core.kit.Landed;
import ell.core.kit.MassBudget;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.rack.Plan;
import ell.files.Problem;
import ell.files.Source;
import ell.work.Workshop;
import ell.work.kit.Buying;
import ell.work.kit.Stockroom;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ObjectNode;

/// Can I start.
@Command(name = "kit", description = "can I start: need, shortage, boards now, verdict")
public final class KitCommand extends WorkspaceCommand {
  @Mixin Which which;

  @Option(names = "--boards", description = "for so many boards; the build's when not said")
  Optional<Integer> boards = Optional.empty();

  @Option(
      names = "--date",
      description = "on that day, when what is due by then has come; today as it is when not said")
  Optional<String> date = Optional.empty();

  @Option(names = "--offers", description = "sellers' offers, CSV: says what each date costs")
  Optional<Path> offers = Optional.empty();

  @Option(names = "--mass-limit", description = "what a finished board may weigh, such as 60g")
  Optional<String> massLimit = Optional.empty();

  @Option(names = "--board-cost", description = "of all blank boards: says what a good board costs")
  Optional<Double> boardCost = Optional.empty();

  @Option(names = "--stencil-cost", description = "of the stencil")
  double stencilCost;

  @Option(names = "--shipping", description = "of boards, stencil and parts")
  double shipping;

  @Option(names = "--yield", description = "fraction of boards that will be good, 1 when not said")
  double yield = 1;

  @Override
  public Integer call() throws Exception {
    try (Workshop w = look()) {
      Optional<Build> build = which.build(w);
      int n = Which.boards(boards, build);
      Plan plan = which.plan(w);
      Optional<LocalDate> day = date.isEmpty() ? Optional.empty() : Optional.of(date(date.get()));
      KitQuestion q = question(w, build, plan, n, day);
      KitCheck k = KitCheck.of(q);
      List<Buying.DateCost> costs = costs(w, build, plan, n);
      Optional<MassBudget> mass =
          massLimit.isEmpty()
              ? Optional.empty()
              : Optional.of(MassBudget.of(plan.revision(), Optional.of(limit())));
      Optional<Landed> landed =
          boardCost.isEmpty() ? Optional.empty() : Optional.of(landed(k, plan));
      if (json) {
        ObjectNode o = KitJson.kit(k);
        if (offers.isPresent()) {
          KitJson.costs(o, costs);
        }
        mass.ifPresent(m -> KitJson.mass(o, m));
        landed.ifPresent(l -> KitJson.landed(o, l));
        print(o);
      } else {
        text(k);
        costs.forEach(this::cost);
        mass.ifPresent(m -> SheetText.print(m.sheet(), out()));
        landed.ifPresent(l ->
            out()
                .printf(
                    "a good board costs %s, of %s for %s good boards%n",
                    Buying.money(l.perGoodBoard()),
                    Buying.money(l.total()),
                    EngineeringNumber.print(l.goodBoards(), Unit.ONE, 4)));
      }
    }
    return Exit.DONE;
  }

  private static KitQuestion question(
      Workshop w, Optional<Build> build, Plan plan, int n, Optional<LocalDate> day)
      throws IOException, ActException {
    // another number of boards is a question about a build that has not begun
    return w.stockroom()
        .question(build.filter(b -> b.boards().size() == n), plan, new Stockroom.Ask(n, day));
  }

  private List<Buying.DateCost> costs(Workshop w, Optional<Build> build, Plan plan, int n)
      throws IOException, ActException {
    if (offers.isEmpty()) {
      return List.of();
    }
    List<Problem> mind = new ArrayList<>();
    var read = Buying.read(Source.of(offers.get()), mind);
    mind.forEach(p -> err().println("mind: " + p));
    long end = System.nanoTime() + 20_000_000_000L;
    return new Buying(question(w, build, plan, n, Optional.empty()), read, LocalDate.now())
        .costs(() -> System.nanoTime() > end);
  }

  private double limit() throws ActException {
    try {
      String text = massLimit.orElseThrow().strip();
      double g = EngineeringNumber.parse(text.replaceAll("(?i)\\s*k?g$", ""), Unit.ONE);
      double kg = text.matches("(?i).*kg") ? g : g / 1000;
      if (kg <= 0) {
        throw new NumberFormatException("expected a mass above 0, found '" + text + "'");
      }
      return kg;
    } catch (NumberFormatException e) {
      throw new ActException("mass limit: " + e.getMessage(), e);
    }
  }

  private Landed landed(KitCheck k, Plan plan) throws ActException {
    double parts = 0;
    List<String> unknown = new ArrayList<>();
    for (KitLine l : k.lines()) {
      double price =
          plan.revision().part(l.references().getFirst()).map(Part::unitCost).orElse(0.0);
      if (Double.isNaN(price)) {
        unknown.add(l.code());
      } else {
        parts += l.need() * price;
      }
    }
    if (!unknown.isEmpty()) {
      err().println("mind: the bill has no price for " + String.join(", ", unknown));
    }
    try {
      return Landed.of(boardCost.orElseThrow(), stencilCost, parts, shipping, k.boards(), yield);
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
  }

  private void text(KitCheck k) {
    out().println(k.boards() + " boards: " + verdict(k));
    k.reasons().forEach(r -> out().println("  " + r));
    out()
        .println(
            "the shelf supports "
                + k.boardsNow()
                + " boards on "
                + k.on()
                + k.limiting().map(c -> "; " + c + " limits").orElse("")
                + k.next().map(x -> ", then " + x.code() + " at " + x.boards()).orElse(""));
    k.stairs().stream()
        .skip(1)
        .forEach(s ->
            out()
                .println(
                    "  from "
                        + s.from()
                        + ": "
                        + s.boards()
                        + " boards"
                        + s.limiting().map(c -> "; " + c + " limits").orElse("")));
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
    for (KitLine l : k.lines()) {
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

  private static String verdict(KitCheck k) {
    return switch (k.verdict()) {
      case START -> "start";
      case START_UP_TO -> "start, up to gate " + k.gate().orElse("");
      case WAIT -> "wait" + k.date().map(d -> " until " + d).orElse("");
    };
  }

  private void cost(Buying.DateCost c) {
    out()
        .println(
            "by "
                + c.by()
                + ": "
                + Buying.money(c.total())
                + (c.proven() ? "" : String.format(", at most %.1f %% too dear", 100 * c.gap()))
                + (c.unmet().isEmpty() ? "" : " without " + String.join(", ", c.unmet())));
  }
}
