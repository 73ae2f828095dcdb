/// The acts: what a maker can do, once, for the command line and the window alike.
///
/// In: files, lines typed on the tape, keys. Out: entries in the book, checks and records as data,
/// or a sentence about what is wrong. Open [ell.work.Workshop] first. Knows nothing of screens.
package ell.work;

