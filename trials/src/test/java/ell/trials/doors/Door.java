package ell.trials.doors;

/// A door to the work: everything that is done comes in as the line that a maker would type for it,
/// or, where the door has a key for it, as the key.
interface Door extends AutoCloseable {
  /// Does a move.
  ///
  /// @param line that stands for it
  void play(String board, Move.Kind kind, String line) throws Exception;

  @Override
  void close() throws Exception;
}
