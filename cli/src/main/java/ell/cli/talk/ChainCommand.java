package ell.cli.talk;

import ell.cli.shell.Exit;
import ell.cli.shell.Given;
import ell.cli.shell.Json;
import ell.cli.shell.WorkspaceCommand;
import ell.core.power.Chain;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.rack.Plan;
import ell.core.talk.ChainOnBoard;
import ell.core.talk.ChainSeen;
import ell.core.talk.ChainSuspects;
import ell.core.talk.TalkFacts;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// Elements one behind the other, and what explains what is seen of them.
@Command(
    name = "chain",
    description =
        "elements one behind the other on data: which single fault explains what is seen, where to"
            + " look next, and where the supply has to be fed again")
public final class ChainCommand extends WorkspaceCommand {
  @Option(names = "--board", description = "serial of the board; of the latest build when not said")
  Optional<String> board = Optional.empty();

  @Option(names = "--chain", description = "one of its elements; the longest when not said")
  Optional<String> chain = Optional.empty();

  @Option(
      names = "--seen",
      description =
          "such as \"lit up to 7\", \"first dead\", \"wrong colour from 12\", \"flickers from 20\","
              + " \"nothing at the end\"; what the book has when not said")
  Optional<String> seen = Optional.empty();

  @Option(names = "--supply", description = "volts before the first element, such as 5V")
  Optional<String> supply = Optional.empty();

  @Option(names = "--current", description = "of each element, such as 20mA")
  Optional<String> current = Optional.empty();

  @Option(
      names = "--segment",
      description = "ohms there and back between two elements, such as 30mohm")
  Optional<String> segment = Optional.empty();

  @Option(names = "--least", description = "volts at which an element still works, such as 4.2V")
  Optional<String> least = Optional.empty();

  @Override
  public Integer call() throws Exception {
    try (Workshop w = look()) {
      Plan plan = w.plan(board.isPresent() ? w.buildOf(board.get()) : w.build(Optional.empty()));
      List<ChainOnBoard> all = plan.talk().chains();
      if (all.isEmpty()) {
        throw new ActException("this board has no chain of equal elements");
      }
      ChainOnBoard c = all.getFirst();
      if (chain.isPresent()) {
        c =
            all.stream()
                .filter(x -> x.elements().contains(chain.get()))
                .findFirst()
                .orElseThrow(() -> new ActException("there is no chain with " + chain.get()));
      }
      Optional<String> says = seen;
      if (says.isEmpty() && board.isPresent()) {
        String first = c.elements().getFirst();
        says =
            Optional.ofNullable(TalkFacts.of(w.state(board.get())).chains().get(first))
                .map(x -> x.seen());
      }
      print(plan, c, all, says);
      return Exit.DONE;
    }
  }

