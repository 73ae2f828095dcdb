/// What a printed record of a board says, as data; drawn as PDF, CSV and JSON elsewhere.
///
/// Open [ell.core.record.BoardRecord] first.
package ell.core.record;
