package ell.cli.calc;

import ell.cli.shell.Exit;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
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
    CalcDoor.run(spec.commandLine().getOut(), name, given, json);
    return Exit.DONE;
  }
}
