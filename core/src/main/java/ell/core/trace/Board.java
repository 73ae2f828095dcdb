package ell.core.trace;

import ell.core.board.Revision;
import ell.core.power.Fault;
import ell.core.power.Ladder;
import ell.core.pulse.PulsePlan;
import ell.core.talk.TalkPlan;
import java.util.List;
import java.util.Map;

/// What is traced: a revision as a board of it stands.
///
/// @param standing links as they are, as faults of the board model
/// @param stands how links stand and what is plugged in, as the book has it
public record Board(
    Revision revision,
    Ladder ladder,
    PulsePlan pulse,
    TalkPlan talk,
    List<Fault> standing,
    Map<String, Boolean> stands) {
  public Board {
    standing = List.copyOf(standing);
    stands = Map.copyOf(stands);
  }
}
