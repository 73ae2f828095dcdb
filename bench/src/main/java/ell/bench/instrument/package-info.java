/// A client for each kind of instrument: what it is told, what it is asked, and off at any
/// surprise.
///
/// In: set points and questions in SI units. Out: readings, or a [ell.bench.link.BenchException].
/// Open [ell.bench.instrument.Supply] first.
package ell.bench.instrument;
