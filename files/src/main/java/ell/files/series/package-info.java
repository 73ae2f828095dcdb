/// Logs over time.
///
/// Open [ell.files.series.LogReader]; [ell.files.series.ProfileReader] is a log of temperatures.
package ell.files.series;
