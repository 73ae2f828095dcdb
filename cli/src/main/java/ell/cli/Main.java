package ell.cli;

import ell.book.BookException;
import ell.book.Place;
import ell.cli.beep.BeepCommand;
import ell.cli.beep.OhmsCommand;
import ell.cli.bench.BenchCheckCommand;
import ell.cli.bench.BenchSimCommand;
import ell.cli.book.BackupCommand;
import ell.cli.book.ExportCommand;
import ell.cli.book.LogCommand;
import ell.cli.book.NewCommand;
import ell.cli.book.ReportCommand;
import ell.cli.book.RescueCommand;
import ell.cli.book.RestoreCommand;
import ell.cli.book.ShowCommand;
import ell.cli.book.VerifyCommand;
import ell.cli.book.WordsCommand;
import ell.cli.bring.BuildCommand;
import ell.cli.bring.ImportCommand;
import ell.cli.bring.PackagesCommand;
import ell.cli.calc.CalcCommand;
import ell.cli.calc.CalcDoor;
import ell.cli.demo.DemoWorkspaceCommand;
import ell.cli.heat.HeatCommand;
import ell.cli.heat.ProfileCommand;
import ell.cli.jig.JigCommand;
import ell.cli.kit.BuyCommand;
import ell.cli.kit.KitCommand;
import ell.cli.kit.ShelfCommand;
import ell.cli.kit.SubstituteCommand;
import ell.cli.look.LookCommand;
import ell.cli.look.PhotoCommand;
import ell.cli.order.OrderCommand;
import ell.cli.power.ChargeCommand;
import ell.cli.power.LadderCommand;
import ell.cli.power.PowerCommand;
import ell.cli.practice.PracticeCommand;
import ell.cli.print.JarCommand;
import ell.cli.print.StencilCommand;
import ell.cli.prove.ProveCommand;
import ell.cli.pulse.CaptureCommand;
import ell.cli.pulse.LineCommand;
import ell.cli.pulse.PulseCommand;
import ell.cli.pulse.ScopeCommand;
import ell.cli.pulse.WaveCommand;
import ell.cli.revise.DiffCommand;
import ell.cli.revise.ReviseCommand;
import ell.cli.share.BookServerCommand;
import ell.cli.share.HandCommand;
import ell.cli.share.MoveCommand;
import ell.cli.share.OutboxCommand;
import ell.cli.share.PeopleCommand;
import ell.cli.share.ShareCommand;
import ell.cli.shell.Exit;
import ell.cli.shell.Visible;
import ell.cli.talk.ChainCommand;
import ell.cli.talk.LinksCommand;
import ell.cli.talk.PinsCommand;
import ell.cli.talk.TalkCommand;
import ell.cli.trace.TraceCommand;
import ell.core.sheet.SheetProblem;
import ell.work.space.ActException;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.PrintStream;
import java.io.PrintWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import picocli.CommandLine;
import picocli.CommandLine.Command;

/// The door of the command line.
@Command(
    name = "ell",
    description = "A workbench for turning fabricated circuit boards into boards that work.")
public final class Main {
  /// Every command, a line each: made only when it is asked for.
  private static final Map<String, Supplier<Object>> COMMANDS = commands();

  private Main() {}

  private static Map<String, Supplier<Object>> commands() {
    Map<String, Supplier<Object>> all = new LinkedHashMap<>();
    all.put("calc", CalcCommand::new);
    all.put("new", NewCommand::new);
    all.put("import", ImportCommand::new);
    all.put("build", BuildCommand::new);
    all.put("kit", KitCommand::new);
    all.put("buy", BuyCommand::new);
    all.put("shelf", ShelfCommand::new);
    all.put("substitute", SubstituteCommand::new);
    all.put("order", OrderCommand::new);
    all.put("packages", PackagesCommand::new);
    all.put("stencil", StencilCommand::new);
    all.put("jar", JarCommand::new);
    all.put("heat", HeatCommand::new);
    all.put("profile", ProfileCommand::new);
    all.put("look", LookCommand::new);
    all.put("photo", PhotoCommand::new);
    all.put("beep", BeepCommand::new);
    all.put("ohms", OhmsCommand::new);
    all.put("power", PowerCommand::new);
    all.put("charge", ChargeCommand::new);
    all.put("wave", WaveCommand::new);
    all.put("capture", CaptureCommand::new);
    all.put("scope", ScopeCommand::new);
    all.put("pulse", PulseCommand::new);
    all.put("line", LineCommand::new);
    all.put("pins", PinsCommand::new);
    all.put("links", LinksCommand::new);
    all.put("talk", TalkCommand::new);
    all.put("chain", ChainCommand::new);
    all.put("trace", TraceCommand::new);
    all.put("jig", JigCommand::new);
    all.put("prove", ProveCommand::new);
    all.put("revise", ReviseCommand::new);
    all.put("diff", DiffCommand::new);
    all.put("ladder", LadderCommand::new);
    all.put("log", LogCommand::new);
    all.put("words", WordsCommand::new);
    all.put("show", ShowCommand::new);
    all.put("verify", VerifyCommand::new);
    all.put("report", ReportCommand::new);
    all.put("export", ExportCommand::new);
    all.put("restore", RestoreCommand::new);
    all.put("rescue", RescueCommand::new);
    all.put("backup", BackupCommand::new);
    all.put("move", MoveCommand::new);
    all.put("share", ShareCommand::new);
    all.put("hand", HandCommand::new);
    all.put("outbox", OutboxCommand::new);
    all.put("people", PeopleCommand::new);
    all.put("book-server", BookServerCommand::new);
    all.put("bench-sim", BenchSimCommand::new);
    all.put("bench-check", BenchCheckCommand::new);
    all.put("practice", PracticeCommand::new);
    all.put("demo-workspace", DemoWorkspaceCommand::new);
    return all;
  }

