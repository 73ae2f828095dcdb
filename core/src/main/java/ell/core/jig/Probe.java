package ell.core.jig;

/// A probe of a jig.
///
/// @param number counted from 1, as in the wiring list
/// @param target where it lands
/// @param series which it is of, as a place in `target.fits()`
/// @param role `force`, `sense`, `ground` or `signal`
/// @param gapMm to the nearest other probe on its side, infinite when there is none
public record Probe(int number, Target target, int series, String role, double gapMm) {
  /// Its series.
  public ProbeSeries of() {
    return target.fits().get(series);
  }

  /// The chance that it misses.
  public double miss() {
    return target.misses().get(series);
  }
}
