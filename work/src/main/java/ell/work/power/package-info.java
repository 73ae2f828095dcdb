/// The acts of power: first power stage by stage, readings judged, ladders kept; the rule that
/// power waits for the beeper.
///
/// Open [ell.work.power.PowerRun] first.
package ell.work.power;
