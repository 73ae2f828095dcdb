package ell.desk.talk;

/// What the sheet shows, one after the other by a key.
enum TalkFace {
  /// What was sent and heard.
  STRIP,
  /// Links on the board, and operations in the order that heats least.
  LINKS,
  /// Signals and pins.
  PINS,
  /// Elements one behind the other.
  CHAIN;

  TalkFace next() {
    return values()[(ordinal() + 1) % values().length];
  }
}
