/// Commands about clocks, edges and lines. Open [ell.cli.pulse.WaveCommand] first.
package ell.cli.pulse;
