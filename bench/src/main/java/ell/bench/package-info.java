/// Instruments over SCPI: a link that carries lines, one client for each kind, time-outs, and off
/// at any surprise.
///
/// In: set points and questions in SI units. Out: readings, or a [ell.bench.link.BenchException] that
/// says which instrument did what. Open [ell.bench.instrument.Supply] first. Knows nothing of the store or the
/// screen.
package ell.bench;

