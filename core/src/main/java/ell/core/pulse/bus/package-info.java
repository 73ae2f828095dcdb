/// What is said on the lines that a bring-up wants to see answer: UART, two-wire, SPI. In come
/// captures as transitions, out come frames with what is wrong about them.
///
/// Open [ell.core.pulse.bus.Decoded] first.
package ell.core.pulse.bus;
