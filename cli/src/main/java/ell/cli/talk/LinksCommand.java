package ell.cli.talk;

import ell.book.RevisionStore;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.OfRevision;
import ell.cli.shell.WorkspaceCommand;
import ell.core.talk.Link;
import ell.core.talk.LinkPlan;
import ell.core.talk.Operation;
import ell.core.talk.TalkFacts;
import ell.core.talk.TalkPlan;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// Links of a board, and what must change for an operation.
@Command(
    name = "links",
    description =
        "how the links of a board stand, what must change for an operation, and the order of"
            + " operations that heats least; --say says what there is")
public final class LinksCommand extends WorkspaceCommand {
  @Option(names = "--board", description = "serial of the board")
  Optional<String> board = Optional.empty();

  @Option(
      names = "--for",
      paramLabel = "OPERATION",
      description = "an operation, several with commas, or all")
  Optional<String> what = Optional.empty();

  @Option(
      names = "--say",
      paramLabel = "LINE",
      description =
          "such as \"link SJ1 solder\", \"operation program open SJ1 SJ2 out M1\", \"line U4"
              + " tx=U4.39 rx=U4.40 at=TP7,TP8 baud=115200\", \"strap U4.44 runs low\", \"memory U6"
              + " protect=U6.7 high\", \"shares M1 out=J6.4\"; may be given several times")
  List<String> say = new ArrayList<>();

  @Option(names = "--forget", description = "forget all that was said of the revision")
  boolean forget;

  @Mixin OfRevision of;

  @Override
  public Integer call() throws Exception {
    boolean writes = !say.isEmpty() || forget;
    try (Workshop w = writes ? open() : look()) {
      RevisionStore.Id id = of.id(w, board);
      String d = id.design();
      String r = id.name();
      if (forget) {
        w.talks().unsay(d, r);
      }
      TalkPlan plan = say.isEmpty() ? w.talks().of(d, r) : w.talks().say(d, r, say);
      TalkFacts facts = board.isPresent() ? TalkFacts.of(w.state(board.get())) : null;
      if (what.isEmpty()) {
        list(plan, facts);
        return Exit.DONE;
      }
      if (facts == null) {
        throw new ActException("how do the links stand? say --board N");
      }
      return ordered(plan, facts);
    }
  }

  private void list(TalkPlan plan, TalkFacts facts) {
    LinkPlan.Stand stand = facts == null ? null : facts.stand(plan);
    if (json) {
      ObjectNode o = Json.object();
      ArrayNode links = o.putArray("links");
      for (Link l : plan.links()) {
        ObjectNode one = links.addObject().put("link", l.part()).put("kind", l.kind().word());
        one.put("state", Link.word(stand == null ? l.closed() : stand.links().get(l.part())));
        one.put("guessed", l.guessed());
      }
      ArrayNode operations = o.putArray("operations");
      for (Operation op : plan.operations()) {
        ObjectNode one = operations.addObject().put("operation", op.name());
        Json.strings(one, "open", named(op, false));
        Json.strings(one, "closed", named(op, true));
        Json.strings(one, "in", plugs(op, true));
        Json.strings(one, "out", plugs(op, false));
        Json.strings(one, "after", op.after());
        one.put("done", facts != null && facts.done().contains(op.name()));
      }
      Json.strings(o, "told", plan.told());
      print(o);
      return;
    }
    if (plan.links().isEmpty()) {
      out().println("no links are known; say one: links --say \"link SJ1 solder\"");
    }
    for (Link l : plan.links()) {
      out()
          .printf(
              "%-6s %-7s %s%s%n",
              l.part(),
              l.kind().word(),
              Link.word(stand == null ? l.closed() : stand.links().get(l.part())),
              facts != null && !facts.stands().containsKey(l.part())
                  ? " as it comes; the book has nothing of it"
                  : "");
    }
    for (Operation op : plan.operations()) {
      out()
          .println(
              op.name()
                  + ":"
                  + words(" open", named(op, false))
                  + words(" closed", named(op, true))
                  + words(" in", plugs(op, true))
                  + words(" out", plugs(op, false))
                  + words(" after", op.after()));
    }
    plan.told().forEach(t -> out().println("guessed: " + t));
    out().flush();
  }

