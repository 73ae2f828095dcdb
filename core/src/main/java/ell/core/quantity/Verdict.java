package ell.core.quantity;

import java.util.Locale;

/// What a reading says about a limit once its uncertainty is counted.
public enum Verdict {
  /// Inside the limits by more than the uncertainty.
  WITHIN("within"),
  /// Too close to call: the uncertainty straddles a limit.
  CLOSE("too close to call"),
  /// Outside the limits by more than the uncertainty.
  OUT("out");

  private final String words;

  Verdict(String words) {
    this.words = words;
  }

  /// The verdict in words, as shown to a person.
  public String words() {
    return words;
  }

  /// The verdict as a key in files: `within`, `close` or `out`.
  public String key() {
    return name().toLowerCase(Locale.ROOT);
  }

  /// The verdict with this key.
  ///
  /// @throws IllegalArgumentException when there is none
  public static Verdict ofKey(String key) {
    for (Verdict v : values()) {
      if (v.key().equals(key)) {
        return v;
      }
    }
    throw new IllegalArgumentException("a verdict is within, close or out, got '" + key + "'");
  }

  /// The graver of two verdicts.
  public Verdict and(Verdict other) {
    return compareTo(other) >= 0 ? this : other;
  }
}
