package ell.cli;

import ell.cli.beep.BeepCommand;
import ell.cli.bench.BenchSimCommand;
import ell.cli.book.BackupCommand;
import ell.cli.book.ExportCommand;
import ell.cli.book.LogCommand;
import ell.cli.book.NewCommand;
import ell.cli.book.ReportCommand;
import ell.cli.book.RestoreCommand;
import ell.cli.book.ShowCommand;
import ell.cli.book.VerifyCommand;
import ell.cli.book.WordsCommand;
import ell.cli.bring.BuildCommand;
import ell.cli.bring.ImportCommand;
import ell.cli.bring.PackagesCommand;
import ell.cli.calc.CalcCommand;
import ell.cli.demo.DemoWorkspaceCommand;
import ell.cli.heat.HeatCommand;
import ell.cli.heat.ProfileCommand;
import ell.cli.kit.BuyCommand;
import ell.cli.kit.KitCommand;
import ell.cli.kit.ShelfCommand;
import ell.cli.kit.SubstituteCommand;
import ell.cli.look.LookCommand;
import ell.cli.look.PhotoCommand;
import ell.cli.order.OrderCommand;
import ell.cli.power.LadderCommand;
import ell.cli.power.PowerCommand;
import ell.cli.print.JarCommand;
import ell.cli.print.StencilCommand;
import ell.cli.shell.Exit;
import ell.core.sheet.SheetProblem;
import ell.work.space.ActException;
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
      WordsCommand.class,
      ShowCommand.class,
      VerifyCommand.class,
      ReportCommand.class,
      ExportCommand.class,
      RestoreCommand.class,
      BackupCommand.class,
      BenchSimCommand.class,
      DemoWorkspaceCommand.class
    })
public final class Main {
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
      return Exit.BAD_INPUT;
    });
    if (args.length == 0) {
      line.usage(to);
      return Exit.DONE;
    }
    int code = line.execute(args);
    to.flush();
    problems.flush();
    return code;
  }

  private static int failed(Exception e, PrintWriter problems) {
    if (e instanceof ActException || e instanceof IOException || e instanceof SheetProblem) {
      problems.println("ell: " + e.getMessage());
      return Exit.BAD_INPUT;
    }
    problems.println("ell: this should not have happened: " + e);
    e.printStackTrace(problems);
    return Exit.BROKEN;
  }

  /// `--help` on every command.
  @Command
  static final class HelpOption {
    @CommandLine.Option(names = "--help", usageHelp = true, description = "show this help")
    boolean help;
  }
}
