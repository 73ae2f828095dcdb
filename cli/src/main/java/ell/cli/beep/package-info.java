/// Commands before power.
///
/// Open [ell.cli.beep.BeepCommand].
package ell.cli.beep;
