/// The ground of the workshop: the book with its entries and states, and who hears of changes.
///
/// Open [ell.work.space.Workspace] first. Services stand on it and are never called by it but as
/// listeners. Knows nothing of stages.
package ell.work.space;
