package ell.core.rack;

import ell.core.beep.BeepList;
import ell.core.board.Block;
import ell.core.board.Revision;
import ell.core.order.BuildOrder;
import ell.core.power.Ladder;
import java.util.List;


/// Everything that is planned for a revision built in one way; the same for each board of the
/// build.
public record Plan(
    Revision revision, Ladder ladder, List<Block> blocks, BuildOrder order, BeepList beep) {
  public Plan {
    blocks = List.copyOf(blocks);
  }
}
