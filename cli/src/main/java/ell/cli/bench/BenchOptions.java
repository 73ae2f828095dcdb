package ell.cli.bench;

import ell.bench.Bench;
import ell.bench.dialect.Dialect;
import ell.bench.instrument.Kind;
import ell.work.Workshop;
import ell.work.bench.DialectFiles;
import ell.work.bench.SimulatedBench;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Option;

/// Which bench a command works on.
public final class BenchOptions {
  @Option(names = "--sim", description = "on the simulated bench")
  boolean simulated;

  @Option(names = "--seed", description = "of the simulated bench's small errors")
  long seed = 1;

  @Option(names = "--speed", description = "of the simulated plate's clock, 20 when not said")
  double speed = 20;

  @Option(names = "--supply", description = "host:port of a supply that speaks SCPI")
  Optional<String> supply = Optional.empty();

  @Option(names = "--meter", description = "host:port of a meter that speaks SCPI")
  Optional<String> meter = Optional.empty();

  @Option(names = "--plate", description = "host:port of a hot plate that speaks SCPI")
  Optional<String> plate = Optional.empty();

  @Option(names = "--scope", description = "host:port of a scope that speaks SCPI")
  Optional<String> scope = Optional.empty();

  @Option(names = "--hands", description = "host:port of the hands of a simulated bench")
  Optional<String> hands = Optional.empty();

  @Option(
      names = "--dialect",
      paramLabel = "FILE",
      description =
          "how an instrument wants to be told, a JSON file (see bench check); may be given several"
              + " times, one for each kind")
  List<Path> dialects = new ArrayList<>();

  @Option(names = "--timeout", description = "for each answer, in milliseconds")
  int timeoutMillis = 3000;

  /// A bench that is open.
  public record Opened(Bench bench, Optional<SimulatedBench> own) implements AutoCloseable {
    @Override
    public void close() {
      own.ifPresent(SimulatedBench::close);
    }
  }

  /// Opens the bench that was asked for.
  ///
  /// @param needs the kind of instrument that the command cannot do without
  /// @throws ActException when neither a simulated bench nor that instrument's address was said
  public Opened open(Workshop w, Kind<?> needs) throws IOException, ActException {
    if (timeoutMillis <= 0 || timeoutMillis > 600_000) {
      throw new ActException("--timeout is in 1...600000 ms, got " + timeoutMillis);
    }
    if (simulated && !dialects.isEmpty()) {
      throw new ActException("--dialect is for instruments of your own, not for --sim");
    }
    if (simulated) {
      SimulatedBench b = SimulatedBench.start(w, seed, Map.of(), speed);
      return new Opened(b.bench(), Optional.of(b));
    }
    Map<String, String> at = new LinkedHashMap<>();
    supply.ifPresent(a -> at.put("supply", a));
    meter.ifPresent(a -> at.put("meter", a));
    plate.ifPresent(a -> at.put("plate", a));
    scope.ifPresent(a -> at.put("scope", a));
    hands.ifPresent(a -> at.put("hands", a));
    if (!at.containsKey(needs.word())) {
      throw new ActException("which bench? say --sim, or --" + needs.word() + " host:port");
    }
    List<Dialect> own = new ArrayList<>();
    for (Path p : dialects) {
      own.add(DialectFiles.read(p));
    }
    return new Opened(new Bench("bench", at, timeoutMillis).speaking(own), Optional.empty());
  }

  /// How the instrument of a kind would be told.
  ///
  /// @throws ActException when a dialect file is none
  public Dialect dialect(Kind<?> kind) throws IOException, ActException {
    for (Path p : dialects) {
      Dialect d = DialectFiles.read(p);
      if (d.kind().equals(kind.word())) {
        return d;
      }
    }
    return kind.usual();
  }

  /// Whether the address of an instrument was said.
  public boolean has(Kind<?> kind) {
    return switch (kind.word()) {
      case "supply" -> supply.isPresent();
      case "meter" -> meter.isPresent();
      case "plate" -> plate.isPresent();
      case "scope" -> scope.isPresent();
      case "hands" -> hands.isPresent();
      default -> false;
    };
  }

  /// Whether it is the simulated one.
  public boolean simulated() {
    return simulated;
  }
}
