/// The acts of the print: paste layers, jars, prints and their steps as one act.
///
/// Open [ell.work.print.Printing] first, then [ell.work.print.PrintWork].
package ell.work.print;
