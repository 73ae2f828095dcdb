package ell.cli.power;

import ell.bench.instrument.Meter;
import ell.cli.bench.BenchOptions;
import ell.cli.shell.Exit;
import ell.cli.shell.Given;
import ell.cli.shell.Json;
import ell.cli.shell.WorkspaceCommand;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.power.ChargeWatch;
import ell.core.power.ChargedCell;
import ell.core.quantity.Unit;
import ell.core.rack.Plan;
import ell.work.Workshop;
import ell.work.act.Refusal;
import ell.work.power.ChargeRun;
import ell.work.space.ActException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ObjectNode;

/// A cell that is being charged, by the readings that the book has of it; with `--every`, read with
/// a meter until it is full.
@Command(
    name = "charge",
    description = "a cell while it charges, by the book; with --every, read with a meter")
public final class ChargeCommand extends WorkspaceCommand {
  private static final double LEAST_SECONDS = 0.05;

  @Mixin BenchOptions bench;

  @Option(names = "--board", required = true, description = "serial of the board")
  String board;

  @Option(
      names = "--cell",
      required = true,
      paramLabel = "PLACE",
      description = "the cell, or the net that it feeds")
  String cell;

  @Option(names = "--capacity", description = "what it holds, such as 500mAh")
  Optional<String> capacity = Optional.empty();

  @Option(names = "--current", description = "what it takes, such as 250mA; in two hours else")
  Optional<String> current = Optional.empty();

  @Option(names = "--full", description = "its volts when full, 4.2V when not said")
  Optional<String> full = Optional.empty();

  @Option(names = "--empty", description = "its volts when empty, 3.0V when not said")
  Optional<String> empty = Optional.empty();

  @Option(names = "--ohms", description = "its resistance, 150mohm when not said")
  Optional<String> ohms = Optional.empty();

  @Option(
      names = "--every",
      paramLabel = "TIME",
      description = "read it so often with the bench's meter, such as 30s, and log it")
  Optional<String> every = Optional.empty();

  @Option(
      names = "--supplied",
      description = "with --every, the bench's supply charges it: its current is the cell's")
  boolean supplied;

  @Option(names = "--looks", description = "with --every, at most so many; until it is full else")
  int looks = Integer.MAX_VALUE;

  @Override
  public Integer call() throws Exception {
    if (every.isEmpty() && (supplied || looks != Integer.MAX_VALUE)) {
      throw new ActException("--supplied and --looks go with --every");
    }
    if (every.isEmpty()) {
      try (Workshop w = look()) {
        ChargedCell c = cell(w.plan(w.buildOf(board)));
        List<ChargeWatch.Sample> samples = ChargeWatch.samples(w.state(board), c.places());
        ChargeWatch watch = ChargeWatch.of(samples, c.expected());
        say(c, watch, samples.size());
        return watch.stop().isEmpty() ? Exit.DONE : Exit.NOT_HELD;
      }
    }
    double seconds = Given.value(every, Unit.SECOND).orElseThrow();
    if (!(seconds >= LEAST_SECONDS && seconds <= 3600) || looks < 1) {
      throw new ActException("--every is in 0.05 s...1 h and --looks above 0");
    }
    try (Workshop w = open();
        BenchOptions.Opened b = bench.open(w, Meter.KIND)) {
      return watch(w, b, seconds);
    }
  }

  private int watch(Workshop w, BenchOptions.Opened b, double seconds) throws Exception {
    Plan plan = w.plan(w.buildOf(board));
    ChargedCell c = cell(plan);
    Optional<Refusal> no = ChargeRun.refusal(w.acts(), plan, board);
    if (no.isPresent()) {
      throw new ActException(no.get().text());
    }
    try (ChargeRun run = new ChargeRun(w.acts(), plan, board, b.bench(), c, supplied)) {
      for (int i = 1; ; i++) {
        ChargeRun.Look look = run.look();
        ChargeWatch watch = look.watch();
        boolean over = !watch.stop().isEmpty() || watch.phase() == ChargeWatch.Phase.END;
        if (!json) {
          out()
              .println(
                  "entry "
                      + look.entry().number()
                      + " · "
                      + EntryWords.of(look.entry().entry())
                      + " · "
                      + watch.phase().words());
          out().flush();
        }
        if (!watch.stop().isEmpty()) {
          Logged l = run.stop(watch.stop().getFirst());
          if (!json) {
            out().println("entry " + l.number() + " · " + EntryWords.of(l.entry()));
          }
        }
        if (over || i >= looks) {
          say(c, watch, i);
          return watch.stop().isEmpty() ? Exit.DONE : Exit.NOT_HELD;
        }
        Thread.sleep((long) (seconds * 1000));
      }
    }
  }

  private ChargedCell cell(Plan plan) throws ActException {
    Map<String, Double> said = new LinkedHashMap<>();
    Given.value(capacity, Unit.COULOMB).ifPresent(v -> said.put("charge", v));
    Given.value(current, Unit.AMPERE).ifPresent(v -> said.put("amps", v));
    Given.value(full, Unit.VOLT).ifPresent(v -> said.put("full", v));
    Given.value(empty, Unit.VOLT).ifPresent(v -> said.put("empty", v));
    Given.value(ohms, Unit.OHM).ifPresent(v -> said.put("ohms", v));
    try {
      return ChargedCell.of(plan.revision(), plan.ladder(), cell, said);
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
  }

  private void say(ChargedCell c, ChargeWatch watch, int samples) {
    if (json) {
      ObjectNode o =
          Json.object()
              .put("board", board)
              .put("cell", c.cell())
              .put("phase", watch.phase().name().toLowerCase(java.util.Locale.ROOT))
              .put("samples", samples);
      watch.share().ifPresent(s -> o.put("share", s));
      watch.left().ifPresent(s -> o.put("left", s));
      Json.strings(o, "stop", watch.stop());
      Json.strings(o, "mind", watch.mind());
      Json.strings(o, "assumptions", c.assumptions());
      print(o);
      return;
    }
    out().println(c.cell() + ": " + watch.words());
    if (samples == 0) {
      out().println("log what your meters show: " + c.cell() + " 3.72, " + c.cell() + " 250mA");
    } else if (watch.share().isEmpty()) {
      out().println("its current would tell how much is in it: " + c.cell() + " 250mA");
    }
    if (!c.assumptions().isEmpty()) {
      out().println("taken: " + String.join(", ", c.assumptions()));
    }
    out()
        .println(
            "Lithium cells: a charger made for them, never unattended, never below 0 °C; the cell's"
                + " data sheet decides.");
  }
}
