package ell.work.act;

import ell.core.entry.Entry;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.Optional;

/// A rule of the work. It is asked before every entry that anybody logs by whatever door; a rule
/// that the maker set aside for a board (`override RULE WHY`) is not asked for that board.
public interface Rule {
  /// Its word, as it is named in `override RULE WHY`.
  String key();

  /// What it guards, in a few words, for help.
  String guards();

  /// Why an entry may not be logged, empty when it may.
  ///
  /// @param next the entry
  /// @param s the board as it is before the entry
  Optional<Refusal> refusal(Entry next, Situation s) throws IOException, ActException;
}
