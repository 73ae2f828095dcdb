/// Beep: the checks before any power, tip by tip. Open [ell.desk.beep.BeepModel] first.
package ell.desk.beep;
