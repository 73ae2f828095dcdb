package ell.cli.book;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.WorkspaceCommand;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.quantity.Verdict;
import ell.work.Workshop;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// Logs a line as on the tape.
@Command(
    name = "log",
    description = "log a line: PLACE WHAT, or note TEXT, step N, gate G holds, ...")
public final class LogCommand extends WorkspaceCommand {
  @Option(names = "--board", required = true, description = "serial of the board")
  String board;

  @Parameters(index = "1..*", arity = "1..*", paramLabel = "LINE")
  List<String> words;

  @Override
  public Integer call() throws Exception {
    try (Workshop w = open()) {
      List<Entry> said = w.meant(board, String.join(" ", words));
      shown(w.log(board, said).orThrow(), said.getLast());
      return Exit.DONE;
    }
  }

  /// @param said the last entry that the line itself stands for; an act may bring others with it
  private void shown(List<Logged> logged, Entry said) {
    Logged last =
        logged.reversed().stream()
            .filter(l -> l.entry().getClass() == said.getClass())
            .findFirst()
            .orElse(logged.getLast());
    Optional<Verdict> verdict =
        switch (last.entry()) {
          case Entry.Reading r -> r.verdict();
          case Entry.Check c -> Optional.of(c.verdict());
          default -> Optional.empty();
        };
    if (json) {
      ObjectNode o = Json.object();
      o.set("entry", Json.entry(last));
      verdict.ifPresent(v -> o.put("verdict", v.key()));
      if (last.entry() instanceof Entry.Reading r && !EntryWords.settling(r).isEmpty()) {
        o.put("settling", EntryWords.settling(r));
      }
      if (logged.size() > 1) {
        ArrayNode all = o.putArray("entries");
        logged.forEach(l -> all.add(Json.entry(l)));
      }
      print(o);
      return;
    }
    for (Logged l : logged) {
      String limits =
          l.entry() instanceof Entry.Reading r
              ? r.limits().map(x -> " (" + Json.limits(x, r.unit()) + ")").orElse("")
              : "";
      out()
          .println(
              "entry " + l.number() + " · " + board + " · " + EntryWords.of(l.entry()) + limits);
      if (l.entry() instanceof Entry.Reading r && !EntryWords.settling(r).isEmpty()) {
        out().println("  " + EntryWords.settling(r));
      }
    }
  }
}
