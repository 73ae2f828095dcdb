/// Pulse: clocks, edges and lines. Open [ell.desk.pulse.PulseModel] first.
package ell.desk.pulse;
