/// Drill files: XNC and Excellon.
///
/// Open [ell.files.drill.DrillReader].
package ell.files.drill;
