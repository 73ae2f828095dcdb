package ell.work.order;

import ell.core.board.Block;
import ell.core.entry.Entry;
import ell.core.order.OrderFacts;
import ell.core.order.Step;
import ell.core.rack.Stage;
import ell.work.tape.Meaning;
import ell.work.tape.Said;
import ell.work.tape.Verb;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Words of the tape about the build order.
public final class OrderVerbs {
  private static final Pattern RANGE =
      Pattern.compile("(\\d{1,6})\\s*(?:-|\\.{2,3}|…)\\s*(\\d{1,6})");

  /// The verbs.
  public static final List<Verb> ALL =
      List.of(
          Verb.first(
                  "step|steps",
                  "step N or steps N-N",
                  "steps that are done; the next one when none is said",
                  OrderVerbs::steps,
                  "step 12",
                  "steps 1-30",
                  "step")
              .of(Stage.ORDER),
          Verb.first(
                  "gate",
                  "gate NAME holds or fails [WHY]",
                  "a gate that was asked",
                  OrderVerbs::gate,
                  "gate rails holds",
                  "gate rails fails 3V3 is low")
              .offering(t ->
                  t.plan().blocks().stream()
                      .flatMap(
                          b -> java.util.stream.Stream.of(b.gate() + " holds", b.gate() + " fails"))
                      .toList())
              .of(Stage.ORDER));

  private OrderVerbs() {}

  private static Meaning steps(Said said) {
    List<Step> all = said.plan().order().steps();
    OrderFacts facts = OrderFacts.of(said.state());
    String rest = said.rest();
    int from;
    int to;
    Matcher range = RANGE.matcher(rest);
    if (rest.isEmpty()) {
      Optional<Step> next = facts.next(said.plan().order());
      if (next.isEmpty()) {
        return Meaning.wrong("every step is done");
      }
      from = next.get().number();
      to = from;
    } else if (range.matches()) {
      from = Integer.parseInt(range.group(1));
      to = Integer.parseInt(range.group(2));
    } else if (rest.matches("\\d{1,6}")) {
      from = Integer.parseInt(rest);
      to = from;
    } else {
      return Meaning.wrong("expected step 12 or steps 1-30, found '" + rest + "'");
    }
    if (from < 1 || to > all.size() || from > to) {
      return Meaning.wrong("steps go from 1 to " + all.size() + ", found '" + rest + "'");
    }
    List<Entry> entries = new ArrayList<>();
    for (Step s : all.subList(from - 1, to)) {
      if (s.gate().isPresent() && from == to) {
        return Meaning.wrong(
            "step " + from + " is a gate: say gate " + s.gate().get() + " holds, or fails");
      }
      if (s.gate().isEmpty() && !facts.done(s)) {
        entries.add(s.rest(facts.placed()));
      }
    }
    return entries.isEmpty() ? Meaning.wrong("done already") : Meaning.ready(entries);
  }

  private static Meaning gate(Said said) {
    for (Block block : said.plan().blocks()) {
      String gate = block.gate();
      if (said.rest().toLowerCase(Locale.ROOT).startsWith(gate.toLowerCase(Locale.ROOT))) {
        String[] what = said.rest().substring(gate.length()).strip().split("\\s+", 2);
        String why = what.length > 1 ? what[1] : "";
        return switch (what[0].toLowerCase(Locale.ROOT)) {
          case "holds", "ok", "yes" -> Meaning.ready(new Entry.Gate(gate, true, why));
          case "fails", "no" -> Meaning.ready(new Entry.Gate(gate, false, why));
          default -> Meaning.unfinished("gate " + gate + ": holds, or fails and why");
        };
      }
    }
    return Meaning.wrong(
        "there is no gate '"
            + said.rest()
            + "'; there are "
            + String.join(", ", said.plan().blocks().stream().map(Block::gate).toList()));
  }
}
