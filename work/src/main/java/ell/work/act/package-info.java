/// Acts: how anything gets into the book. An act is completed, held against the rules of the work,
/// and logged whole, or refused with the rule, why, and how to do it all the same.
///
/// In: a board and entries. Out: [ell.work.act.Outcome]. Open [ell.work.act.Acts] first. The rules
/// themselves stand in the stages.
package ell.work.act;
