package ell.cli.power;

import ell.bench.instrument.Supply;
import ell.book.Build;
import ell.cli.bench.BenchOptions;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.SheetText;
import ell.cli.shell.Which;
import ell.cli.shell.WorkspaceCommand;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.power.BatteryLife;
import ell.core.power.BeforePower;
import ell.core.power.Ladder;
import ell.core.power.LadderBands;
import ell.core.power.LadderFinding;
import ell.core.power.LadderState;
import ell.core.power.PowerFacts;
import ell.core.power.PowerHints;
import ell.core.power.PowerPlan;
import ell.core.power.RailSpread;
import ell.core.power.WarmParts;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.rack.Plan;
import ell.work.Workshop;
import ell.work.act.Refusal;
import ell.work.power.HelperWords;
import ell.work.power.PowerRun;
import ell.work.power.Rehearsal;
import ell.work.power.SupplyOff;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ObjectNode;

/// The power ladder in a state; with `--go`, first power of a board on a bench.
@Command(
    name = "power",
    description = "the power ladder in a state; with --go, first power of a board on a bench")
public final class PowerCommand extends WorkspaceCommand {
  @Mixin Which which;
  @Mixin BenchOptions bench;

  @Option(names = "--state", description = "off, boot, idle, active or worst")
  String state = "boot";

  @Option(names = "--board", description = "serial of the board, with --go")
  Optional<String> board = Optional.empty();

  @Option(names = "--go", description = "switch on: stage by stage, then read the rails, then off")
  boolean go;

  @Option(names = "--off", description = "switch the supply off for a board that may be on")
  boolean off;

  @Option(
      names = "--dry",
      description = "print what --go would send to the supply; nothing is switched on")
  boolean dry;

  @Option(
      names = "--so",
      description = "with --go, what must be so before first power is so: you looked")
  boolean so;

  @Option(
      names = "--helper",
      paramLabel = "NAME",
      description = "with --go, a helper is at the bench, and is told one word and what to do")
  Optional<String> helper = Optional.empty();

  @Option(
      names = "--boards",
      description = "each rail over all boards of the build: who is out, who stands apart")
  boolean boards;

  @Option(
      names = "--bands",
      description = "volts and current of every rail with parts anywhere in their tolerances")
  boolean bands;

  @Option(
      names = "--battery",
      paramLabel = "CHARGE",
      description = "how long a cell of so much usable charge lasts, such as 100mAh; with --duty")
  Optional<String> battery = Optional.empty();

  @Option(
      names = "--duty",
      split = ",",
      paramLabel = "STATE=SHARE",
      description = "with --battery, the shares of the time, such as active=0.02,idle=0.98")
  Map<String, Double> duty = new LinkedHashMap<>();

  @Option(
      names = "--from",
      paramLabel = "RAIL",
      description = "with --battery, where the cell feeds; the first source when not said")
  Optional<String> from = Optional.empty();

  @Override
  public Integer call() throws Exception {
    int asked =
        (go ? 1 : 0)
            + (off ? 1 : 0)
            + (dry ? 1 : 0)
            + (boards ? 1 : 0)
            + (bands ? 1 : 0)
            + (battery.isPresent() ? 1 : 0);
    if (asked > 1) {
      throw new ActException("one of --go, --off, --dry, --boards, --bands and --battery");
    }
    if (battery.isEmpty() && (!duty.isEmpty() || from.isPresent())) {
      throw new ActException("--duty and --from go with --battery");
    }
    if (!go && (so || helper.isPresent())) {
      throw new ActException("--so and --helper go with --go");
    }
    if (battery.isPresent()) {
      return lasts();
    }
    if (boards) {
      return compared();
    }
    if (bands) {
      return banded();
    }
    return dry ? rehearse() : go ? run() : off ? switchOff() : show();
  }

  private int compared() throws Exception {
    try (Workshop w = look()) {
      Build build =
          board.isPresent()
              ? w.buildOf(board.get())
              : which.build(w).orElseThrow(() -> new ActException("there is no build yet"));
      Map<String, PowerFacts> facts = new LinkedHashMap<>();
      for (String b : build.boards()) {
        facts.put(b, PowerFacts.of(w.state(b)));
      }
      List<RailSpread> all = RailSpread.of(w.plan(build).ladder(), facts);
      return new PowerAnswers(out(), json).compared(build.boards().size(), all);
    }
  }

  private int banded() throws Exception {
    try (Workshop w = look()) {
      Plan plan = board.isPresent() ? w.plan(w.buildOf(board.get())) : which.plan(w);
      try {
        return new PowerAnswers(out(), json)
            .banded(plan.ladder(), state, LadderBands.of(plan.ladder(), state));
      } catch (IllegalArgumentException e) {
        throw new ActException(e.getMessage(), e);
      }
    }
  }

