package ell.cli.look;

import ell.book.Build;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.SheetText;
import ell.cli.shell.Which;
import ell.cli.shell.WorkspaceCommand;
import ell.core.board.Joint;
import ell.core.entry.BoardState;
import ell.core.look.Chart;
import ell.core.look.LookFacts;
import ell.core.look.Rates;
import ell.core.look.Walk;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// How many defects there are, where, and what to look at next.
@Command(name = "look", description = "rates of defects, and the walk of a board joint by joint")
public final class LookCommand extends WorkspaceCommand {
  @Mixin Which which;

  @Option(names = "--board", description = "one board; the build when not said")
  Optional<String> board = Optional.empty();

  @Option(
      names = "--share",
      description =
          "walk only the joints that meet this share of the expected defects, such as 0.8")
  double share = 1;

  @Override
  public Integer call() throws Exception {
    if (!(share > 0 && share <= 1)) {
      throw new ActException("--share is above 0 and at most 1, found " + share);
    }
    try (Workshop w = look()) {
      Build build = board.isPresent() ? w.buildOf(board.get()) : w.build(which.build);
      Rates all = w.looking().rates(build);
      Rates own = board.isPresent() ? w.looking().rates(build, List.of(board.get())) : all;
      Optional<Walk> walk = Optional.empty();
      if (board.isPresent()) {
        walk = Optional.of(w.looking().walk(build, board.get()));
      }
      if (json) {
        ObjectNode o = Json.object();
        board.ifPresent(b -> o.put("board", b));
        shape(o, own);
        if (board.isPresent()) {
          shape(o.putObject("build"), all);
          walk(o, walk.get(), w.state(board.get()));
        }
        print(o);
      } else {
        text(own, all, walk);
      }
    }
    return Exit.DONE;
  }

  private static void shape(ObjectNode o, Rates r) {
    o.put("defects", r.defects()).put("opportunities", r.opportunities());
    if (r.opportunities() > 0) {
      o.put("dpmo", r.dpmo());
    } else {
      o.putNull("dpmo");
    }
    ArrayNode boards = o.putArray("boards");
    for (Rates.Board b : r.boards()) {
      boards
          .addObject()
          .put("board", b.serial())
          .put("defects", b.defects())
          .put("opportunities", b.opportunities());
    }
    ObjectNode by = o.putObject("by");
    for (Rates.Sorting s : Rates.Sorting.values()) {
      List<Rates.Group> groups = r.by().get(s);
      if (groups != null) {
        ArrayNode a = by.putArray(key(s));
        for (Rates.Group g : groups) {
          ObjectNode one = a.addObject().put("name", g.name()).put("defects", g.defects());
          if (g.opportunities() > 0) {
            one.put("opportunities", g.opportunities()).put("dpmo", g.dpmo());
          }
        }
      }
    }
    r.chart().ifPresent(c -> chart(o.putObject("chart"), c, r));
  }

  private static String key(Rates.Sorting s) {
    return switch (s) {
      case PASTE_AGE -> "pasteAge";
      default -> s.name().toLowerCase(Locale.ROOT);
    };
  }

  private static void chart(ObjectNode o, Chart c, Rates r) {
    o.put("centre", c.centre());
    ArrayNode points = o.putArray("points");
    for (int i = 0; i < c.rates().size(); i++) {
      points
          .addObject()
          .put("board", r.boards().get(i).serial())
          .put("rate", c.rates().get(i))
          .put("low", c.lower().get(i))
          .put("high", c.upper().get(i))
          .put("verdict", c.out().contains(i + 1) ? "out" : "within");
    }
  }

  private void walk(ObjectNode o, Walk walk, BoardState state) {
    List<Walk.Stop> stops = share < 1 ? walk.risky(share) : walk.stops();
    ObjectNode out = o.putObject("walk").put("joints", stops.size()).put("of", walk.stops().size());
    out.put("coverage", walk.coverage(stops));
    out.put(
        "good", stops.stream().filter(s -> LookFacts.of(state).sawGood(s.joint().place())).count());
    Json.strings(out, "hidden", walk.hidden().stream().map(Joint::place).toList());
    ArrayNode list = out.putArray("stops");
    for (Walk.Stop s : stops) {
      list.addObject()
          .put("part", s.joint().part())
          .put("pin", s.joint().pin())
          .put("side", s.side().key())
          .put("risk", s.risk())
          .put("good", LookFacts.of(state).sawGood(s.joint().place()));
    }
  }

  private void text(Rates own, Rates all, Optional<Walk> walk) {
    SheetText.print(own.sheet(), out());
    for (Rates.Sorting s : Rates.Sorting.values()) {
      List<Rates.Group> groups = all.by().getOrDefault(s, List.of());
      if (groups.stream().anyMatch(g -> g.defects() > 0)) {
        out().println("by " + s.words() + ", all boards of the build:");
        groups.stream()
            .filter(g -> g.defects() > 0)
            .limit(6)
            .forEach(g ->
                out()
                    .printf(
                        Locale.ROOT,
                        "  %-16s %3d%s%n",
                        g.name(),
                        g.defects(),
                        g.opportunities() > 0
                            ? String.format(
                                Locale.ROOT, " of %d, %.0f DPMO", g.opportunities(), g.dpmo())
                            : ""));
      }
    }
    walk.ifPresent(x -> {
      List<Walk.Stop> stops = share < 1 ? x.risky(share) : x.stops();
      out()
          .printf(
              Locale.ROOT,
              "walk: %d of %d joints meet %.0f %% of the expected defects; %d joints cannot be seen%n",
              stops.size(),
              x.stops().size(),
              100 * x.coverage(stops),
              x.hidden().size());
      String part = "";
      StringBuilder line = new StringBuilder();
      for (Walk.Stop s : stops) {
        if (!s.joint().part().equals(part)) {
          if (!line.isEmpty()) {
            out().println(line);
          }
          part = s.joint().part();
          line = new StringBuilder("  " + s.side().key() + " side  " + part + ":");
        }
        line.append(' ').append(s.joint().pin());
      }
      out().println(line);
    });
  }
}
