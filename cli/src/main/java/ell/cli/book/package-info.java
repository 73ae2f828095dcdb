/// Commands over the book: make a workspace, log, show, verify, report, export, restore, back up.
///
/// Open [ell.cli.book.LogCommand] first.
package ell.cli.book;
