/// The acts of the heat: runs of a plate driven and logged, windows, dry bags; the rule that counts
/// heatings.
///
/// Open [ell.work.heat.PlateAct] first, then [ell.work.heat.Heating].
package ell.work.heat;
