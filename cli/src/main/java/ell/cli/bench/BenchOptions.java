package ell.cli.bench;

import ell.work.Workshop;
import ell.work.bench.SimulatedBench;
import ell.work.bench.SocketBench;
import ell.work.power.PowerRun;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.Optional;
import picocli.CommandLine.Option;

/// Which bench a command works on.
public final class BenchOptions {
  @Option(names = "--sim", description = "on the simulated bench")
  boolean simulated;

  @Option(names = "--seed", description = "of the simulated bench's small errors")
  long seed = 1;

  @Option(names = "--supply", description = "host:port of a supply that speaks SCPI")
  Optional<String> supply = Optional.empty();

  @Option(names = "--meter", description = "host:port of a meter that speaks SCPI")
  Optional<String> meter = Optional.empty();

  @Option(names = "--hands", description = "host:port of the hands of a simulated bench")
  Optional<String> hands = Optional.empty();

  @Option(names = "--timeout", description = "for each answer, in milliseconds")
  int timeoutMillis = 1500;

  /// A bench that is open.
  public record Opened(PowerRun.Bench bench, Optional<SimulatedBench> own)
      implements AutoCloseable {
    @Override
    public void close() {
      own.ifPresent(SimulatedBench::close);
    }
  }

  public Opened open(Workshop w, boolean needsSupply) throws IOException, ActException {
    if (simulated) {
      SimulatedBench b = SimulatedBench.start(w, seed);
      return new Opened(b.sockets(), Optional.of(b));
    }
    if (needsSupply && supply.isEmpty() || !needsSupply && meter.isEmpty()) {
      throw new ActException(
          "which bench? say --sim, or "
              + (needsSupply ? "--supply host:port and --meter host:port" : "--meter host:port"));
    }
    return new Opened(
        new SocketBench(supply.orElse(""), meter, hands, "bench", timeoutMillis), Optional.empty());
  }
}
