package ell.work.bench;

import ell.bench.sim.SimBench;
import ell.bench.sim.SimBoard;
import ell.book.Build;
import ell.core.power.Fault;
import ell.core.power.Ladder;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// The simulated bench for the boards of a workspace, on free ports of the loopback.
public final class SimulatedBench implements AutoCloseable {
  private static final int TIMEOUT_MILLIS = 1500;

  private final SimBench bench;

  private SimulatedBench(SimBench bench) {
    this.bench = bench;
  }

  /// Starts it with every board of every build, each with the faults that the workspace gives it.
  ///
  /// @param seed of the small errors of instruments and parts
  /// @param ports of supply, meter and hands; 0 or none for any free one
  public static SimulatedBench start(Workshop w, long seed, int... ports)
      throws IOException, ActException {
    List<SimBoard> boards = new ArrayList<>();
    for (Build b : w.book().builds()) {
      Ladder ladder = w.ladder(b.design(), b.revision());
      Map<String, List<Fault>> faults = w.ladders().faults(b.design(), b.revision());
      for (String serial : b.boards()) {
        boards.add(
            new SimBoard(
                serial,
                w.revision(b.design(), b.revision()),
                ladder,
                faults.getOrDefault(serial, List.of())));
      }
    }
    return new SimulatedBench(SimBench.start(boards, seed, ports));
  }

  /// The servers behind it.
  public SimBench servers() {
    return bench;
  }

  /// How its instruments are reached.
  public SocketBench sockets() {
    return new SocketBench(
        "127.0.0.1:" + bench.supplyPort(),
        Optional.of("127.0.0.1:" + bench.meterPort()),
        Optional.of("127.0.0.1:" + bench.handsPort()),
        "simulated bench",
        TIMEOUT_MILLIS);
  }

  @Override
  public void close() {
    bench.close();
  }
}
