package ell.core.artwork;

import java.util.ArrayList;
import java.util.List;

/// Arcs as corners. A full circle gets [#PER_TURN] corners: its area is then 0.02 % small and its
/// edge 0.005 % short (1 − sin(2π/n)/(2π/n), and 1 − sin(π/n)/(π/n)).
public final class Arcs {
  /// Corners of a full circle.
  public static final int PER_TURN = 180;

  private Arcs() {}

  /// Corners of an arc, its first point left out, its last one in.
  ///
  /// @param clockwise as seen with x to the right and y up
  /// @param full whether an arc that ends where it begins is a whole circle, else nothing
  /// @return `{x, y}` each
  public static List<double[]> corners(
      double x0,
      double y0,
      double x1,
      double y1,
      double cx,
      double cy,
      boolean clockwise,
      boolean full) {
    double r0 = Math.hypot(x0 - cx, y0 - cy);
    double r1 = Math.hypot(x1 - cx, y1 - cy);
    double a0 = Math.atan2(y0 - cy, x0 - cx);
    double turn = Math.atan2(y1 - cy, x1 - cx) - a0;
    double hair = 1e-9;
    if (clockwise) {
      turn = turn > -hair ? turn - 2 * Math.PI : turn;
      turn = turn < -2 * Math.PI + hair ? full ? -2 * Math.PI : 0 : turn;
    } else {
      turn = turn < hair ? turn + 2 * Math.PI : turn;
      turn = turn > 2 * Math.PI - hair ? full ? 2 * Math.PI : 0 : turn;
    }
    int n = Math.max(1, (int) Math.ceil(Math.abs(turn) / (2 * Math.PI) * PER_TURN - 1e-6));
    List<double[]> out = new ArrayList<>(n);
    for (int i = 1; i < n; i++) {
      double f = (double) i / n;
      double r = r0 + (r1 - r0) * f;
      double a = a0 + turn * f;
      out.add(new double[] {cx + r * Math.cos(a), cy + r * Math.sin(a)});
    }
    out.add(new double[] {x1, y1});
    return out;
  }
}
