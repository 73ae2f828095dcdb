package ell.trials.doors;

/// One move of a walk: what to do, and a number from which everything else about it is taken, so
/// that a walk can be shortened and played again.
///
/// @param kind which of [Kind]
/// @param salt chooses among what there is at that moment
record Move(Kind kind, int salt) {
  /// What can be done.
  enum Kind {
    /// The next step of the order, or the gate that is next.
    STEP,
    /// A print of the side in hand.
    PRINT,
    /// The joint in hand looks good.
    GOOD,
    /// A defect at the joint in hand.
    DEFECT,
    /// An open loop at the check in hand.
    OPEN_LOOP,
    /// The last entry is taken back.
    STRIKE,
    /// A typed line.
    LINE,
    /// Another board is taken in hand.
    BOARD
  }
}
