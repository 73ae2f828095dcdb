/// Proof of boards: test plans that are kept with a revision, runs of them with the instruments,
/// the gate before a board is used.
///
/// Open [ell.work.prove.ProveRun] first.
package ell.work.prove;
