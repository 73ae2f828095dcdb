package ell.bench.sim;

import ell.core.board.Revision;
import ell.core.power.Fault;
import ell.core.power.Ladder;
import java.util.List;

/// A board that can be laid on the simulated bench.
///
/// @param serial its name
/// @param faults what is wrong with it
public record SimBoard(String serial, Revision revision, Ladder ladder, List<Fault> faults) {
  public SimBoard {
    faults = List.copyOf(faults);
  }
}
