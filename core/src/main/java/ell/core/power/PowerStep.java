package ell.core.power;

import ell.core.quantity.Limits;

/// One step of first power.
///
/// @param rail that the output feeds
/// @param output of the supply, counted from 1
/// @param volts set point, V
/// @param limit current limit, A
/// @param band predicted current, A
/// @param charging seconds in which a healthy board has come to rest
/// @param known whether the model found what a healthy board draws; else the band is all that the
///   limit lets through, and decides nothing but that
public record PowerStep(
    String rail,
    int output,
    double volts,
    double limit,
    Limits band,
    double charging,
    boolean known) {
  /// A step on the first output of a board that has nothing to charge.
  public PowerStep(double volts, double limit, Limits band) {
    this("", 1, volts, limit, band, 0, true);
  }
}
