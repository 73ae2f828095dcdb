/// Clocks, edges and lines: what a signal does on its way, and whether it arrives as one.
///
/// Pure computation on immutable values in, immutable values out. Open [ell.core.pulse.PulseSheets]
/// first. Knows nothing of files, stores, instruments or screens.
package ell.core.pulse;