  private int lasts() throws Exception {
    try (Workshop w = look()) {
      Ladder ladder = which.plan(w).ladder();
      String rail =
          from.orElseGet(
              () -> ladder.sources().isEmpty() ? "" : ladder.sources().getFirst().rail());
      BatteryLife life;
      try {
        life =
            BatteryLife.of(
                ladder, rail, EngineeringNumber.parse(battery.get(), Unit.COULOMB), duty);
      } catch (IllegalArgumentException e) {
        throw new ActException(e.getMessage(), e);
      }
      return new PowerAnswers(out(), json).lasts(life);
    }
  }

  private int rehearse() throws Exception {
    try (Workshop w = look()) {
      Plan plan = board.isPresent() ? w.plan(w.buildOf(board.get())) : which.plan(w);
      Optional<String> unsaid = PowerPlan.unsaid(plan.ladder());
      if (unsaid.isPresent()) {
        throw new ActException(unsaid.get());
      }
      PowerPlan steps =
          PowerPlan.of(plan.revision(), plan.ladder(), "boot")
              .orElseThrow(() ->
                  new ActException(
                      "the power ladder has no source: say where power comes in, in the ladder"));
      Optional<Refusal> no =
          board.isPresent() ? PowerRun.refusal(w.acts(), board.get()) : Optional.empty();
      List<String> before =
          board.isPresent()
              ? before(plan, w.state(board.get()))
              : before(plan, BoardState.of("", List.of()));
      List<Rehearsal.Part> parts = Rehearsal.of(steps, bench.dialect(Supply.KIND));
      return new RehearsalText(out(), json).print(steps, before, no, parts);
    }
  }

  /// What gets warm is felt, or said where nobody feels it.
  private void warm(PowerRun run, Ladder ladder) throws IOException {
    for (WarmParts.Warm p : WarmParts.of(ladder, "worst")) {
      if (run.feel(p.part()).isEmpty() && !json && p.limits().isPresent()) {
        out()
            .println(
                "feel "
                    + p.part()
                    + ": not above "
                    + Json.print(p.limits().get().high(), Unit.CELSIUS)
                    + "; log it: "
                    + p.part()
                    + " 30 °C");
      }
    }
  }

  private static List<String> before(Plan plan, BoardState state) {
    return BeforePower.of(plan.revision(), plan.ladder(), state).stream()
        .map(BeforePower.Item::words)
        .toList();
  }

  private int switchOff() throws Exception {
    String serial = board.orElseThrow(() -> new ActException("which board? say --board B"));
    try (Workshop w = open();
        BenchOptions.Opened b = bench.open(w, Supply.KIND)) {
      w.buildOf(serial);
      Logged l =
          SupplyOff.now(w.acts(), serial, b.bench(), w.plan(w.buildOf(serial)).ladder().outputs());
      if (json) {
        print(Json.object().set("entry", Json.entry(l)));
      } else {
        out().println("entry " + l.number() + " · " + EntryWords.of(l.entry()));
      }
      return ((Entry.Supply) l.entry()).mayBeOn() ? Exit.NOT_HELD : Exit.DONE;
    }
  }

  private int show() throws Exception {
    try (Workshop w = look()) {
      Plan plan = board.isPresent() ? w.plan(w.buildOf(board.get())) : which.plan(w);
      LadderState s;
      try {
        s = LadderState.of(plan.ladder(), state);
      } catch (IllegalArgumentException e) {
        throw new ActException(e.getMessage(), e);
      }
      if (json) {
        print(LadderJson.of(plan.ladder(), s));
        return Exit.DONE;
      }
      for (LadderState.RailLoad r : s.rails()) {
        out()
            .printf(
                "%-10s %9s  %9s  %s  at %s%n",
                r.rail().net(),
                Json.print(r.rail().volts(), Unit.VOLT),
                Json.print(r.current(), Unit.AMPERE),
                Json.limits(
                    new ell.core.quantity.Limits(r.rail().low(), r.rail().high()), Unit.VOLT),
                r.rail().readAt()
                    + (r.rail().guessed()
                        ? "  guessed; say it: ladder WS --rail " + r.rail().net() + "=VOLTS"
                        : ""));
      }
      for (LadderState.RegulatorHeat r : s.regulators()) {
        out()
            .printf(
                "%-10s %9s  junction %s  headroom %s, at the lowest input %s%n",
                r.step().part(),
                Json.print(r.dissipation(), Unit.WATT),
                Json.print(r.junction(), Unit.CELSIUS),
                Json.print(r.headroom(), Unit.VOLT),
                Json.print(r.headroomLow(), Unit.VOLT));
      }
      for (LadderFinding f : s.findings(plan.ladder())) {
        out().println((f.asks() ? "is it so? " : "mind: ") + f.text());
      }
      SheetText.print(s.sheet(), out());
    }
    return Exit.DONE;
  }

