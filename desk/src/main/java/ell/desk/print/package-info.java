/// Print: the paste layer in ink, what releases and what does not, the jar and the log of prints.
/// Open [ell.desk.print.PrintModel] first.
package ell.desk.print;
