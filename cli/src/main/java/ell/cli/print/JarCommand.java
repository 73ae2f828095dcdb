package ell.cli.print;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.SheetText;
import ell.cli.shell.WorkspaceCommand;
import ell.core.entry.Entry;
import ell.core.entry.JarMove;
import ell.core.print.JarClock;
import ell.core.print.JarRules;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// How long jars of paste were warm, open and on the foil; and their moves.
@Command(name = "jar", description = "jars of paste: may they be used, and moves of them")
public final class JarCommand extends WorkspaceCommand {
  @Parameters(index = "1", arity = "0..1", paramLabel = "CODE", description = "one jar, else all")
  Optional<String> code = Optional.empty();

  @Parameters(
      index = "2..*",
      arity = "0..*",
      paramLabel = "MOVE WHY",
      description = "cold, warming, open, foil, closed, tested or discarded, and why")
  List<String> move = new ArrayList<>();

  @Option(
      names = "--rules",
      description = "JSON from its data sheet: {\"warmHours\":4,\"foilHours\":8,\"outHours\":168}")
  Optional<Path> rules = Optional.empty();

  @Override
  public Integer call() throws Exception {
    boolean writes = !move.isEmpty() || rules.isPresent();
    if (writes && code.isEmpty()) {
      throw new ActException("which jar? give its code");
    }
    try (Workshop w = writes ? open() : look()) {
      if (rules.isPresent()) {
        w.printing().setRules(code.get(), Files.readString(rules.get()));
      }
      if (!move.isEmpty()) {
        JarMove m =
            JarMove.of(move.getFirst().toLowerCase(Locale.ROOT))
                .orElseThrow(() ->
                    new ActException(
                        "a jar is "
                            + Arrays.stream(JarMove.values())
                                .map(JarMove::key)
                                .collect(Collectors.joining(", "))
                            + ", found '"
                            + move.getFirst()
                            + "'"));
        w.log(
                "",
                List.of(
                    new Entry.Jar(code.get(), m, String.join(" ", move.subList(1, move.size())))))
            .orThrow();
      }
      List<JarClock> clocks = new ArrayList<>();
      for (JarClock c : w.printing().clocks()) {
        if (code.isEmpty() || code.get().equals(c.jar())) {
          clocks.add(c);
        }
      }
      if (code.isPresent() && clocks.isEmpty()) {
        throw new ActException("there is no jar '" + code.get() + "' on the shelf or in the book");
      }
      shown(w, clocks);
      return clocks.stream().allMatch(c -> c.verdict().compareTo(JarClock.Verdict.TEST) < 0)
          ? Exit.DONE
          : Exit.NOT_HELD;
    }
  }

  private void shown(Workshop w, List<JarClock> clocks) throws Exception {
    if (!json) {
      for (JarClock c : clocks) {
        SheetText.print(c.sheet(w.printing().rules(c.jar()), w.printing().expiry(c.jar())), out());
      }
      if (clocks.isEmpty()) {
        out().println("no jar is on the shelf: add it there with the kind jar");
      }
      return;
    }
    ObjectNode o = Json.object();
    ArrayNode all = o.putArray("jars");
    for (JarClock c : clocks) {
      JarRules r = w.printing().rules(c.jar());
      ObjectNode one = all.addObject().put("jar", c.jar());
      c.state().ifPresent(s -> one.put("state", s.key()));
      one.put("warmed", c.warmed().toSeconds())
          .put("out", c.out().toSeconds())
          .put("outLimit", r.out().toSeconds())
          .put("foil", c.foil().toSeconds())
          .put("foilLimit", r.foil().toSeconds())
          .put("says", c.verdict().words());
      Json.strings(one, "why", c.why());
    }
    print(o);
  }
}
