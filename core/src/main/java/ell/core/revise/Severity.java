package ell.core.revise;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/// How bad an erratum is.
public enum Severity {
  /// Power may do damage while it is there: no power before it is mended.
  HARM("may do damage"),
  /// The board does not do its work.
  FAILS("does not do its work"),
  /// It works, and could be better.
  ANNOYS("works, with a nuisance"),
  /// Something for the next revision only: no board is mended.
  WISH("for the next revision");

  private final String words;

  Severity(String words) {
    this.words = words;
  }

  /// The word in files and on the tape.
  public String key() {
    return name().toLowerCase(Locale.ROOT);
  }

  /// What it means.
  public String words() {
    return words;
  }

  /// Whether boards wait for it: at the gate, and before they are used.
  public boolean holds() {
    return this == HARM || this == FAILS;
  }

  /// The severity that a word means, empty for none.
  public static Optional<Severity> of(String word) {
    return Arrays.stream(values())
        .filter(s -> s.key().equals(word.strip().toLowerCase(Locale.ROOT)))
        .findFirst();
  }
}
