/// Tables as makers have them: bills, placements, shelves, offers, parameters, outlines.
///
/// In: CSV in the wild. Out: a [ell.files.Read]. Open [ell.files.csv.Table] first.
package ell.files.csv;
