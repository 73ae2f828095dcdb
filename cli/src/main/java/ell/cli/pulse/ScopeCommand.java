package ell.cli.pulse;

import ell.bench.instrument.Hands;
import ell.bench.instrument.Scope;
import ell.bench.link.BenchException;
import ell.cli.bench.BenchOptions;
import ell.cli.shell.Given;
import ell.cli.shell.WorkspaceCommand;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.quantity.Unit;
import ell.core.rack.Plan;
import ell.work.Workshop;
import ell.work.act.Refusal;
import ell.work.power.PowerRun;
import ell.work.pulse.ScopeRun;
import ell.work.space.ActException;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

/// A capture that a scope takes, kept with its board.
@Command(
    name = "scope",
    description = "take a capture of a place with a scope, measure and judge it, and keep it")
public final class ScopeCommand extends WorkspaceCommand {
  private static final int MOST_POINTS = 10_000_000;

  @Mixin BenchOptions bench;

  @Option(names = "--board", required = true, description = "serial of the board")
  String board;

  @Option(names = "--place", required = true, description = "a net, or a joint such as U3.4")
  String place;

  @Option(names = "--span", description = "how long it looks, such as 20us; found when not said")
  Optional<String> span = Optional.empty();

  @Option(
      names = "--range",
      description = "volts from the least to the greatest, such as 8V; found when not said")
  Optional<String> range = Optional.empty();

  @Option(names = "--points", description = "how many samples; 10000 when not said")
  int points;

  @Option(names = "--ac", description = "the mean is taken away before it is sampled")
  boolean ac;

  @Option(
      names = "--power",
      description =
          "the board is powered for it, by its ladder and by the rules of first power; with --sim it"
              + " is where the rules let it, and told where they do not")
  boolean power;

  @Override
  public Integer call() throws Exception {
    ScopeRun.Look look =
        new ScopeRun.Look(
            above(span, Unit.SECOND, "span"), above(range, Unit.VOLT, "range"), points, ac);
    if (points < 0 || points > MOST_POINTS) {
      throw new ActException("--points is in 10..." + MOST_POINTS + ", found " + points);
    }
    try (Workshop w = open();
        BenchOptions.Opened b = bench.open(w, Scope.KIND)) {
      Plan plan = w.plan(w.buildOf(board));
      try {
        plan.pulse().at(place); // before anything is switched on
      } catch (IllegalArgumentException e) {
        throw new ActException(e.getMessage(), e);
      }
      if (power) {
        return powered(w, b, plan, look);
      }
      if (b.own().isPresent()) {
        // nobody else can power the simulated bench of this command
        Optional<Refusal> no = PowerRun.refusal(w.acts(), board);
        if (no.isEmpty()) {
          return powered(w, b, plan, look);
        }
        err().println("board " + board + " is not powered: " + no.get().why());
        try (Hands hands = b.bench().need(Hands.KIND)) {
          hands.lay(board);
        }
      }
      return taken(w, b, plan, look);
    }
  }

  private static double above(Optional<String> text, Unit unit, String what) throws ActException {
    double v = Given.value(text, unit).orElse(0.0);
    if (text.isPresent() && !(v > 0)) {
      throw new ActException("--" + what + " is above 0, found " + text.get());
    }
    return v;
  }

  private int powered(Workshop w, BenchOptions.Opened b, Plan plan, ScopeRun.Look look)
      throws Exception {
    String[] ended = {""};
    PowerRun.Watcher watcher =
        new PowerRun.Watcher() {
          @Override
          public void logged(Logged l) {
            if (!json) {
              out().println("entry " + l.number() + " · " + EntryWords.of(l.entry()));
            }
          }

          @Override
          public void ended(String why, boolean surprise, boolean mayBeOn) {
            ended[0] = why;
          }
        };
    try (PowerRun run = new PowerRun(w.acts(), plan, board, b.bench(), watcher, 40)) {
      Thread safety = new Thread(run::close);
      Runtime.getRuntime().addShutdownHook(safety);
      try {
        if (!run.climb()) {
          throw new ActException("the board was not powered: " + ended[0]);
        }
        int code = taken(w, b, plan, look);
        run.off("captured " + place);
        return code;
      } finally {
        Runtime.getRuntime().removeShutdownHook(safety);
      }
    }
  }

  private int taken(Workshop w, BenchOptions.Opened b, Plan plan, ScopeRun.Look look)
      throws Exception {
    try (ScopeRun run = new ScopeRun(w.captures(), plan.pulse(), board, b.bench())) {
      return new CaptureText(out(), json).print(run.keep(place, look));
    } catch (BenchException e) {
      throw new ActException(e.getMessage(), e);
    }
  }
}
