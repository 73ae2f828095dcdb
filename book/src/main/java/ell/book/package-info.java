/// The workspace on disk: one SQLite file, and in it the append-only book.
///
/// In: values of the core. Out: the same values, as they were acknowledged. Every append is one
/// transaction that is on disk before the call returns. Open [ell.book.Book] first. Knows nothing
/// of files to import, instruments or screens.
package ell.book;