  private ChainSuspects.Feed feed(ChainOnBoard c, Plan plan) throws ActException {
    Optional<Double> v = Given.value(supply, Unit.VOLT);
    Optional<Double> a = Given.value(current, Unit.AMPERE);
    Optional<Double> ohm = Given.value(segment, Unit.OHM);
    if (v.isEmpty() && a.isEmpty() && ohm.isEmpty()) {
      return ChainSuspects.Feed.UNKNOWN;
    }
    // what is not said is taken from the power ladder, and told
    String first = c.elements().getFirst();
    if (v.isEmpty()) {
      v =
          plan.revision().jointsOf(first).stream()
              .flatMap(j -> plan.ladder().rail(j.net()).stream())
              .filter(r -> r.volts() > 0 && !r.net().equals(plan.ladder().ground()))
              .map(r -> r.volts())
              .findFirst();
      v.ifPresent(x -> told(EngineeringNumber.print(x, Unit.VOLT, 3) + " of its rail"));
    }
    if (a.isEmpty()) {
      a =
          plan.ladder().loads().stream()
              .filter(l -> l.part().equals(first))
              .map(l -> l.in("active"))
              .filter(x -> x > 0)
              .findFirst();
      a.ifPresent(x -> told(EngineeringNumber.print(x, Unit.AMPERE, 3) + " of each element"));
    }
    if (v.isEmpty() || a.isEmpty() || ohm.isEmpty()) {
      throw new ActException("the supply along the chain wants --supply, --current and --segment");
    }
    try {
      Chain along = new Chain(c.elements().size(), a.get(), ohm.get(), v.get());
      if (along.last() < 0) {
        throw new ActException(
            "the line cannot carry so much: at "
                + along.longest(0)
                + " elements nothing is left of "
                + EngineeringNumber.print(v.get(), Unit.VOLT, 3));
      }
      List<Double> volts = new ArrayList<>();
      for (int i = 1; i <= c.elements().size(); i++) {
        volts.add(along.at(i));
      }
      return new ChainSuspects.Feed(volts, Given.value(least, Unit.VOLT).orElse(0.85 * v.get()));
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
  }

  private void told(String taken) {
    err().println("taken from the power ladder: " + taken);
    err().flush();
  }

  private void print(Plan plan, ChainOnBoard c, List<ChainOnBoard> all, Optional<String> says)
      throws ActException {
    ChainSuspects.Feed feed = feed(c, plan);
    Optional<ChainSuspects> s = Optional.empty();
    if (says.isPresent()) {
      try {
        s =
            Optional.of(
                ChainSuspects.of(
                    c, ChainSeen.parse(says.get(), c.elements().size()), feed, Map.of()));
      } catch (IllegalArgumentException e) {
        throw new ActException(e.getMessage(), e);
      }
    }
    if (json) {
      print(shape(c, feed, says, s));
      return;
    }
    all.forEach(x -> out().println((x.equals(c) ? "> " : "  ") + x.words()));
    if (!feed.volts().isEmpty()) {
      out()
          .printf(
              Locale.ROOT,
              "%s at the first, %s at the last%s%n",
              EngineeringNumber.print(feed.volts().getFirst(), Unit.VOLT, 3),
              EngineeringNumber.print(feed.volts().getLast(), Unit.VOLT, 3),
              feed.sags() > 0
                  ? "; feed again before " + c.elements().get(feed.sags() - 1)
                  : ", enough for all");
    }
    if (s.isEmpty()) {
      out().println("nothing was said of it: --seen \"lit up to 2\"");
    } else if (s.get().suspects().isEmpty()) {
      out().println("nothing is wrong with it");
    } else {
      s.get().suspects().stream()
          .limit(12)
          .forEach(x ->
              out()
                  .printf(Locale.ROOT, "%3.0f %%  %s: %s%n", 100 * x.chance(), x.fault(), x.why()));
      s.get()
          .next()
          .ifPresent(n ->
              out()
                  .printf(
                      Locale.ROOT,
                      "next: at %s, %s (%.0f %%); some %.2g looks in all%n",
                      n.place(),
                      n.what(),
                      100 * n.there(),
                      n.minutes()));
    }
    out().flush();
  }

  private static ObjectNode shape(
      ChainOnBoard c, ChainSuspects.Feed feed, Optional<String> says, Optional<ChainSuspects> s) {
    ObjectNode o = Json.object().put("chain", c.elements().getFirst()).put("code", c.code());
    Json.strings(o, "elements", c.elements());
    o.put("near", c.near()).put("far", c.far()).put("head", c.head());
    if (!feed.volts().isEmpty()) {
      ArrayNode volts = o.putArray("volts");
      feed.volts().forEach(volts::add);
      o.put("feedAgain", feed.sags() > 0 ? c.elements().get(feed.sags() - 1) : "");
    }
    says.ifPresent(x -> o.put("seen", x));
    s.ifPresent(x -> {
      ArrayNode suspects = o.putArray("suspects");
      x.suspects()
          .forEach(one ->
              suspects
                  .addObject()
                  .put("fault", one.fault())
                  .put("probability", one.chance())
                  .put("why", one.why()));
      x.next()
          .ifPresent(n -> {
            ObjectNode next = o.putObject("next").put("place", n.place()).put("what", n.what());
            next.put("there", n.there());
            Json.number(next, "minutes", n.minutes());
          });
    });
    return o;
  }
}
