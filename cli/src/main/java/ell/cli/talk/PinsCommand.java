package ell.cli.talk;

import ell.book.Place;
import ell.book.RevisionStore;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.JsonText;
import ell.cli.shell.OfRevision;
import ell.core.rack.Plan;
import ell.core.talk.PinMap;
import ell.core.talk.PinTable;
import ell.core.talk.PinTable.Need;
import ell.core.talk.PinTable.Offer;
import ell.core.talk.StrapOnBoard;
import ell.files.csv.PinTables;
import ell.work.Workshop;
import ell.work.space.ActException;
import ell.work.talk.PinFiles;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.function.BiFunction;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// Signals of firmware on the pins of a controller board.
@Command(
    name = "pins",
    description =
        "put the signals of firmware on the pins of a controller board: all that can be met, most of"
            + " them where they were, straps left free")
public final class PinsCommand implements Callable<Integer> {
  @Parameters(
      index = "0",
      arity = "0..1",
      paramLabel = "WS",
      description = "a workspace that keeps tables of modules; not needed with --offers")
  Optional<Place> workspace = Optional.empty();

  @Option(
      names = "--needs",
      paramLabel = "FILE",
      description = "CSV signal,needs[,pin[,load]]: words such as out, pwm, analog-in, i2c-sda, 5v")
  Optional<Path> needs = Optional.empty();

  @Option(
      names = "--offers",
      paramLabel = "FILE",
      description = "CSV pin,offers[,strap[,shared[,pull]]]; a strap is high or low at reset")
  Optional<Path> offers = Optional.empty();

  @Option(
      names = "--keep-needs",
      description = "keep --needs with the revision: they are used where no --needs is said")
  boolean keepNeeds;

  @Mixin OfRevision of;

  @Option(names = "--was", paramLabel = "FILE", description = "CSV signal,pin: where they were")
  Optional<Path> was = Optional.empty();

  @Option(
      names = "--module",
      paramLabel = "NAME",
      description = "a module of the workspace; all of them, the best first, when not said")
  Optional<String> module = Optional.empty();

  @Option(
      names = "--keep",
      paramLabel = "NAME",
      description = "keep --offers in the workspace as a module of this name")
  Optional<String> keep = Optional.empty();

  @Option(
      names = "--part",
      paramLabel = "PART",
      description =
          "the controller of the workspace's board, whose joints the pins are: straps are then looked"
              + " at with the board model")
  Optional<String> part = Optional.empty();

  @Option(names = "--json", description = "one JSON object on standard output")
  boolean json;

  @Spec CommandSpec spec;

  @Override
  public Integer call() throws Exception {
    PrintWriter out = spec.commandLine().getOut();
    PrintWriter err = spec.commandLine().getErr();
    Optional<List<Offer>> own = Optional.empty();
    if (offers.isPresent()) {
      own = Optional.of(PinFiles.read(offers.get(), PinTables::offers, err::println));
    }
    if (keep.isPresent()) {
      if (own.isEmpty() || workspace.isEmpty()) {
        throw new ActException("--keep keeps --offers in a workspace: say both");
      }
      try (Workshop w = Workshop.open(workspace.get(), Clock.systemDefaultZone())) {
        w.modules().keep(keep.get(), own.get());
      }
      if (needs.isEmpty()) {
        out.println(keep.get() + ": " + own.get().size() + " pins kept");
        out.flush();
        return Exit.DONE;
      }
    }
    List<Need> wanted = wanted(err);
    if (was.isPresent()) {
      wanted = PinTable.was(wanted, PinFiles.read(was.get(), PinTables::was, err::println));
    }
    Map<String, List<Offer>> all = new LinkedHashMap<>();
    if (own.isPresent()) {
      all.put(offers.get().getFileName().toString(), own.get());
    } else {
      all.putAll(kept());
    }
    return answer(out, wanted, all, looks());
  }

  /// What the firmware needs: as said, else as kept with the revision.
  private List<Need> wanted(PrintWriter err) throws Exception {
    if (keepNeeds) {
      if (needs.isEmpty() || workspace.isEmpty()) {
        throw new ActException("--keep-needs keeps --needs in a workspace: say both");
      }
      try (Workshop w = Workshop.open(workspace.get(), Clock.systemDefaultZone())) {
        RevisionStore.Id id = of.id(w, Optional.empty());
        return w.modules().keepNeeds(id.design(), id.name(), needs.get(), err::println);
      }
    }
    if (needs.isPresent()) {
      return PinFiles.read(needs.get(), PinTables::needs, err::println);
    }
    if (workspace.isPresent()) {
      try (Workshop w = Workshop.look(workspace.get())) {
        RevisionStore.Id id = of.id(w, Optional.empty());
        List<Need> kept = w.modules().needs(id.design(), id.name());
        if (!kept.isEmpty()) {
          return kept;
        }
      }
    }
    throw new ActException("what does the firmware need? say --needs FILE");
  }

  private BiFunction<Offer, Need, PinMap.Strapped> looks() throws Exception {
    if (part.isEmpty()) {
      return PinMap::pulled;
    }
    if (workspace.isEmpty()) {
      throw new ActException("--part is of a board: say the workspace");
    }
    try (Workshop w = Workshop.look(workspace.get())) {
      Plan plan = w.plan(w.build(Optional.empty()));
      if (plan.revision().jointsOf(part.get()).isEmpty()) {
        throw new ActException(plan.revision().title() + " has no part " + part.get());
      }
      return new StrapOnBoard(plan.revision(), plan.ladder(), part.get());
    }
  }

