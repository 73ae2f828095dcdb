package ell.bench.sim;

import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;

/// A bench that is not there: a list of simulated instruments, each a SCPI server on the loopback,
/// and of a line to the controller, over the model of the board that lies on it. Readings carry the
/// small errors of real instruments and parts, from a seed.
public final class SimBench implements AutoCloseable {
  /// Seconds that the plate's clock lets go by in one, where nobody asks for another speed.
  public static final double PLATE_SPEED = 20;

  private final SimTable table;
  private final List<SimDevice> devices;
  private final ScheduledExecutorService watchdog =
      Executors.newSingleThreadScheduledExecutor(
          r -> Thread.ofPlatform().daemon().name("sim watchdog").unstarted(r));

  private SimBench(SimTable table, List<SimDevice> devices) {
    this.table = table;
    this.devices = List.copyOf(devices);
  }

  /// Starts a bench on free ports.
  ///
  /// @param boards that can be laid on it
  /// @param seed of the small errors
  public static SimBench start(List<SimBoard> boards, long seed) throws IOException {
    return start(boards, seed, Map.of(), PLATE_SPEED);
  }

  /// Starts a bench.
  ///
  /// @param ports by the word of a kind; any free one where none is said
  /// @param plateSpeed seconds of the plate's clock in a real one, 1...1000
  public static SimBench start(
      List<SimBoard> boards, long seed, Map<String, Integer> ports, double plateSpeed)
      throws IOException {
    SimTable table = new SimTable(boards, seed);
    List<SimDevice> all = new ArrayList<>();
    try {
      all.add(new SimSupply(table, port(ports, "supply")));
      all.add(new SimMeter(table, port(ports, "meter")));
      all.add(new SimScope(table, seed, port(ports, "scope")));
      SimLine line = new SimLine(table, seed, port(ports, "line"));
      all.add(line);
      all.add(new SimHands(table, line, port(ports, "hands")));
      all.add(new SimPlate(SimPlate.SMALL, seed, plateSpeed, port(ports, "plate")));
    } catch (IOException e) {
      all.forEach(SimDevice::close);
      throw e;
    }
    SimBench b = new SimBench(table, all);
    b.devices.forEach(SimDevice::start);
    b.watchdog.scheduleAtFixedRate(
        () -> b.devices.forEach(SimDevice::watch), 250, 250, TimeUnit.MILLISECONDS);
    return b;
  }

  private static int port(Map<String, Integer> ports, String kind) {
    return ports.getOrDefault(kind, 0);
  }

  /// Everything that stands on it.
  public List<SimDevice> devices() {
    return devices;
  }

  /// The instrument of a kind.
  ///
  /// @throws java.util.NoSuchElementException when it has none
  public SimInstrument instrument(String kind) {
    return devices.stream()
        .filter(i -> i.kind().equals(kind))
        .map(SimInstrument.class::cast)
        .findFirst()
        .orElseThrow();
  }

  /// Where each of them listens, `host:port` by the word of its kind.
  public Map<String, String> addresses() {
    Map<String, String> all = new LinkedHashMap<>();
    devices.forEach(i -> all.put(i.kind(), "127.0.0.1:" + i.port()));
    return all;
  }

  /// Whether the supply's output is on, as seen on its front panel.
  public boolean outputOn() {
    return table.on();
  }

  /// Is told of each rating that a part passes: `07: C4 has 9.2 V over it and bears 6.3 V`.
  public void onPassed(Consumer<String> told) {
    table.onPassed(told);
  }

  /// Lays a board on the bench, as the hands do.
  ///
  /// @throws IllegalArgumentException when there is no such board
  public void layDown(String serial) {
    if (!table.has(serial)) {
      throw new IllegalArgumentException("there is no board '" + serial + "' for this bench");
    }
    table.lay(serial);
  }

  @Override
  public void close() {
    watchdog.shutdownNow();
    devices.forEach(SimDevice::close);
  }
}
