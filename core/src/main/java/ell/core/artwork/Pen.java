package ell.core.artwork;

import java.util.List;

/// What a round pen leaves: a path and a width. Whether two of them touch needs no corners.
final class Pen {
  /// More pairs of runs than this are not worth looking at one by one.
  static final long FEW = 400;

  private Pen() {}

  /// The path of a figure that a round pen leaves, null when it is another figure.
  static List<double[]> path(Figure f) {
    return switch (f) {
      case Figure.Stroke s when s.pen().penMm() > 0 -> s.path();
      case Figure.Flash x when x.template().penMm() > 0 ->
          List.<double[]>of(new double[] {x.x(), x.y()});
      case Figure.Stroke _, Figure.Flash _, Figure.Region _ -> null;
    };
  }

  /// Width of the pen of such a figure, millimetre.
  static double width(Figure f) {
    return switch (f) {
      case Figure.Stroke s -> s.pen().penMm();
      case Figure.Flash x -> x.template().penMm();
      case Figure.Region _ -> Double.NaN;
    };
  }

  /// How far two paths are from each other, millimetre; 0 when they cross.
  static double distance(List<double[]> a, List<double[]> b) {
    double least = Double.POSITIVE_INFINITY;
    for (int i = 0; i < Math.max(1, a.size() - 1); i++) {
      double[] a0 = a.get(i);
      double[] a1 = a.get(Math.min(i + 1, a.size() - 1));
      for (int k = 0; k < Math.max(1, b.size() - 1); k++) {
        double[] b0 = b.get(k);
        double[] b1 = b.get(Math.min(k + 1, b.size() - 1));
        least = Math.min(least, runs(a0, a1, b0, b1));
      }
    }
    return least;
  }

  private static double runs(double[] a0, double[] a1, double[] b0, double[] b1) {
    if (crosses(a0, a1, b0, b1)) {
      return 0;
    }
    return Math.min(
        Math.min(toRun(a0, b0, b1), toRun(a1, b0, b1)),
        Math.min(toRun(b0, a0, a1), toRun(b1, a0, a1)));
  }

  private static boolean crosses(double[] a0, double[] a1, double[] b0, double[] b1) {
    return side(a0, a1, b0) * side(a0, a1, b1) < 0 && side(b0, b1, a0) * side(b0, b1, a1) < 0;
  }

  private static double side(double[] a, double[] b, double[] p) {
    return (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]);
  }

  private static double toRun(double[] p, double[] a, double[] b) {
    double dx = b[0] - a[0];
    double dy = b[1] - a[1];
    double q = dx * dx + dy * dy;
    double f = q == 0 ? 0 : Math.clamp(((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / q, 0, 1);
    return Math.hypot(p[0] - a[0] - f * dx, p[1] - a[1] - f * dy);
  }
}