  private Map<String, List<Offer>> kept() throws Exception {
    if (workspace.isEmpty()) {
      throw new ActException(
          "which pins are there? say --offers FILE, or a workspace with modules");
    }
    try (Workshop w = Workshop.look(workspace.get())) {
      Map<String, List<Offer>> all = new LinkedHashMap<>(w.modules().all());
      if (all.isEmpty()) {
        throw new ActException(
            "the workspace keeps no modules; say --offers FILE --keep NAME to keep one");
      }
      if (module.isPresent()) {
        if (!all.containsKey(module.get())) {
          throw new ActException(
              "there is no module '"
                  + module.get()
                  + "'; there are "
                  + String.join(", ", all.keySet()));
        }
        all.keySet().retainAll(List.of(module.get()));
      }
      return all;
    }
  }

  private int answer(
      PrintWriter out,
      List<Need> wanted,
      Map<String, List<Offer>> all,
      BiFunction<Offer, Need, PinMap.Strapped> looks)
      throws ActException {
    Map<String, PinMap> maps = new LinkedHashMap<>();
    for (Map.Entry<String, List<Offer>> e : all.entrySet()) {
      try {
        maps.put(e.getKey(), PinMap.of(wanted, e.getValue(), looks));
      } catch (IllegalArgumentException x) {
        throw new ActException(x.getMessage(), x);
      }
    }
    List<String> order = new ArrayList<>(maps.keySet());
    order.sort((a, b) -> better(maps.get(a), maps.get(b)));
    PinMap best = maps.get(order.getFirst());
    if (json) {
      ObjectNode o = shape(best);
      if (maps.size() > 1) {
        o.put("module", order.getFirst());
        ArrayNode others = o.putArray("modules");
        order.forEach(n ->
            others
                .addObject()
                .put("module", n)
                .put("unmet", maps.get(n).unmet().size())
                .put("kept", maps.get(n).kept())
                .put("spare", all.get(n).size() - maps.get(n).assignments().size()));
      }
      out.println(JsonText.of(o));
    } else {
      if (maps.size() > 1) {
        for (String n : order) {
          out.printf(
              "%-16s %d of %d met, %d stay, %d pins spare%n",
              n,
              maps.get(n).assignments().size(),
              wanted.size(),
              maps.get(n).kept(),
              all.get(n).size() - maps.get(n).assignments().size());
        }
        out.println();
      }
      text(out, best, wanted.size());
    }
    out.flush();
    return best.works() ? Exit.DONE : Exit.NOT_HELD;
  }

  private static int better(PinMap a, PinMap b) {
    int c = Integer.compare(a.unmet().size(), b.unmet().size());
    c = c != 0 ? c : Integer.compare(b.kept(), a.kept());
    return c != 0 ? c : Integer.compare(a.straps().size(), b.straps().size());
  }

  private static ObjectNode shape(PinMap m) {
    ObjectNode o = Json.object();
    ArrayNode assignments = o.putArray("assignments");
    for (PinMap.Assignment a : m.assignments()) {
      ObjectNode one = assignments.addObject().put("signal", a.signal()).put("pin", a.pin());
      if (!a.was().isEmpty()) {
        one.put("was", a.was());
      }
      one.put("changed", a.changed());
    }
    o.put("kept", m.kept());
    ArrayNode unmet = o.putArray("unmet");
    for (PinMap.Unmet u : m.unmet()) {
      ObjectNode one = unmet.addObject().put("signal", u.signal());
      Json.strings(one, "needs", List.copyOf(u.needs()));
      one.put("why", u.why());
    }
    ArrayNode straps = o.putArray("straps");
    for (PinMap.Strapped s : m.straps()) {
      straps
          .addObject()
          .put("pin", s.pin())
          .put("level", s.level())
          .put("signal", s.signal())
          .put("wrong", s.wrong())
          .put("why", s.why());
    }
    ArrayNode conflicts = o.putArray("conflicts");
    for (PinMap.Conflict c : m.conflicts()) {
      ObjectNode one = conflicts.addObject().put("pin", c.pin());
      Json.strings(one, "signals", c.signals());
      one.put("why", c.why());
    }
    ArrayNode ways = o.putArray("ways");
    m.ways().forEach(w -> ways.addObject().put("way", w.words()).put("cost", w.cost()));
    Json.strings(o, "changes", m.changes());
    return o;
  }

  private static void text(PrintWriter out, PinMap m, int signals) {
    out.println(
        m.assignments().size()
            + " of "
            + signals
            + " signals have a pin, "
            + m.kept()
            + " stay where they were");
    for (PinMap.Assignment a : m.assignments()) {
      out.printf(
          "  %-16s %-8s %s%n",
          a.signal(),
          a.pin(),
          !a.changed() ? "as it was" : a.was().isEmpty() ? "" : "was " + a.was());
    }
    m.unmet().forEach(u -> out.println("no pin for " + u.signal() + ": " + u.why()));
    m.straps()
        .forEach(s ->
            out.println(
                (s.wrong() ? "WRONG AT RESET " : "strap ")
                    + s.pin()
                    + " carries "
                    + s.signal()
                    + ": "
                    + s.why()));
    m.conflicts()
        .forEach(c -> out.println("conflict: " + String.join(", ", c.signals()) + ": " + c.why()));
    if (!m.ways().isEmpty()) {
      out.println("ways out, the cheapest first:");
      m.ways().forEach(w -> out.println("  " + w.words()));
    }
    if (!m.changes().isEmpty()) {
      out.println("changes of the code:");
      m.changes().forEach(c -> out.println("  " + c));
    }
  }
}
