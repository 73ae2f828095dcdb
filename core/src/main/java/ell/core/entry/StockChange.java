package ell.core.entry;

import java.util.Locale;
import java.util.Optional;

/// How a shelf changes other than by building.
public enum StockChange {
  /// What lies in a bin was counted.
  COUNTED,
  /// What was on order has come.
  RECEIVED,
  /// More is under way.
  ORDERED;

  /// The change as a word on the tape and a key in files.
  public String key() {
    return name().toLowerCase(Locale.ROOT);
  }

  /// The change that a word means, if it means one.
  public static Optional<StockChange> of(String word) {
    return switch (word.toLowerCase(Locale.ROOT)) {
      case "counted", "count" -> Optional.of(COUNTED);
      case "received", "receive" -> Optional.of(RECEIVED);
      case "ordered", "order" -> Optional.of(ORDERED);
      default -> Optional.empty();
    };
  }
}
