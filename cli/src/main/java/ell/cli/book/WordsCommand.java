package ell.cli.book;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.JsonText;
import ell.work.Stages;
import ell.work.tape.Verb;
import ell.work.tape.VerbTable;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// What the tape understands, from the lists of verbs.
@Command(name = "words", description = "what the tape and 'log' understand, a line each")
public final class WordsCommand implements Callable<Integer> {
  @Option(names = "--json", description = "one JSON object on standard output")
  boolean json;

  @Option(names = "--table", description = "as the table of the page on the book")
  boolean table;

  @Spec CommandSpec spec;

  @Override
  public Integer call() {
    var out = spec.commandLine().getOut();
    List<Verb> verbs = Stages.SHIPPED.verbs();
    if (json) {
      ObjectNode o = Json.object();
      ArrayNode all = o.putArray("words");
      for (Verb v : verbs) {
        ObjectNode one = all.addObject().put("line", v.grammar()).put("means", v.means());
        v.stage().ifPresent(s -> one.put("stage", s.key()));
        Json.strings(one, "examples", v.examples());
      }
      out.println(JsonText.of(o));
    } else if (table) {
      out.print(VerbTable.of(verbs));
    } else {
      verbs.forEach(v -> out.printf("%-34s %s%n", v.grammar(), v.means()));
    }
    out.flush();
    return Exit.DONE;
  }
}