  private static String words(String head, List<String> all) {
    return all.isEmpty() ? "" : head + " " + String.join(" ", all);
  }

  private static List<String> named(Operation o, boolean closed) {
    return o.links().entrySet().stream()
        .filter(e -> e.getValue() == closed)
        .map(java.util.Map.Entry::getKey)
        .toList();
  }

  private static List<String> plugs(Operation o, boolean in) {
    return o.plugs().entrySet().stream()
        .filter(e -> e.getValue() == in)
        .map(java.util.Map.Entry::getKey)
        .toList();
  }

  private int ordered(TalkPlan plan, TalkFacts facts) throws ActException {
    if (plan.operations().isEmpty()) {
      throw new ActException(
          "nobody said what operations there are; say one: links --say \"operation program open"
              + " SJ1\"");
    }
    List<Operation> wanted = new ArrayList<>();
    LinkPlan.Stand now = facts.stand(plan);
    LinkPlan best;
    try {
      Set<String> seen = new HashSet<>();
      List<String> names =
          what.get().equals("all")
              ? plan.operations().stream().map(Operation::name).toList()
              : List.of(what.get().split("\\s*,\\s*"));
      for (String n : names) {
        for (Operation o : LinkPlan.needed(n, plan.operations(), facts.done())) {
          if (seen.add(o.name())) {
            wanted.add(o);
          }
        }
      }
      best = LinkPlan.of(wanted, plan.links(), now);
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
    boolean one = !what.get().contains(",") && !what.get().equals("all");
    LinkPlan.Step first =
        one
            ? LinkPlan.of(plan.operation(what.get()).orElseThrow(), plan.links(), now)
            : best.steps().getFirst();
    boolean ready = first.ready() && (!one || best.steps().size() == 1);
    if (json) {
      print(shape(first, best, ready));
    } else {
      text(first, best, ready);
    }
    return ready ? Exit.DONE : Exit.NOT_HELD;
  }

  private ObjectNode shape(LinkPlan.Step first, LinkPlan best, boolean ready) {
    ObjectNode o = Json.object().put("operation", what.get()).put("ready", ready);
    changes(o, first.changes());
    Json.strings(o, "plug", first.plug());
    Json.strings(o, "unplug", first.unplug());
    ArrayNode sequence = o.putArray("sequence");
    for (LinkPlan.Step s : best.steps()) {
      ObjectNode one = sequence.addObject().put("operation", s.operation().name());
      changes(one, s.changes());
      Json.strings(one, "plug", s.plug());
      Json.strings(one, "unplug", s.unplug());
    }
    return o.put("heats", best.heats()).put("proven", best.proven());
  }

  private static void changes(ObjectNode into, List<LinkPlan.Change> all) {
    ArrayNode list = into.putArray("changes");
    for (LinkPlan.Change c : all) {
      list.addObject()
          .put("link", c.link())
          .put("from", Link.word(c.from()))
          .put("to", Link.word(c.to()))
          .put("iron", c.iron());
    }
  }

  private void text(LinkPlan.Step first, LinkPlan best, boolean ready) {
    out()
        .println(
            ready
                ? first.operation().name() + " can begin"
                : first.operation().name() + " cannot begin yet");
    int n = 0;
    for (LinkPlan.Step s : best.steps()) {
      List<String> before = new ArrayList<>();
      s.changes()
          .forEach(c ->
              before.add(
                  (c.to() ? "close " : "open ") + c.link() + (c.iron() ? " with the iron" : "")));
      s.plug().forEach(p -> before.add("plug in " + p));
      s.unplug().forEach(p -> before.add("take out " + p));
      out()
          .println(
              ++n
                  + "  "
                  + s.operation().name()
                  + (before.isEmpty() ? "" : ": first " + String.join(", ", before)));
    }
    out()
        .println(
            best.heats()
                + (best.heats() == 1 ? " change" : " changes")
                + " with the iron"
                + (best.proven() ? ", fewest there are" : ", the fewest that were found"));
    out().flush();
  }
}
