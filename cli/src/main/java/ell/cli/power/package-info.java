/// Commands of power: the ladder, and first power.
///
/// Open [ell.cli.power.PowerCommand] first.
package ell.cli.power;
