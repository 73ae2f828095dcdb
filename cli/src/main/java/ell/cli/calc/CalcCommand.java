package ell.cli.calc;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.SheetText;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import ell.core.sheet.SheetProblem;
import ell.core.sheet.Worked;
import ell.work.calc.FileSheets;
import java.io.PrintWriter;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/// Lists the worked sheets, or works one.
@Command(
    name = "calc",
    description = "list the worked sheets, or work one: calc NAME key=value ...")
public final class CalcCommand implements Callable<Integer> {
  @Parameters(index = "0", arity = "0..1", paramLabel = "NAME")
  Optional<String> name = Optional.empty();

  @Parameters(
      index = "1..*",
      paramLabel = "key=value",
      description =
          "values take units and prefixes: 0.12mm, 4k7, 6.6ns; a bare number is in the stated unit")
  List<String> given = List.of();

  @Option(names = "--json", description = "one JSON object on standard output")
  boolean json;

  @Spec CommandSpec spec;

  @Override
  public Integer call() {
    PrintWriter out = spec.commandLine().getOut();
    if (name.isEmpty()) {
      if (json) {
        out.println(Json.catalogue(FileSheets.sheets()).toPrettyString());
      } else {
        FileSheets.sheets().forEach(s -> list(out, s));
      }
      return Exit.DONE;
    }
    Worked w = FileSheets.work(name.get(), pairs());
    if (json) {
      out.println(Json.worked(w).toPrettyString());
    } else {
      SheetText.print(w, out);
    }
    return Exit.DONE;
  }

  private Map<String, String> pairs() {
    Map<String, String> pairs = new LinkedHashMap<>();
    for (String g : given) {
      int eq = g.indexOf('=');
      if (eq < 1) {
        throw new SheetProblem("expected key=value, found '" + g + "'");
      }
      if (pairs.put(g.substring(0, eq), g.substring(eq + 1)) != null) {
        throw new SheetProblem("'" + g.substring(0, eq) + "' is given twice");
      }
    }
    return pairs;
  }

  private static void list(PrintWriter out, Sheet s) {
    out.println(s.name() + "  " + s.title());
    for (Input i : s.inputs()) {
      out.println(
          "    "
              + i.right()
              + i.byDefault().map(d -> " (" + d + " when not said)").orElse("")
              + (i.optional() ? " (may be left out)" : ""));
    }
    out.println(
        "    gives "
            + s.results().stream()
                .map(r -> r.name() + (r.unit().isEmpty() ? "" : " in " + r.unit()))
                .collect(Collectors.joining(", ")));
  }
}
