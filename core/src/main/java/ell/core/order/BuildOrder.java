package ell.core.order;

import ell.core.board.Block;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/// A valid order to build a board in: every step after what must come before it, each with its
/// reasons, gates where a block can be proved.
///
/// Parts are sorted along a precedence graph whose arrows carry reasons; where arrows form a loop
/// the cheapest is dropped and said. Among the parts that may come next the same block, the same
/// reel and the shortest way are taken first. Time grows as n log n with the number of parts
/// (bodies are compared over a grid).
///
/// @param method how it is soldered
/// @param steps in order
/// @param dropped sentences about arrows that had to be dropped
public record BuildOrder(Method method, List<Step> steps, List<String> dropped) {
  static final double IRON_CLEARANCE = 1.5;
  static final double HOT_AIR_CLEARANCE = 3.0;

  public BuildOrder {
    steps = List.copyOf(steps);
    dropped = List.copyOf(dropped);
  }

  /// Typical minutes of work on one board.
  public double minutes() {
    return steps.stream().mapToDouble(Step::seconds).sum() / 60;
  }

  /// The step that places a part.
  public Optional<Step> placing(String reference) {
    return steps.stream().filter(s -> s.parts().contains(reference)).findFirst();
  }

  /// The parts that are reflowed with this method.
  public static Set<String> reflowed(Revision revision, Method method) {
    return Set.copyOf(new Planner(revision, method, List.of()).inPaste());
  }

  /// Whether a part is soldered by hand whatever the method: leads through the board, plugged
  /// modules, and parts that dislike the oven.
  static boolean byHand(Revision revision, Part p) {
    return revision.throughHole(p)
        || p.kind() == PartKind.MODULE
        || revision.jointsOf(p.reference()).isEmpty() && p.kind() == PartKind.CONNECTOR;
  }

  /// Plans the order of a revision.
  ///
  /// @param blocks in build order; parts in none are taken last
  public static BuildOrder of(Revision revision, Method method, List<Block> blocks) {
    return new Planner(revision, method, blocks).plan();
  }
}
