package ell.work;

import ell.bench.Bench;
import ell.bench.sim.SimBench;
import ell.core.entry.Entry;
import ell.core.power.FaultWords;
import ell.core.prove.Expected;
import ell.core.prove.PlanReader;
import ell.core.prove.TestPlan;
import ell.core.rack.Plan;
import ell.work.bench.SimulatedBench;
import ell.work.prove.ProveBench;
import ell.work.prove.ProveRun;
import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;

/// Boards that go through test plans on a bench of their own.
final class ProofBoards {
  private ProofBoards() {}

  static final String PLAN =
      """
      plan bench
      ohms 3V3 GND 100ohm.. fails=stop
      power
      volts 5V0 needs=power
      volts 3V3 needs=power
      amps VIN_RAW boot needs=power
      ask "Is LED1 lit?" yes name=lamp needs=3V3
      loop 3
      volts 3V3A needs=power
      end
      off
      """;

  /// One board on one bench.
  static final class One implements ProveRun.Watcher, AutoCloseable {
    final Workshop w = Demo.workspace(true);
    final SimulatedBench sim;
    final String board;
    final Plan plan;
    final Map<String, String> answers = new LinkedHashMap<>();
    final List<String> order = new ArrayList<>();
    Consumer<TestPlan.Turn> begins = _ -> {};
    ProveRun run;
    int timeout = 4000;

    One(String board, String... faults) throws Exception {
      this.board = board;
      this.sim =
          SimulatedBench.start(
              w,
              3,
              Map.of(),
              SimBench.PLATE_SPEED,
              Map.of(board, java.util.Arrays.stream(faults).map(FaultWords::parse).toList()));
      this.plan = w.plan(w.buildOf(board));
      answers.put("lamp", "yes");
    }

    ProveBench bench() {
      return new ProveBench(
          new Bench("simulated bench", sim.bench().addresses(), timeout, false),
          Optional.empty(),
          "",
          2);
    }

    ProveRun.Done go(String text) throws Exception {
      return go(PlanReader.read(text, "x"), false);
    }

    ProveRun.Done go(TestPlan p, boolean anew) throws Exception {
      run = new ProveRun(w.proving(), plan, p, board, bench(), this);
      return run.run(anew);
    }

    Entry.ProofStep step(ProveRun.Done d, String name) {
      return d.run().made().stream()
          .filter(s -> s.name().equals(name))
          .reduce((_, b) -> b)
          .orElseThrow(() -> new AssertionError("no step " + name + " in " + d.run().made()));
    }

    boolean off() {
      return !sim.servers().outputOn();
    }

    @Override
    public void begins(TestPlan.Turn turn, int at, int of, Expected e) {
      order.add(turn.step().name());
      begins.accept(turn);
    }

    @Override
    public Optional<String> asks(String name, String question, String wants) {
      return Optional.ofNullable(answers.get(name));
    }

    @Override
    public void close() throws IOException {
      sim.close();
      w.close();
    }
  }
}
