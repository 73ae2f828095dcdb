package ell.cli.shell;

import ell.book.BookException;
import ell.book.Place;
import ell.book.ServerDoor;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.io.Console;
import java.io.PrintWriter;
import java.time.Clock;
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
  @Parameters(
      index = "0",
      paramLabel = "WS",
      description = "the workspace: a file, or postgresql://HOST/DATABASE")
  public Place file;

  @Option(names = "--json", description = "one JSON object on standard output")
  public boolean json;

  @Spec protected CommandSpec spec;

  /// Opens the workspace for writing; what is to be said about that goes to standard error.
  protected Workshop open() throws BookException {
    return told(asking(() -> Workshop.open(file, Clock.systemDefaultZone())));
  }

  /// Opens the workspace to look at it only.
  protected Workshop look() throws BookException {
    return told(asking(() -> Workshop.look(file)));
  }

  private interface Opening {
    Workshop get() throws BookException;
  }

  /// Asks for a password when the server wants one and somebody sits at the terminal.
  private Workshop asking(Opening opening) throws BookException {
    try {
      return opening.get();
    } catch (BookException e) {
      Console c = System.console();
      if (!e.wantsPassword()
          || !(file instanceof Place.OnServer s)
          || c == null
          || !c.isTerminal()) {
        throw e;
      }
      char[] typed = c.readPassword("password for %s: ", s);
      if (typed == null || typed.length == 0) {
        throw e;
      }
      ServerDoor.typed(s, new String(typed));
      return opening.get();
    }
  }

  private Workshop told(Workshop w) {
    w.space().told(note -> err().println("ell: " + note));
    return w;
  }

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
