package ell.trials.talk;

import ell.bench.Bench;
import ell.bench.instrument.Hands;
import ell.bench.instrument.Supply;
import ell.bench.line.LineAddress;
import ell.core.entry.Entry;
import ell.core.power.Fault;
import ell.core.power.FaultWords;
import ell.core.power.Ladder;
import ell.core.quantity.Verdict;
import ell.core.rack.Plan;
import ell.core.talk.TalkReasons;
import ell.work.Workshop;
import ell.work.bench.SimulatedBench;
import ell.work.demo.DemoWorkspace;
import ell.work.talk.Scripts;
import ell.work.talk.TalkRun;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;

/// The demo's scripts over the simulated line under every single fault of it.
///
/// @param faults that were tried
/// @param through scripts went through: the fault does not hinder them
/// @param told the true fault is among those that were told
/// @param missed faults where neither is so
public record FaultTrial(int faults, int through, int told, List<String> missed) {
  private static final String BOARD = "01";
  private static final int ABREAST = 6;

  public FaultTrial {
    missed = List.copyOf(missed);
  }

  /// Tries them.
  ///
  /// @param demo the folder with the demo's files
  public static FaultTrial of(Path demo) throws Exception {
    Path made = Files.createTempDirectory("ell-talk").resolve("demo.ell");
    List<Fault> all;
    try (Workshop w = DemoWorkspace.make(made, demo, true)) {
      w.talks().answer("MG-1", "B", "cable", "yes");
      w.type(BOARD, "SJ3 open").orThrow();
      Plan p = w.plan(w.buildOf(BOARD));
      all = List.copyOf(TalkReasons.candidates(p.talk(), p.ladder(), Map.of("SJ3", false)));
    }
    List<Future<String>> runs = new ArrayList<>();
    int through = 0;
    int told = 0;
    List<String> missed = new ArrayList<>();
    try (ExecutorService abreast = Executors.newFixedThreadPool(ABREAST)) {
      for (Fault f : all) {
        runs.add(abreast.submit(() -> outcome(made, demo, f)));
      }
      for (Future<String> r : runs) {
        switch (r.get()) {
          case "through" -> through++;
          case "told" -> told++;
          default -> missed.add(r.get());
        }
      }
    }
    return new FaultTrial(all.size(), through, told, missed);
  }

  private static String outcome(Path made, Path demo, Fault f) throws Exception {
    Path ws = Files.createTempDirectory("ell-talk").resolve("ws.ell");
    Files.copy(made, ws);
    String words = FaultWords.words(f);
    try (Workshop w = Workshop.open(ws, Clock.systemUTC());
        SimulatedBench sim = SimulatedBench.start(w, 1, Map.of(), 20, Map.of(BOARD, List.of(f)))) {
      Bench bench = sim.bench();
      try (Hands hands = bench.need(Hands.KIND)) {
        hands.lay(BOARD);
        hands.rate(115_200);
      }
      Ladder ladder = w.ladder("MG-1", "B");
      try (Supply s = bench.need(Supply.KIND)) {
        s.outputs(ladder.outputs());
        for (Ladder.Source x : ladder.sources()) {
          s.select(ladder.channel(x));
          s.set(x.volts(), 0.5);
          s.output(true);
        }
        for (String script : List.of("first-load", "number")) {
          Entry.Talk t = run(w, bench, demo, script);
          if (t.verdict().orElseThrow() != Verdict.WITHIN) {
            return String.join(" ", t.told()).contains(words)
                ? "told"
                : words + ", step " + t.steps().size() + " of " + script + ": " + t.told();
          }
        }
      }
    }
    return "through";
  }

  private static Entry.Talk run(Workshop w, Bench bench, Path demo, String script)
      throws Exception {
    LineAddress at = new LineAddress("tcp:" + bench.addresses().get("line"));
    return new TalkRun(
            w.talks(),
            w.recordings(),
            w.acts(),
            w.plan(w.buildOf(BOARD)),
            BOARD,
            new TalkRun.Watcher() {})
        .run(
            Scripts.open(demo.resolve("mg-1-b").resolve(script + ".json")),
            at,
            () -> at.open(2000),
            List.of())
        .talk();
  }
}
