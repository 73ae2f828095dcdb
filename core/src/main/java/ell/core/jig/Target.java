package ell.core.jig;

import ell.core.board.Side;
import java.util.List;

/// A place where a probe could land.
///
/// @param net that it belongs to
/// @param place the joint, or `via` with its coordinates
/// @param xMm where the probe lands
/// @param yMm where the probe lands
/// @param side from which it comes
/// @param widthMm of the copper that is free, along its own x
/// @param heightMm of the copper that is free, along its own y
/// @param round whether it is a disc
/// @param rotationDeg of the copper
/// @param assumed whether its size is not in the files
/// @param fits the series that have room there, the largest first
/// @param misses the chance that a probe misses it, by series as in `fits`
public record Target(
    String net,
    String place,
    double xMm,
    double yMm,
    Side side,
    TargetKind kind,
    double widthMm,
    double heightMm,
    boolean round,
    double rotationDeg,
    boolean assumed,
    List<ProbeSeries> fits,
    List<Double> misses) {
  public Target {
    fits = List.copyOf(fits);
    misses = List.copyOf(misses);
  }

  /// Distance to another, in millimetre.
  public double distanceMm(Target o) {
    return Math.hypot(xMm - o.xMm, yMm - o.yMm);
  }

  /// How good it is to land on with one of its series, 0 the best, in thousandths of a rank: what
  /// kind it is, and a rank more for each quarter of a chance to miss it.
  long worth(int series) {
    return 1000L * kind.ordinal() + Math.round(4000 * misses.get(series));
  }

  Target with(List<ProbeSeries> series, List<Double> chances) {
    return new Target(
        net,
        place,
        xMm,
        yMm,
        side,
        kind,
        widthMm,
        heightMm,
        round,
        rotationDeg,
        assumed,
        series,
        chances);
  }
}
