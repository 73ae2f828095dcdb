/// Statistics that several stages use.
///
/// Open [ell.core.statistic.CurveFit].
package ell.core.statistic;
