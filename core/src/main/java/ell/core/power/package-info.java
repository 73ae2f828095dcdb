/// First power and rails
///
/// Pure computation on immutable values in, immutable values out. Open [ell.core.power. the ladder,
/// expected currents and limits, staged power, and the sheets behind them.:PowerLadder] first.
/// Knows nothing of files, stores, instruments or screens.
package ell.core.power;
