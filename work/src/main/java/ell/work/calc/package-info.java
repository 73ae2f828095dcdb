/// The whole catalogue of worked sheets, those that read files too.
///
/// Open [ell.work.calc.FileSheets].
package ell.work.calc;
