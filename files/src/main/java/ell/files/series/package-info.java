/// Logs over time.
///
/// Open [ell.files.series.ProfileReader].
package ell.files.series;
