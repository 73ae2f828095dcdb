/// The bench as acts use it: instruments on sockets, and the simulated bench for the boards of a
/// workspace.
///
/// Open [ell.work.bench.SocketBench] first.
package ell.work.bench;
