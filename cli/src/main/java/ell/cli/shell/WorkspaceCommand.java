package ell.cli.shell;

import ell.work.space.ActException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.concurrent.Callable;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import tools.jackson.databind.JsonNode;

/// What every command over a workspace has: the file, `--json`, and how results are shown.
public abstract class WorkspaceCommand implements Callable<Integer> {
  @Parameters(index = "0", paramLabel = "WS", description = "the workspace file")
  public Path file;

  @Option(names = "--json", description = "one JSON object on standard output")
  public boolean json;

  @Spec protected CommandSpec spec;

  protected PrintWriter out() {
    return spec.commandLine().getOut();
  }

  protected PrintWriter err() {
    return spec.commandLine().getErr();
  }

  /// A date as it is written on the command line.
  protected static LocalDate date(String text) throws ActException {
    try {
      LocalDate d = LocalDate.parse(text.strip());
      if (d.getYear() < 1990 || d.getYear() > 2200) {
        throw new ActException("a date in 1990 to 2200 is expected, found '" + text + "'");
      }
      return d;
    } catch (DateTimeParseException e) {
      throw new ActException("expected a date such as 2026-12-03, found '" + text + "'", e);
    }
  }

  protected void print(JsonNode shape) {
    out().println(JsonText.of(shape));
    out().flush();
  }
}
