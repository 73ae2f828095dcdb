package ell.work.power;

import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.power.BeforePower;
import ell.core.power.Ladder;
import ell.core.power.PowerFacts;
import java.util.List;
import java.util.Optional;

/// What a helper is told of a board: one word that reads across the room, and what to do.
///
/// @param word in capitals
/// @param todo a sentence
/// @param lines what goes with a board that is put aside, with the numbers of the entries; or what
///   must be so before it is switched on
/// @param wrong whether something is wrong
public record HelperWords(String word, String todo, List<String> lines, boolean wrong) {
  private static final String PLUG_OUT = "PLUG OUT";

  public HelperWords {
    lines = List.copyOf(lines);
  }

  /// Whether the output may be on.
  public boolean alarmed() {
    return word.equals(PLUG_OUT);
  }

  /// What is said of a board when its output is off, or should be.
  ///
  /// @return empty when no helper is at the bench with it
  public static Optional<HelperWords> of(Revision revision, Ladder ladder, BoardState state) {
    if (Helping.at(state).isEmpty()) {
      return Optional.empty();
    }
    if (PowerFacts.of(state).mayBeOn()) {
      return Optional.of(
          new HelperWords(
              PLUG_OUT,
              "pull the plug of the supply, touch nothing else, and call the maker",
              ticket(state),
              true));
    }
    if (!state.findings().isEmpty()) {
      return Optional.of(
          new HelperWords(
              "PUT ASIDE",
              "board " + state.board() + " goes to the maker, with its ticket",
              ticket(state),
              true));
    }
    Optional<Ladder.RailSpec> guess =
        ladder.raised().stream().filter(Ladder.RailSpec::guessed).findFirst();
    if (BeforePower.over(ladder, state) && guess.isPresent()) {
      return Optional.of(
          new HelperWords(
              "ASK",
              "the maker looks at it: nothing says how many volts " + guess.get().net() + " has",
              List.of(),
              false));
    }
    if (BeforePower.over(ladder, state)) {
      return Optional.of(new HelperWords("GOOD", "take the next board", List.of(), false));
    }
    List<String> must =
        BeforePower.of(revision, ladder, state).stream()
            .filter(i -> i.state() != BeforePower.State.SO)
            .map(BeforePower.Item::says)
            .toList();
    return Optional.of(
        must.isEmpty()
            ? new HelperWords("NEXT", "switch on, and read every rail", List.of(), false)
            : new HelperWords("LOOK", "make each of it so, then press Y", must, false));
  }

  private static List<String> ticket(BoardState state) {
    return state.findings().stream()
        .map(f -> "entry " + f.number() + ": " + f.place() + " " + f.what())
        .toList();
  }
}
