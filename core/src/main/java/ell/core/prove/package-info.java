/// How sure: intervals and trials for counts of failures.
///
/// Pure computation: immutable values in, immutable values out. Open [ell.core.prove.Counts] first.
/// Knows nothing of files, stores, instruments or screens.
package ell.core.prove;
