package ell.cli.bench;

import ell.bench.sim.SimBench;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.work.Workshop;
import ell.work.bench.SimulatedBench;
import ell.work.demo.DemoWorkspace;
import ell.work.space.ActException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import tools.jackson.databind.node.ObjectNode;

/// Starts the simulated bench alone.
@Command(
    name = "bench-sim",
    description = "start the simulated bench alone and print its ports; runs until it is ended")
public final class BenchSimCommand implements Callable<Integer> {
  private static final int LAST_PORT = 65_535;

  @Parameters(
      index = "0",
      arity = "0..1",
      paramLabel = "WS",
      description = "the workspace whose boards can be laid on it; the demo's when not said")
  Optional<Path> file = Optional.empty();

  @Option(names = "--board", description = "the board that lies on it at first")
  Optional<String> board = Optional.empty();

  @Option(
      names = "--fault",
      description =
          "what is wrong with the board that lies on it, such as \"open FB1.2\", \"bridge 3V3 GND"
              + " 2.2ohm\", \"value R5 47k\"; may be given several times")
  List<String> faults = new ArrayList<>();

  @Option(
      names = "--ports",
      split = ",",
      description =
          "ports of supply, meter, hands, plate, scope and line; any free one where none is said")
  int[] ports = {};

  @Option(names = "--seed", description = "of the small errors of instruments and parts")
  long seed = 1;

  @Option(names = "--json", description = "the ports as one JSON object")
  boolean json;

  @Spec CommandSpec spec;

  @Override
  public Integer call() throws Exception {
    Path made = null;
    if (file.isEmpty()) {
      made = Files.createTempDirectory("ell-bench");
      DemoWorkspace.make(made.resolve("demo.ell")).close();
    }
    try (Workshop w = Workshop.look(file.isEmpty() ? made.resolve("demo.ell") : file.get())) {
      String first =
          board.isPresent()
              ? w.buildOf(board.get()).boards().stream()
                  .filter(b -> b.equals(board.get()))
                  .findFirst()
                  .orElseThrow()
              : w.build(Optional.empty()).boards().getFirst();
      run(w, first);
    }
    return Exit.DONE;
  }

  private void run(Workshop w, String first) throws Exception {
    try (SimulatedBench bench =
        SimulatedBench.start(
            w, seed, ports(), SimBench.PLATE_SPEED, Map.of(first, FaultOptions.parse(faults)))) {
      bench.servers().layDown(first);
      var out = spec.commandLine().getOut();
      if (json) {
        ObjectNode o = Json.object().put("host", "127.0.0.1").put("board", first);
        bench.servers().devices().forEach(x -> o.put(x.kind(), x.port()));
        out.println(o.toString());
      } else {
        out.println("board " + first + " lies on the simulated bench at 127.0.0.1");
        bench.servers().devices().forEach(x -> out.println(x.kind() + " " + x.port()));
      }
      out.flush();
      var err = spec.commandLine().getErr();
      bench
          .servers()
          .onPassed(words -> {
            err.println("passed its rating on " + words);
            err.flush();
          });
      new CountDownLatch(1).await();
    }
  }

  private Map<String, Integer> ports() throws ActException {
    List<String> kinds = List.of("supply", "meter", "hands", "plate", "scope", "line");
    if (ports.length > kinds.size()) {
      throw new ActException(
          "ports are " + String.join(", ", kinds) + ": six, found " + ports.length);
    }
    Map<String, Integer> all = new HashMap<>();
    for (int i = 0; i < ports.length; i++) {
      if (ports[i] < 0 || ports[i] > LAST_PORT) {
        throw new ActException(
            "a port is 0 (any free one) to " + LAST_PORT + ", found " + ports[i]);
      }
      all.put(kinds.get(i), ports[i]);
    }
    return all;
  }
}
