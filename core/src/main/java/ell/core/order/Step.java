package ell.core.order;

import ell.core.board.Side;
import ell.core.entry.Entry;
import java.util.Collection;
import java.util.List;
import java.util.Optional;

/// One step of a build order.
///
/// @param number 1-based
/// @param action what is done
/// @param parts references, empty for a step that places nothing
/// @param side on which it is done
/// @param gate the gate that the step is, if it is one
/// @param block the block that it belongs to, empty when none
/// @param seconds typical time on one board, opening a reel counted
/// @param setup seconds of it that are spent once, however many boards lie side by side
/// @param reasons why now, one phrase each
/// @param how how it is done well, one phrase each
/// @param cautions what may hurt in this step
public record Step(
    int number,
    Action action,
    List<String> parts,
    Side side,
    Optional<String> gate,
    String block,
    double seconds,
    double setup,
    List<String> reasons,
    List<String> how,
    List<String> cautions) {
  /// What a step does.
  public enum Action {
    /// Parts that the assembly house has fitted: the board arrives with them.
    ARRIVE(Entry.StepDone.ARRIVED),
    /// Print paste through the stencil.
    PASTE("print paste"),
    /// Place parts into paste.
    PLACE("place"),
    /// Melt the paste of a side.
    REFLOW("reflow"),
    /// Solder the leads of parts that lay in paste.
    TABS("solder tabs"),
    /// Place a part and solder it with hot air.
    HOT_AIR("hot air"),
    /// Solder by iron.
    SOLDER("solder"),
    /// Plug in.
    PLUG("plug in"),
    /// Cut the boards of a panel apart.
    CUT("cut apart"),
    /// Put on what has no place on the board: screws, cables, a cell.
    ATTACH("attach"),
    /// Prove the block.
    GATE("prove");

    private final String words;

    Action(String words) {
      this.words = words;
    }

    /// The action in words, also its key in files.
    public String words() {
      return words;
    }
  }

  public Step {
    parts = List.copyOf(parts);
    reasons = List.copyOf(reasons);
    how = List.copyOf(how);
    cautions = List.copyOf(cautions);
  }

  /// The entry that says that a row of this step was done, or what of the step was left.
  ///
  /// @param some of its parts
  /// @param seconds that it took, 0 when it was not timed
  public Entry.StepDone done(List<String> some, double seconds) {
    return new Entry.StepDone(number, action.words(), some, seconds, side.key());
  }

  /// The entry that says that everything is done that was left of this step.
  ///
  /// @param placed parts that are on the board already
  public Entry.StepDone rest(Collection<String> placed) {
    return done(parts.stream().filter(p -> !placed.contains(p)).toList(), 0);
  }

  /// The entry that says that this step was done.
  ///
  /// @param seconds that it took, 0 when it was not timed
  public Entry.StepDone done(double seconds) {
    return new Entry.StepDone(number, action.words(), parts, seconds, side.key());
  }
}
