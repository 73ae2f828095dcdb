package ell.work.bring;

/// A fabricated layer that is kept with a revision as it was sent.
public enum LayerKind {
  /// Paste of the first side.
  PASTE_FIRST("paste-first", "paste of the first side"),
  /// Paste of the second side.
  PASTE_SECOND("paste-second", "paste of the second side"),
  /// Lines and letters of the first side.
  LEGEND("legend", "legend"),
  /// Copper of the first side.
  COPPER_FIRST("copper-first", "copper of the first side"),
  /// Copper of the second side.
  COPPER_SECOND("copper-second", "copper of the second side"),
  /// Holes.
  DRILL("drill", "drill"),
  /// Edge, when it came as a layer or later than the rest.
  OUTLINE("outline", "outline");

  private final String key;
  private final String words;

  LayerKind(String key, String words) {
    this.key = key;
    this.words = words;
  }

  /// The fixed word under which it is kept.
  public String key() {
    return key;
  }

  /// In words.
  public String words() {
    return words;
  }
}
