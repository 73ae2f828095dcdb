package ell.work.tape;

import ell.core.entry.BoardState;
import ell.core.entry.Logged;
import ell.core.rack.Plan;
import java.util.List;

/// A line as a verb gets it: the word that it is about is taken off, and beside it stands
/// everything that the tape knows.
///
/// @param word that was typed, in small letters; empty for a verb without a word
/// @param place that the line begins with, in the board's own spelling; empty where it has none
/// @param rest behind the word, without blanks at its ends
/// @param tape whose line it is
/// @param state of the board
/// @param log its entries, oldest first
public record Said(
    String word, String place, String rest, Tape tape, BoardState state, List<Logged> log) {

  /// The plan of the board.
  public Plan plan() {
    return tape.plan();
  }

  /// The places of the board.
  public Places places() {
    return tape.places();
  }

  /// The rest in two: its first word, and what stands behind it; either may be empty.
  public String[] two() {
    String[] words = rest.split("\\s+", 2);
    return new String[] {words[0], words.length > 1 ? words[1] : ""};
  }

  /// The rest word by word, without empty ones.
  public String[] words() {
    return rest.isEmpty() ? new String[0] : rest.split("\\s+");
  }
}
