/// Takes in: the files of a revision, its layers, shelves, offers, parameters; told apart by what
/// is in them, held against each other, kept whole or not at all.
///
/// In: files. Out: revisions and builds in the book, or every problem. Open
/// [ell.work.bring.RevisionImport] first, then [ell.work.bring.Revisions]. Knows no stage.
package ell.work.bring;
