package ell.core.power;

import ell.core.quantity.Limits;

/// One step of first power.
///
/// @param volts set point, V
/// @param limit current limit, A
/// @param band predicted current, A
/// @param charging seconds in which a healthy board has come to rest
public record PowerStep(double volts, double limit, Limits band, double charging) {
  /// A step of a board that has nothing to charge.
  public PowerStep(double volts, double limit, Limits band) {
    this(volts, limit, band, 0);
  }
}
