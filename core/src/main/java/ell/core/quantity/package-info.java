/// Engineering numbers: units, prefixes, limits, uncertainty and the three-way verdict.
///
/// In: text as makers write it (`4k7`, `0R1`, `12,5 mm`) or plain numbers. Out: SI values, text
/// that reads back to the same value, and verdicts. Open [ell.core.quantity.EngineeringNumber]
/// first. This package knows nothing of boards.
package ell.core.quantity;
