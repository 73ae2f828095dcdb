/// Does a board pass, and how sure: test plans, what they found, what a build says of its process.
///
/// Pure computation: immutable values in, immutable values out. Open [ell.core.statistic.Counts]
/// first. Knows nothing of files, stores, instruments or screens.
package ell.core.prove;
