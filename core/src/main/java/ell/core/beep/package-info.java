/// Before any power: which joints to beep, in which order, and what to expect.
///
/// Pure computation: immutable values in, immutable values out. Open [ell.core.beep.BeepList]
/// first. Knows nothing of files, stores, instruments or screens.
package ell.core.beep;
