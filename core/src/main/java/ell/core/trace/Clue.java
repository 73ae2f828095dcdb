package ell.core.trace;

import ell.core.entry.BoardState;

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
  record Worked(long entry, String place) implements Clue {
    /// Whether it was done at one of these places, or at the part of one.
    boolean at(Suspect s) {
      return s.places().stream()
          .anyMatch(p ->
              p.equals(place)
                  || BoardState.part(p).equals(place)
                  || p.equals(BoardState.part(place)));
    }
  }

  /// The fault is there at some tries only.
  record Comes(long entry, int times, int of) implements Clue {}
}
