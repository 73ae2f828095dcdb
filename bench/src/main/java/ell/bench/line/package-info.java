/// Lines to boards: a serial port or a socket that carries bytes, opened, lost and found again.
///
/// In: an address. Out: a [ell.bench.line.Line]. Knows nothing of what is said over it.
package ell.bench.line;
