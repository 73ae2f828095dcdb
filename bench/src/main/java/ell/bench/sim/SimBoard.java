package ell.bench.sim;

import ell.core.board.Revision;
import ell.core.power.Fault;
import ell.core.power.Ladder;
import ell.core.pulse.PulsePlan;
import java.util.List;

/// A board that can be laid on the simulated bench.
///
/// @param serial its name
/// @param faults what is wrong with it
/// @param pulse what should be seen on its lines
public record SimBoard(
    String serial, Revision revision, Ladder ladder, List<Fault> faults, PulsePlan pulse) {
  public SimBoard {
    faults = List.copyOf(faults);
  }

  /// A board of which nothing is said of its lines.
  public SimBoard(String serial, Revision revision, Ladder ladder, List<Fault> faults) {
    this(serial, revision, ladder, faults, PulsePlan.of(revision, ladder, List.of(), List.of()));
  }
}