  /// Who is there, and what they looked at.
  private void atTheBench(Workshop w, String serial) throws Exception {
    Plan plan = w.plan(w.buildOf(serial));
    if (helper.isPresent() && told(w, serial).isEmpty()) {
      w.log(serial, List.of(new Entry.Operator(helper.get(), true))).orThrow();
    }
    List<Entry.Stands> all =
        so ? BeforePower.allSo(plan.revision(), plan.ladder(), w.state(serial)) : List.of();
    if (!all.isEmpty()) {
      w.log(serial, all).orThrow();
    }
  }

  private static Optional<HelperWords> told(Workshop w, String serial) throws Exception {
    Plan plan = w.plan(w.buildOf(serial));
    return HelperWords.of(plan.revision(), plan.ladder(), w.state(serial));
  }

  private int run() throws Exception {
    String serial = board.orElseThrow(() -> new ActException("which board? say --board B"));
    try (Workshop w = open();
        BenchOptions.Opened b = bench.open(w, Supply.KIND)) {
      atTheBench(w, serial);
      List<Logged> logged = new ArrayList<>();
      List<String> left = new ArrayList<>();
      String[] ended = {""};
      boolean[] surprise = {false};
      boolean[] unsure = {false};
      PowerRun.Watcher watcher =
          new PowerRun.Watcher() {
            @Override
            public void logged(Logged entry) {
              logged.add(entry);
              if (!json) {
                out().println("entry " + entry.number() + " · " + EntryWords.of(entry.entry()));
              }
            }

            @Override
            public void ended(String why, boolean s, boolean mayBeOn) {
              ended[0] = why;
              surprise[0] = s;
              unsure[0] = mayBeOn;
            }
          };
      try (PowerRun run =
          new PowerRun(w.acts(), w.plan(w.buildOf(serial)), serial, b.bench(), watcher, 40)) {
        if (!json) {
          before(w.plan(w.buildOf(serial)), w.state(serial))
              .forEach(t -> out().println("must be so: " + t));
        }
        Thread safety = new Thread(run::close);
        Runtime.getRuntime().addShutdownHook(safety);
        try {
          if (run.climb()) {
            left.addAll(run.left());
            for (Ladder.RailSpec r : run.rails()) {
              run.read(r);
              run.watch();
            }
            warm(run, w.plan(w.buildOf(serial)).ladder());
            run.off(
                run.reads()
                    ? left.isEmpty() ? "all rails read" : "what was raised is read, not every rail"
                    : "raised as predicted; without a meter no rail was read");
          }
        } finally {
          Runtime.getRuntime().removeShutdownHook(safety);
        }
      }
      long read =
          logged.stream()
              .filter(l -> l.entry() instanceof Entry.Reading r && r.unit() == Unit.VOLT)
              .count();
      boolean held =
          logged.stream()
              .allMatch(l ->
                  switch (l.entry()) {
                    case Entry.Reading r -> r.verdict().orElse(Verdict.WITHIN) == Verdict.WITHIN;
                    case Entry.Supply s -> s.verdict().orElse(Verdict.WITHIN) == Verdict.WITHIN;
                    default -> true;
                  });
      if (json) {
        ObjectNode o =
            Json.object()
                .put("board", serial)
                .put("ended", ended[0])
                .put("surprise", surprise[0])
                .put("mayBeOn", unsure[0])
                .put("railsRead", read)
                .put(
                    "within", held && read >= w.plan(w.buildOf(serial)).ladder().supplied().size());
        Json.strings(o, "left", left);
        Json.strings(
            o,
            "hints",
            PowerHints.of(w.plan(w.buildOf(serial)).ladder(), PowerFacts.of(w.state(serial))));
        told(w, serial)
            .ifPresent(h -> {
              o.put("told", h.word());
              Json.strings(o, "ticket", h.lines());
            });
        var entries = o.putArray("entries");
        logged.forEach(l -> entries.add(Json.entry(l)));
        print(o);
      } else {
        left.forEach(l -> out().println(l));
        PowerHints.of(w.plan(w.buildOf(serial)).ladder(), PowerFacts.of(w.state(serial)))
            .forEach(h -> out().println("points to: " + h));
        out().println(unsure[0] ? ended[0] : "output off: " + ended[0]);
        told(w, serial)
            .ifPresent(h -> {
              out().println();
              out().println("    " + h.word());
              out().println("    " + h.todo());
              h.lines().forEach(t -> out().println("    " + t));
            });
      }
      return held && !surprise[0] ? Exit.DONE : Exit.NOT_HELD;
    }
  }
}
