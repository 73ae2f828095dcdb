/// Where the fault of a board is: which faults may be, what each would show, how likely each is
/// after what was seen, and what to measure next.
///
/// A revision and the facts of its boards come in; chances, measurements with their worth and a
/// finding go out. Pure computation. Open [ell.core.trace.Tracer] first, then
/// [ell.core.trace.Belief].
package ell.core.trace;
