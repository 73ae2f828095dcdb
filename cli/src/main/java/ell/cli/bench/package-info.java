/// Which bench a command works on, and the simulated bench alone.
///
/// Open [ell.cli.bench.BenchOptions] first.
package ell.cli.bench;
