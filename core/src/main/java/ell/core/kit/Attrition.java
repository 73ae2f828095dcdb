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
}
