package ell.cli;

import ell.core.sheet.SheetProblem;
import ell.work.ActException;
import java.io.IOException;
import java.io.PrintStream;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import picocli.CommandLine;
import picocli.CommandLine.Command;

/// The door of the command line.
@Command(
    name = "ell",
    description = "A workbench for turning fabricated circuit boards into boards that work.",
    subcommands = {
      CalcCommand.class,
      NewCommand.class,
      ImportCommand.class,
      BuildCommand.class,
      KitCommand.class,
      BuyCommand.class,
      ShelfCommand.class,
      SubstituteCommand.class,
      OrderCommand.class,
      PackagesCommand.class,
      StencilCommand.class,
      JarCommand.class,
      HeatCommand.class,
      ProfileCommand.class,
      LookCommand.class,
      PhotoCommand.class,
      BeepCommand.class,
      PowerCommand.class,
      LadderCommand.class,
      LogCommand.class,
      ShowCommand.class,
      VerifyCommand.class,
      ReportCommand.class,
      ExportCommand.class,
      BackupCommand.class,
      BenchSimCommand.class,
      DemoWorkspaceCommand.class
    })
public final class Main {
  /// Done, and every check that was asked for holds.
  static final int DONE = 0;

  /// Done, but a check did not hold.
  static final int NOT_HELD = 1;

  /// Bad input; nothing was changed.
  static final int BAD_INPUT = 2;

  private Main() {}

  /// Runs one command and ends the program with its exit code.
  public static void main(String[] args) {
    System.exit(run(System.out, System.err, args));
  }

  /// Runs one command.
  ///
  /// @return the exit code
  public static int run(PrintStream out, PrintStream err, String... args) {
    PrintWriter to = new PrintWriter(out, true, StandardCharsets.UTF_8);
    PrintWriter problems = new PrintWriter(err, true, StandardCharsets.UTF_8);
    CommandLine line =
        new CommandLine(new Main())
            .setOut(to)
            .setErr(problems)
            .setUsageHelpAutoWidth(false)
            .setExpandAtFiles(false)
            .setUnmatchedOptionsArePositionalParams(false);
    line.getSubcommands().values().forEach(c -> c.addMixin("help", new HelpOption()));
    line.addMixin("help", new HelpOption());
    line.setExecutionExceptionHandler((e, _, _) -> failed(e, problems));
    line.setParameterExceptionHandler((e, _) -> {
      problems.println("ell: " + e.getMessage());
      String name = e.getCommandLine().getCommandName();
      problems.println(
          name.equals("ell")
              ? "commands are: " + String.join(", ", line.getSubcommands().keySet())
              : "see: ell " + name + " --help");
      return BAD_INPUT;
    });
    if (args.length == 0) {
      line.usage(to);
      return DONE;
    }
    int code = line.execute(args);
    to.flush();
    problems.flush();
    return code;
  }

  private static int failed(Exception e, PrintWriter problems) {
    if (e instanceof ActException || e instanceof IOException || e instanceof SheetProblem) {
      problems.println("ell: " + e.getMessage());
      return BAD_INPUT;
    }
    problems.println("ell: this should not have happened: " + e);
    e.printStackTrace(problems);
    return 3;
  }

  /// `--help` on every command.
  @Command
  static final class HelpOption {
    @CommandLine.Option(names = "--help", usageHelp = true, description = "show this help")
    boolean help;
  }
}
