package ell.core.order;

import ell.core.board.Block;
import ell.core.board.GateNeed;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.quantity.Check;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.stream.Collectors;

/// A valid order to build a board in: every step after what must come before it, each with its
/// reasons, gates where a block can be proved.
///
/// Parts are sorted along a precedence graph whose arrows carry reasons; where arrows form a loop
/// the cheapest is dropped and said. Within the graph the order is sought that opens the fewest
/// reels and moves the hand least.
///
/// @param method how it is soldered
/// @param steps in order
/// @param arrows that the steps keep
/// @param loops rules that could not all hold, each with what was given up
/// @param notes sentences about what the maker should mind: wishes that cannot be followed, test
///   points that are hidden
/// @param inPaste references that lie in paste and are melted together
/// @param gateNeeds what must be on the board when each gate is asked
/// @param effort what the order costs beyond placing, and at least must
public record BuildOrder(
    Method method,
    List<Step> steps,
    List<Arrow> arrows,
    List<Loop> loops,
    List<String> notes,
    Set<String> inPaste,
    List<GateNeed> gateNeeds,
    Effort effort) {
  static final double IRON_CLEARANCE = 1.5;
  static final double HOT_AIR_CLEARANCE = 3.0;

  /// Seconds for reels, ways and turning, beside what placing itself takes.
  ///
  /// @param bound no order that keeps the arrows needs less
  /// @param exact whether the order is known to be the best
  public record Effort(double seconds, double bound, boolean exact) {
    /// How far above the bound it is, as a fraction of the bound; 0 when the best is known.
    public double gap() {
      return exact || bound <= 0 ? 0 : (seconds - bound) / bound;
    }
  }

  public BuildOrder {
    steps = List.copyOf(steps);
    arrows = List.copyOf(arrows);
    loops = List.copyOf(loops);
    notes = List.copyOf(notes);
    inPaste = Set.copyOf(inPaste);
    gateNeeds = List.copyOf(gateNeeds);
  }

  /// Typical minutes of work on one board.
  public double minutes() {
    return steps.stream().mapToDouble(Step::seconds).sum() / 60;
  }

  /// The step that places a part.
  public Optional<Step> placing(String reference) {
    return steps.stream().filter(s -> s.parts().contains(reference)).findFirst();
  }

  /// The parts with which the board arrives from the assembly house.
  public Set<String> arriving() {
    return steps.stream()
        .filter(s -> s.action() == Step.Action.ARRIVE)
        .flatMap(s -> s.parts().stream())
        .collect(Collectors.toUnmodifiableSet());
  }

  /// Sentences about everything that was given up or should be minded.
  public List<String> mind() {
    List<String> all = new ArrayList<>();
    loops.forEach(l -> all.add(l.words()));
    all.addAll(notes);
    return all;
  }

  /// Arrows of this order that another sequence of parts would break.
  ///
  /// @param sequence references in the order in which they would be placed
  public List<Arrow> brokenBy(List<String> sequence) {
    Map<String, Integer> at = new HashMap<>();
    for (int i = 0; i < sequence.size(); i++) {
      at.put(sequence.get(i), i);
    }
    return arrows.stream()
        .filter(a ->
            at.containsKey(a.before())
                && at.containsKey(a.after())
                && at.get(a.before()) > at.get(a.after()))
        .toList();
  }

  /// Whether a part is soldered by hand whatever the method: leads through the board, boards of
  /// their own that dislike the oven, and connectors of which nothing is known.
  static boolean byHand(Revision revision, Part p) {
    return revision.throughHole(p)
        || p.kind() == PartKind.MODULE && revision.shape(p).heat()
        || revision.jointsOf(p.reference()).isEmpty()
            && (p.kind() == PartKind.CONNECTOR || Seats.socket(p));
  }

  /// Plans the order of a revision.
  ///
  /// @param blocks in build order; parts in none are taken last
  public static BuildOrder of(Revision revision, Method method, List<Block> blocks) {
    return of(revision, method, blocks, List.of(), 1, () -> false);
  }

  /// Plans the order of a revision as a maker wants it.
  ///
  /// @param wishes rules that stand above all others; what they break is told
  /// @param panel boards that hang together until their paste is melted, 1 when none do
  /// @param stop asked now and then; once it says yes the order is as good as it is by then
  /// @throws IllegalArgumentException when the panel is not above 0
  public static BuildOrder of(
      Revision revision,
      Method method,
      List<Block> blocks,
      List<Wish> wishes,
      int panel,
      BooleanSupplier stop) {
    Check.positive(panel, "panel");
    return new Planner(revision, method, blocks, wishes, panel, stop).plan();
  }
}
