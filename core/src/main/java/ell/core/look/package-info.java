/// Joint by joint: the walk, defects and what causes them, rates and whether a change matters.
///
/// In: a revision, the entries of boards. Out: a walk, counts, charts, verdicts of exact tests.
/// Open [ell.core.look.Walk] first. Knows nothing of files, stores or screens.
package ell.core.look;
