package ell.cli.trace;

import ell.bench.Bench;
import ell.bench.instrument.Meter;
import ell.bench.link.BenchException;
import ell.cli.bench.BenchOptions;
import ell.cli.shell.Exit;
import ell.cli.shell.SheetText;
import ell.cli.shell.WorkspaceCommand;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.power.FaultWords;
import ell.core.trace.Choice;
import ell.core.trace.Finding;
import ell.core.trace.Probe;
import ell.core.trace.Suspect;
import ell.core.trace.TraceSheets;
import ell.core.trace.Traced;
import ell.work.Workshop;
import ell.work.space.ActException;
import ell.work.trace.TraceRun;
import ell.work.trace.Traces;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

/// Where the fault of a board is.
@Command(
    name = "trace",
    description =
        "where the fault of a board may be by all that its book says, what to measure next, and the"
            + " finding")
public final class TraceCommand extends WorkspaceCommand {
  private static final int FEW = 12;
  private static final double SHOWN = 5e-4;

  @Option(names = "--board", required = true, description = "serial of the board")
  String board;

  @Option(names = "--all", description = "every measurement that was weighed, with its worth")
  boolean all;

  @Option(
      names = "--prior",
      description =
          "FAULT shows what made its chance before anything was measured; FAULT=0.02 sets it,"
              + " FAULT= takes that back; repeatable")
  List<String> priors = new ArrayList<>();

  @Option(
      names = "--find",
      arity = "0..1",
      fallbackValue = "",
      description = "logs the finding: the one that is likely enough, or the FAULT that you name")
  Optional<String> find = Optional.empty();

  @Option(
      names = "--measure",
      arity = "0..1",
      fallbackValue = "0",
      description =
          "makes the proposed measurement of that number with the instruments, and logs it; when no"
              + " number is said, the first that they can make")
  Optional<Integer> measure = Optional.empty();

  @Mixin BenchOptions bench;

  @Override
  public Integer call() throws Exception {
    if (measure.isPresent()) {
      try (Workshop w = open();
          BenchOptions.Opened b = bench.open(w, Meter.KIND)) {
        measure(w, b.bench(), measure.get());
        show(w);
        return Exit.DONE;
      }
    }
    if (priors.isEmpty() && find.isEmpty()) {
      try (Workshop w = look()) {
        show(w);
        return Exit.DONE;
      }
    }
    try (Workshop w = open()) {
      for (String p : priors) {
        prior(w, p);
      }
      if (find.isPresent()) {
        w.traces().find(board, find.filter(f -> !f.isEmpty())).orThrow();
        show(w);
      }
      return Exit.DONE;
    }
  }

  private void measure(Workshop w, Bench b, int number) throws IOException, ActException {
    List<Choice> next = w.traces().of(board, Traces.ALL).next();
    List<Probe> probes = next.stream().map(Choice::probe).toList();
    try {
      TraceRun run = new TraceRun(w.acts(), w.plan(w.buildOf(board)), board, b);
      if (number == 0) {
        number = 1 + run.first(probes);
        if (number == 0 && !next.isEmpty()) {
          throw new ActException(
              "no instrument of this bench makes any of them: look, and type "
                  + probes.getFirst().line()
                  + " with what you see");
        }
      }
      if (number < 1 || number > next.size()) {
        throw new ActException(
            next.isEmpty()
                ? "nothing is left to measure that would tell more"
                : "measurements are counted from 1 to " + next.size() + ", found " + number);
      }
      List<Logged> all = run.measure(probes.get(number - 1), probes);
      for (Logged l : all) {
        if (!json) {
          out().println("entry " + l.number() + " · " + EntryWords.of(l.entry()));
        }
      }
    } catch (BenchException e) {
      throw new ActException(e.getMessage(), e);
    }
  }

  private void show(Workshop w) throws IOException, ActException {
    Traced t = w.traces().of(board, all ? Traces.ALL : FEW);
    if (json) {
      print(TraceJson.of(board, t));
      return;
    }
    out()
        .printf(
            Locale.ROOT,
            "%s: %.1f bit not known; %s; %.0f %% that the design is the cause%n",
            board,
            t.entropy(),
            t.explained() < 0.02
                ? "what was seen is explained badly"
                : "what was seen is explained",
            100 * t.designChance());
    t.groups().stream()
        .filter(g -> g.chance() >= SHOWN)
        .limit(FEW)
        .forEach(g ->
            out()
                .printf(
                    Locale.ROOT, "%7s  %-28s %s%n", Traced.percent(g.chance()), g.words(), why(g)));
    t.told().forEach(s -> out().println("! " + s));
    t.sister()
        .ifPresent(s -> out().println("board " + s.board() + ", " + s.line() + ": " + s.why()));
    if (t.finding().isPresent()) {
      finding(t.finding().get());
    }
    t.next().stream().limit(all ? Integer.MAX_VALUE : 5).forEach(this::choice);
    out().flush();
  }

  private static String why(Traced.Group g) {
    String why = String.join("; ", g.members().getFirst().why());
    return g.members().size() == 1
        ? why
        : "likeliest " + g.members().getFirst().fault() + (why.isEmpty() ? "" : "; " + why);
  }

  private void choice(Choice c) {
    out()
        .printf(
            Locale.ROOT,
            "next: %-26s %4.2f bit, %4.2f bit a minute: %s%n",
            c.probe().line(),
            c.information(),
            c.worth(),
            c.why());
  }

  private void finding(Finding f) {
    out()
        .printf(
            Locale.ROOT,
            "finding: %s, %s sure, by entries %s%n",
            f.suspect().words(),
            Traced.percent(f.chance()),
            f.evidence());
    f.todo().forEach(s -> out().println("  do: " + s));
    f.again().forEach(s -> out().println("  again: " + s));
  }

  private void prior(Workshop w, String given) throws IOException, ActException {
    int eq = given.lastIndexOf('=');
    String fault = eq < 0 ? given : given.substring(0, eq);
    if (eq >= 0) {
      String value = given.substring(eq + 1).strip();
      Optional<Double> chance = Optional.empty();
      if (!value.isEmpty()) {
        try {
          chance = Optional.of(Double.parseDouble(value));
        } catch (NumberFormatException e) {
          throw new ActException(
              "expected FAULT=CHANCE such as \"open U3.4=0.02\", found '" + given + "'", e);
        }
      }
      w.traces().setPrior(board, fault, chance);
    }
    String words;
    try {
      words = FaultWords.words(FaultWords.parse(fault));
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
    Suspect s =
        w.traces().suspects(board).stream()
            .filter(x -> x.words().equals(words))
            .findFirst()
            .orElseThrow(
                () -> new ActException("'" + words + "' is none of the faults that are weighed"));
    if (json) {
      print(TraceJson.prior(s));
    } else {
      SheetText.print(TraceSheets.prior(s), out());
      out().flush();
    }
  }
}