  /// Runs one command and ends the program with its exit code.
  public static void main(String[] args) {
    if (args.length > 0 && args[0].equals("--train")) {
      train(args.length > 1 ? Optional.of(args[1]) : Optional.empty());
      return;
    }
    int code = run(System.out, System.err, args);
    // leaving by the front is quicker than asking to leave; what may have left threads has to ask
    if (code != Exit.DONE || args.length == 0 || !args[0].equals("calc")) {
      System.exit(code);
    }
  }

  /// Runs one command.
  ///
  /// @return the exit code
  public static int run(PrintStream out, PrintStream err, String... args) {
    PrintWriter to = shown(out);
    PrintWriter problems = shown(err);
    int code;
    try {
      code =
          args.length > 0 && args[0].equals("calc") && CalcDoor.plain(to, args)
              ? Exit.DONE
              : parsed(to, problems, args);
    } catch (SheetProblem e) {
      code = failed(e, problems);
    }
    to.flush();
    problems.flush();
    return code;
  }

  private static PrintWriter shown(PrintStream to) {
    return new PrintWriter(
        new Visible(new BufferedWriter(new OutputStreamWriter(to, StandardCharsets.UTF_8))), true);
  }

  /// Only the command that is meant is put together: reading what the thirty others can do takes
  /// longer than most of them run.
  private static int parsed(PrintWriter to, PrintWriter problems, String... args) {
    Supplier<Object> one = args.length == 0 ? null : COMMANDS.get(args[0]);
    CommandLine line;
    String[] rest = args;
    if (one == null) {
      line = new CommandLine(new Main());
      COMMANDS.forEach((name, c) -> line.addSubcommand(name, helped(new CommandLine(c.get()))));
    } else {
      line = new CommandLine(one.get()).setCommandName("ell " + args[0]);
      rest = Arrays.copyOfRange(args, 1, args.length);
    }
    helped(line)
        .setOut(to)
        .setErr(problems)
        .setUsageHelpAutoWidth(false)
        .setExpandAtFiles(false)
        .setUnmatchedOptionsArePositionalParams(false)
        .setExecutionExceptionHandler((e, _, _) -> failed(e, problems))
        .setParameterExceptionHandler((e, _) -> {
          problems.println("ell: " + e.getMessage());
          String name = e.getCommandLine().getCommandName();
          problems.println(
              name.equals("ell")
                  ? "commands are: " + String.join(", ", COMMANDS.keySet())
                  : "see: " + name + " --help");
          return Exit.BAD_INPUT;
        });
    if (args.length == 0) {
      line.usage(to);
      return Exit.DONE;
    }
    return line.execute(rest);
  }

  private static CommandLine helped(CommandLine line) {
    return line.addMixin("help", new HelpOption()).registerConverter(Place.class, Main::place);
  }

  private static Place place(String typed) {
    try {
      return Place.of(typed);
    } catch (BookException e) {
      throw new CommandLine.TypeConversionException(e.getMessage());
    }
  }

  private static final String[][] SUMS = {
    {"calc"},
    {"calc", "--json"},
    {"calc", "power.trace-width", "current=1A", "rise=10"},
    {"calc", "power.trace-width", "current=1A", "rise=10", "--json"},
  };

  /// Runs what makers run most, to nowhere, so that the start-up cache holds it.
  ///
  /// @param file of a workspace with a build; without it only sums are run
  static void train(Optional<String> file) {
    List<String[]> lines = new ArrayList<>(List.of(SUMS));
    file.ifPresent(f -> lines.addAll(overWorkspace(f)));
    PrintStream nowhere = new PrintStream(OutputStream.nullOutputStream());
    for (String[] line : lines) {
      run(nowhere, nowhere, line);
    }
  }

  private static List<String[]> overWorkspace(String file) {
    return List.of(
        new String[] {"show", file},
        new String[] {"show", file, "--json"},
        new String[] {"show", file, "--board", "07", "--json"},
        new String[] {"log", file, "--board", "07", "note trained", "--json"},
        new String[] {"kit", file, "--json"},
        new String[] {"order", file, "--json"},
        new String[] {"beep", file, "--json"},
        new String[] {"power", file, "--json"},
        new String[] {"heat", file, "--board", "07", "--json"},
        new String[] {"verify", file},
        new String[] {"words"},
        new String[] {"--help"});
  }

  private static int failed(Exception e, PrintWriter problems) {
    if (e instanceof UncheckedIOException u) {
      return failed(u.getCause(), problems);
    }
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
