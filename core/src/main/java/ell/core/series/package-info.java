/// Readings over time of any kind, evenly or unevenly apart: logs, profiles, currents.
///
/// Open [ell.core.series.Series].
package ell.core.series;
