/// Statistics that several stages use.
///
/// Open [ell.core.statistic.Counts] first.
package ell.core.statistic;
