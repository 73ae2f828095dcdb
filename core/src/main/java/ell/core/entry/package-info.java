/// What the book holds: the sealed kinds of entry, their JSON, and the state of a board folded from
/// them.
///
/// Pure computation: immutable values in, immutable values out. Open [ell.core.entry.Entry] first.
/// Knows nothing of files, stores, instruments or screens.
package ell.core.entry;
