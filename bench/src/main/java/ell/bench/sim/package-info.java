/// The simulated bench: SCPI servers on the loopback (supply, meter, hands) over the direct-current
/// model of a board with its faults. Any SCPI client can talk to it.
///
/// In: lines over a socket. Out: lines over a socket. Open [ell.bench.sim.SimBench] first.
package ell.bench.sim;
