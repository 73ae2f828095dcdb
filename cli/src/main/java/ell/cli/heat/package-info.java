/// Commands of the heat: the plate and logged profiles.
///
/// Open [ell.cli.heat.HeatCommand] first.
package ell.cli.heat;
