package ell.work;

import ell.bench.Bench;
import ell.bench.instrument.Supply;
import ell.bench.sim.SimBench;
import ell.core.board.Revision;
import ell.core.power.Ladder;

/// Boards that are unlike the demo, for tests in other packages, and power for them.
public final class OddBoards {
  private OddBoards() {}

  /// The board with a cell and a radio module that thinks.
  public static Revision cell() throws Exception {
    try (Workshop w = OddBoard.CELL.workshop()) {
      return w.revision("cell", "1");
    }
  }

  /// Switches on what the ladder wants; it stays on until the supply is closed.
  public static Supply power(SimBench sim, Ladder ladder) throws Exception {
    Supply s = new Bench("simulated", sim.addresses(), 1500, false).need(Supply.KIND);
    s.outputs(ladder.outputs());
    for (Ladder.Source x : ladder.sources()) {
      s.select(ladder.channel(x));
      s.set(x.volts(), 0.5);
      s.output(true);
    }
    return s;
  }
}
