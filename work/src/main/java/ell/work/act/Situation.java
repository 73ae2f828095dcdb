package ell.work.act;

import ell.book.Build;
import ell.core.entry.BoardState;
import ell.core.rack.Plan;

/// A board as it is when something is about to be logged for it.
///
/// @param build that it belongs to
/// @param plan of the build
/// @param state with everything that the act logged before
/// @param shared whether the act was done to another board, and happens to this one as well
public record Situation(Build build, Plan plan, BoardState state, boolean shared) {
  /// Serial.
  public String board() {
    return state.board();
  }
}
