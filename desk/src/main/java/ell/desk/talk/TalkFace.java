package ell.desk.talk;

/// What the sheet shows: one after the other by a key.
enum TalkFace {
  /// What was sent and heard.
  STRIP("the line"),
  /// Links on the board, and operations in the order that heats least.
  LINKS("links"),
  /// Signals and pins.
  PINS("pins"),
  /// Elements one behind the other.
  CHAIN("the chain");

  private final String words;

  TalkFace(String words) {
    this.words = words;
  }

  String words() {
    return words;
  }

  TalkFace next() {
    return values()[(ordinal() + 1) % values().length];
  }
}
