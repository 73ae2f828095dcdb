package ell.core.kit;

import ell.core.quantity.Check;

/// How many parts of a line are lost between reel and board.
///
/// @param rate fraction of the quantity, 0...1
/// @param minimum at least this many, not below 0
public record Attrition(double rate, long minimum) {
  public Attrition {
    Check.inRange(rate, 0, 1, "rate");
    Check.notNegative(minimum, "minimum");
  }

  /// No loss: large parts, key parts.
  public static final Attrition NONE = new Attrition(0, 0);

  /// The extra parts for a quantity; none when nothing is needed.
  public long extra(long quantity) {
    if (quantity <= 0) {
      return 0;
    }
    // a hair below the product, so that 0.05 · 100 is 5 and not 6
    return Math.max((long) Math.ceil(rate * quantity - 1e-9), minimum);
  }

  /// The rule for a chip of this length, by size class; typical values, no source: up to 0402 10 %,
  /// at least 5; 0603 to 1206 5 %, at least 2; others none.
  ///
  /// @param chipCode the imperial size code such as `0603`, or empty when the part is no chip
  /// @param key true for a part that the build hangs on
  public static Attrition typical(String chipCode, boolean key) {
    if (key) {
      return NONE;
    }
    return switch (chipCode) {
      case "01005", "0201", "0402" -> new Attrition(0.10, 5);
      case "0603", "0805", "1206" -> new Attrition(0.05, 2);
      default -> NONE;
    };
  }
}
