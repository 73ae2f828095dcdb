package ell.cli.book;

import ell.book.Build;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.WorkspaceCommand;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.power.PowerFacts;
import ell.core.rack.Plan;
import ell.core.rack.Standing;
import ell.core.talk.Link;
import ell.core.talk.TalkFacts;
import ell.work.Workshop;
import ell.work.power.LeftOn;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// Where boards stand.
@Command(name = "show", description = "where the boards stand, or one board with --board")
public final class ShowCommand extends WorkspaceCommand {
  @Option(names = "--board", description = "serial of the board")
  Optional<String> board = Optional.empty();

  @Option(names = "--log", description = "with --board, the board's entries too")
  boolean log;

  private List<LeftOn> left = List.of();

  @Override
  public Integer call() throws Exception {
    try (Workshop w = look()) {
      left = LeftOn.of(w.space());
      if (!json) {
        left.forEach(l -> out().println(l.words()));
      }
      if (board.isPresent()) {
        one(w, board.get());
      } else {
        all(w);
      }
    }
    return Exit.DONE;
  }

  private void one(Workshop w, String serial) throws Exception {
    Plan plan = w.plan(w.buildOf(serial));
    BoardState s = w.state(serial);
    Standing standing = Standing.of(s, plan);
    if (json) {
      ObjectNode o = BoardJson.of(s, standing);
      talk(o, plan, TalkFacts.of(s));
      leftOn(o);
      if (log) {
        ArrayNode a = o.putArray("log");
        for (Logged l : w.entries(serial)) {
          a.add(Json.entry(l).put("struck", s.struck().contains(l.number())));
        }
      }
      print(o);
      return;
    }
    out()
        .println(
            "board "
                + serial
                + " · "
                + plan.revision().title()
                + " · "
                + standing.stage().title()
                + " · "
                + standing.phrase());
    s.findings()
        .forEach(f -> out().println("  finding " + f.number() + ": " + f.place() + " " + f.what()));
    PowerFacts.of(s)
        .readings()
        .values()
        .forEach(l -> out().println("  " + EntryWords.of((Entry.Reading) l.entry())));
    if (log) {
      for (Logged l : w.entries(serial)) {
        out()
            .printf(
                "%6d %s %s%s%n",
                l.number(),
                l.at(),
                s.struck().contains(l.number()) ? "struck: " : "",
                EntryWords.of(l.entry()));
      }
    }
    out().println("  " + s.entries() + " entries");
  }

  /// How its links stand, what it runs, which number it holds; absent where nothing is known.
  private static void talk(ObjectNode o, Plan plan, TalkFacts facts) {
    Map<String, Boolean> links = facts.stand(plan.talk()).links();
    if (!links.isEmpty()) {
      ArrayNode all = o.putArray("links");
      new TreeMap<>(links)
          .forEach((l, closed) -> all.addObject().put("link", l).put("state", Link.word(closed)));
    }
    facts.firmware().ifPresent(f -> o.put("firmware", f));
    facts.knows().ifPresent(k -> o.put("number", k.serial()));
  }

  private void all(Workshop w) throws Exception {
    ObjectNode o = Json.object();
    ArrayNode boards = o.putArray("boards");
    for (Build b : w.book().builds()) {
      for (String serial : b.boards()) {
        Standing s = w.standing(serial);
        if (json) {
          boards
              .addObject()
              .put("board", serial)
              .put("build", b.id())
              .put("design", b.design())
              .put("revision", b.revision())
              .put("stage", s.stage().key())
              .put("state", s.phrase())
              .put("progress", s.progress());
        } else {
          out()
              .printf(
                  "%-8s %-14s %-7s %s%n",
                  serial, b.design() + " rev " + b.revision(), s.stage().title(), s.phrase());
        }
      }
    }
    if (json) {
      leftOn(o);
      print(o);
    }
  }

  /// Boards whose output may be on; absent when there is none.
  private void leftOn(ObjectNode o) {
    if (!left.isEmpty()) {
      ArrayNode all = o.putArray("mayBeOn");
      left.forEach(l ->
          all.addObject()
              .put("board", l.board())
              .put("entry", l.entry().number())
              .put("words", l.words()));
    }
  }
}
