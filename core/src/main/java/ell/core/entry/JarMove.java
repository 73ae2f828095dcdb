package ell.core.entry;

import java.util.Arrays;
import java.util.Optional;

/// What was done with a jar of paste.
public enum JarMove {
  /// It arrived, or was counted, cold.
  FRIDGE("cold"),
  /// Out of the cold, still closed.
  WARMING("warming"),
  /// Opened, stirred, in use.
  OPEN("open"),
  /// Paste of it lies on the foil.
  STENCIL("foil"),
  /// Closed again, not in the cold.
  CLOSED("closed"),
  /// A test board came out well with it.
  TESTED("tested"),
  /// Thrown away.
  DISCARDED("discarded");

  private final String key;

  JarMove(String key) {
    this.key = key;
  }

  /// The fixed word in files and on the tape.
  public String key() {
    return key;
  }

  /// The move with this word.
  public static Optional<JarMove> of(String word) {
    return Arrays.stream(values()).filter(m -> m.key.equals(word)).findFirst();
  }
}
