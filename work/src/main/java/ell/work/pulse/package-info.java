/// Clocks, edges and lines: what is said of a revision's places, captures that are kept, and those
/// that a scope takes.
///
/// Open [ell.work.pulse.Captures] first.
package ell.work.pulse;
