package ell.core.kit;

import ell.core.board.Block;
import ell.core.board.GateNeed;
import ell.core.board.Revision;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// Everything that a kit is checked against.
///
/// @param boards of the build
/// @param shelf as it stands now, folded
/// @param on the day that is asked about
/// @param arrived whether what is due by that day counts as arrived; false for today, where what
///   has not come has not come
/// @param gates in build order
/// @param reflowed references that are melted together: when one is short the paste stays closed
/// @param placed by reference, on how many boards of the build it sits already
/// @param lost by code, how many the build has lost already
/// @param setAside why the maker set the rule of the paste aside, empty when it stands
public record KitQuestion(
    Revision revision,
    int boards,
    List<ShelfLine> shelf,
    LocalDate on,
    boolean arrived,
    AttritionRules attrition,
    List<GateNeed> gates,
    Set<String> reflowed,
    Map<String, Long> placed,
    Map<String, Long> lost,
    Map<String, Long> overdrawn,
    Optional<String> setAside) {

  public KitQuestion {
    shelf = List.copyOf(shelf);
    gates = List.copyOf(gates);
    reflowed = Set.copyOf(reflowed);
    placed = Map.copyOf(placed);
    lost = Map.copyOf(lost);
    overdrawn = Map.copyOf(overdrawn);
  }

  /// The question of a build that has not begun.
  public static KitQuestion fresh(
      Revision revision,
      int boards,
      List<ShelfLine> shelf,
      LocalDate on,
      List<GateNeed> gates,
      Set<String> reflowed) {
    return new KitQuestion(
        revision,
        boards,
        shelf,
        on,
        false,
        AttritionRules.TYPICAL,
        gates,
        reflowed,
        Map.of(),
        Map.of(),
        Map.of(),
        Optional.empty());
  }

  /// What each gate needs when nothing is known but the blocks: the parts of its block and of those
  /// before it.
  public static List<GateNeed> byBlocks(List<Block> blocks) {
    List<GateNeed> needs = new ArrayList<>();
    Set<String> sofar = new HashSet<>();
    for (Block b : blocks) {
      sofar.addAll(b.parts());
      needs.add(new GateNeed(b.gate(), sofar));
    }
    return needs;
  }

  /// The same question about another day, on which what is due has come.
  public KitQuestion lookingAt(LocalDate day) {
    return new KitQuestion(
        revision, boards, shelf, day, true, attrition, gates, reflowed, placed, lost, overdrawn,
        setAside);
  }
}
