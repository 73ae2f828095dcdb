/// Heat: the profile in its window, the plate as it runs, and what each joint wants from an iron.
/// Open [ell.desk.heat.HeatModel] first.
package ell.desk.heat;
