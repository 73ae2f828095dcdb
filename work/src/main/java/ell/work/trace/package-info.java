/// Tracing as the workshop sees it: what the books of a bench say of a board and its sisters comes
/// together here, and a finding goes into the book.
///
/// Open [ell.work.trace.Traces] first.
package ell.work.trace;
