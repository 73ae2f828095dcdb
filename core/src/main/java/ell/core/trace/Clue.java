package ell.core.trace;

import ell.core.entry.BoardState;
import ell.core.power.Fault;

/// Something that the book says of a board and that bears on where its fault is.
public sealed interface Clue {
  /// The entry that says it.
  long entry();

  /// Something was measured or looked at.
  ///
  /// @param times that it was measured with the same answer, 1 or more
  /// @param words for a person
  record Seen(long entry, Probe probe, Answer answer, int times, String words) implements Clue {}

  /// Something was done at a place; what was wrong there may be mended.
  ///
  /// @param action as the book has it, such as `resoldered`
  record Worked(long entry, String place, String action) implements Clue {
    /// Whether it was done at one of the places of a suspect, or at the part of one, and is of a
    /// kind that can mend it.
    boolean mends(Suspect s) {
      return does(s)
          && s.places().stream()
              .anyMatch(p ->
                  p.equals(place)
                      || BoardState.part(p).equals(place)
                      || p.equals(BoardState.part(place)));
    }

    /// No iron mends a pin that is drawn to the wrong net. What was done besides is not in the
    /// word, so it may have mended whatever else was wrong there.
    private boolean does(Suspect s) {
      return switch (action) {
        case "programmed" -> s.fault() instanceof Fault.Firmware;
        case "cleaned", "cleared" ->
            s.fault() instanceof Fault.Bridge || s.fault() instanceof Fault.Resistive;
        case "resoldered", "reflowed", "touched-up", "replaced", "removed", "fitted" ->
            s.origin() != Suspect.Origin.DESIGN;
        default -> true;
      };
    }
  }

  /// The fault is there at some tries only.
  record Comes(long entry, int times, int of) implements Clue {}
}
