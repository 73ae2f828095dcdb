/// Worked sheets: a computation that shows its working, and the description of stand-alone sheets.
///
/// In: named inputs with units. Out: a [ell.core.sheet.Worked] sheet as data (lines, results,
/// verdict, sources, assumptions, cautions), which the screen, the terminal and the printed record
/// each render in one place. Open [ell.core.sheet.Worked] first. The sheets themselves live beside
/// the functions that they explain, in the package of their stage.
package ell.core.sheet;
