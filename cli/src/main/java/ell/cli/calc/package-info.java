/// The catalogue of worked sheets on the command line.
///
/// Open [ell.cli.calc.CalcCommand].
package ell.cli.calc;
