package ell.cli.bench;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.work.Workshop;
import ell.work.bench.SimulatedBench;
import ell.work.demo.DemoWorkspace;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/// Starts the simulated bench alone.
@Command(
    name = "bench-sim",
    description = "start the simulated bench alone and print its ports; runs until it is ended")
public final class BenchSimCommand implements Callable<Integer> {
  @Parameters(
      index = "0",
      arity = "0..1",
      paramLabel = "WS",
      description = "the workspace whose boards can be laid on it; the demo's when not said")
  Optional<Path> file = Optional.empty();

  @Option(names = "--board", description = "the board that lies on it at first")
  Optional<String> board = Optional.empty();

  @Option(names = "--ports", split = ",", description = "ports of supply, meter and hands")
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
    try (Workshop w = Workshop.look(file.isEmpty() ? made.resolve("demo.ell") : file.get());
        SimulatedBench bench = SimulatedBench.start(w, seed, ports)) {
      String first =
          board.isPresent()
              ? w.buildOf(board.get()).boards().stream()
                  .filter(b -> b.equals(board.get()))
                  .findFirst()
                  .orElseThrow()
              : w.build(Optional.empty()).boards().getFirst();
      bench.servers().layDown(first);
      var out = spec.commandLine().getOut();
      if (json) {
        out.println(
            Json.object()
                .put("host", "127.0.0.1")
                .put("supply", bench.servers().supplyPort())
                .put("meter", bench.servers().meterPort())
                .put("hands", bench.servers().handsPort())
                .put("board", first)
                .toPrettyString());
      } else {
        out.println("board " + first + " lies on the simulated bench at 127.0.0.1");
        out.println("supply " + bench.servers().supplyPort());
        out.println("meter " + bench.servers().meterPort());
        out.println("hands " + bench.servers().handsPort());
      }
      out.flush();
      new CountDownLatch(1).await();
    }
    return Exit.DONE;
  }
}
