/// Layers: RS-274X and X2 read into figures, stencils written.
///
/// Open [ell.files.gerber.GerberReader] first; its pen is [ell.files.gerber.GerberPlotter].
package ell.files.gerber;
