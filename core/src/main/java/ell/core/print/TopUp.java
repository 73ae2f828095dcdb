package ell.core.print;

import ell.core.quantity.Check;

/// A dot of paste added by needle where a pad came out short.
///
/// @param domeDiameter of a half ball of that volume, metre
/// @param threadLength of the thread that a needle of the given bore leaves, metre
public record TopUp(double domeDiameter, double threadLength) {
  /// Works it out: a half ball has `π·d³/12`, a thread `π·b²/4·l`.
  ///
  /// @param volume m³
  /// @param needleBore metre
  /// @throws IllegalArgumentException when volume is not above 0 or needleBore is not above 0
  public static TopUp of(double volume, double needleBore) {
    Check.positive(volume, "volume");
    Check.positive(needleBore, "needleBore");
    return new TopUp(
        Math.cbrt(12 * volume / Math.PI), volume / (Math.PI * needleBore * needleBore / 4));
  }
}
