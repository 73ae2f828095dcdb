package ell.core.power;

import ell.core.quantity.Limits;

/// One step of first power.
///
/// @param volts set point, V
/// @param limit current limit, A
/// @param band predicted current, A
public record PowerStep(double volts, double limit, Limits band) {}
