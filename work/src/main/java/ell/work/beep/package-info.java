/// The acts before power: checks made with a meter.
///
/// Open [ell.work.beep.BeepRun] first.
package ell.work.beep;
