package ell.cli.kit;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.SheetText;
import ell.cli.shell.Which;
import ell.cli.shell.WorkspaceCommand;
import ell.core.kit.substitute.Substitution;
import ell.core.quantity.Verdict;
import ell.work.Workshop;
import ell.work.kit.Substituting;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// May this part be fitted instead.
@Command(
    name = "substitute",
    description = "may this part be fitted instead: parameter by parameter, against the circuit")
public final class SubstituteCommand extends WorkspaceCommand {
  @Mixin Which which;

  @Parameters(index = "1", paramLabel = "PART", description = "a reference or a code")
  String part;

  @Parameters(index = "2", paramLabel = "CANDIDATE", description = "a code, or words in quotes")
  String candidate;

  @Parameters(index = "3..*", arity = "0..*", paramLabel = "NAME=VALUE")
  List<String> said = new ArrayList<>();

  @Override
  public Integer call() throws Exception {
    try (Workshop w = look()) {
      List<Substitution> all =
          Substituting.of(w.space(), w.revisions(), which.plan(w), part, candidate, said);
      Substitution worst = all.getFirst();
      if (json) {
        print(shape(worst, all));
      } else {
        SheetText.print(worst.sheet(), out());
        if (all.size() > 1) {
          out()
              .println(
                  "asked of "
                      + String.join(" ", all.stream().map(Substitution::part).toList())
                      + "; shown is the one that it fits least");
        }
        if (worst.verdict() != Verdict.OUT) {
          out()
              .println(
                  "when it is fitted on a board, say so: log --board N \""
                      + worst.part()
                      + " fitted with "
                      + candidate
                      + "\"");
        }
      }
      return worst.verdict() == Verdict.WITHIN ? Exit.DONE : Exit.NOT_HELD;
    }
  }

  private static ObjectNode shape(Substitution s, List<Substitution> all) {
    ObjectNode o =
        Json.object()
            .put("part", s.part())
            .put("code", s.code())
            .put("candidate", s.candidate())
            .put("template", s.template().name().toLowerCase(Locale.ROOT));
    Json.strings(o, "parts", all.stream().map(Substitution::part).toList());
    ArrayNode lines = o.putArray("lines");
    for (Substitution.Line l : s.lines()) {
      ObjectNode one =
          lines
              .addObject()
              .put("parameter", l.need().trait().words())
              .put("need", l.need().text())
              .put("from", l.need().from());
      Json.number(one, "low", l.need().low());
      Json.number(one, "high", l.need().high());
      l.found().ifPresent(f -> one.put("candidate", f));
      one.put("verdict", l.verdict().key());
    }
    return o.put("verdict", s.verdict().key());
  }
}
