package ell.core.entry;

import java.util.Arrays;
import java.util.Optional;

/// How printed paste lies on a pad.
public enum PasteLook {
  /// As the opening is.
  GOOD,
  /// Nothing there.
  MISSING,
  /// Too little.
  THIN,
  /// Pulled out of shape.
  SMEARED,
  /// Joined with its neighbour.
  BRIDGED;

  /// The fixed word in files and on the tape.
  public String key() {
    return name().toLowerCase(java.util.Locale.ROOT);
  }

  /// The look with this word.
  public static Optional<PasteLook> of(String word) {
    return Arrays.stream(values()).filter(l -> l.key().equals(word)).findFirst();
  }
}
