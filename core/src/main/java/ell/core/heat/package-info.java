/// Wires and holes, and later profiles and irons.
///
/// Pure computation on immutable values in, immutable values out. Open [ell.core.heat.WireSheets]
/// first. Knows nothing of files, stores, instruments or screens.
package ell.core.heat;
