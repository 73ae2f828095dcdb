package ell.core.jig;

/// The sum of errors that do not depend on each other, each equally likely from its limit below to
/// its limit above: its distribution, worked out on a grid by averaging over one error after the
/// other.
final class EvenSum {
  private static final int STEPS = 512;
  private static final double NOTHING = 1e-9;

  private final double total;
  private final double step;
  private final double[] below; // chance to lie below, over -total ... total

  /// @param limits each 0 or more
  EvenSum(double... limits) {
    double sum = 0;
    double most = 0;
    for (double l : limits) {
      sum += Math.abs(l);
      most = Math.max(most, Math.abs(l));
    }
    total = sum;
    step = 2 * total / STEPS;
    below = new double[STEPS + 1];
    for (int i = 0; i <= STEPS && most > 0; i++) {
      below[i] = Math.clamp((x(i) + most) / (2 * most), 0, 1);
    }
    boolean taken = false;
    for (double l : limits) {
      double limit = Math.abs(l);
      if (limit == most && !taken) {
        taken = true;
      } else if (limit > NOTHING * total) {
        average(limit);
      }
    }
  }

  private double x(int i) {
    return -total + i * step;
  }

  private void average(double limit) {
    double[] area = new double[STEPS + 1];
    for (int i = 1; i <= STEPS; i++) {
      area[i] = area[i - 1] + step * (below[i - 1] + below[i]) / 2;
    }
    double[] was = below.clone();
    for (int i = 0; i <= STEPS; i++) {
      below[i] =
          Math.clamp(
              (area(area, was, x(i) + limit) - area(area, was, x(i) - limit)) / (2 * limit), 0, 1);
    }
  }

  private double area(double[] area, double[] values, double x) {
    if (x <= -total) {
      return 0;
    }
    if (x >= total) {
      return area[STEPS] + (x - total);
    }
    double at = (x + total) / step;
    int i = Math.min(STEPS - 1, (int) at);
    double part = at - i;
    double v = values[i] + part * (values[i + 1] - values[i]);
    return area[i] + step * part * (values[i] + v) / 2;
  }

  /// The chance to lie below a value.
  double below(double x) {
    if (total == 0) {
      return x >= 0 ? 1 : 0;
    }
    if (x <= -total) {
      return 0;
    }
    if (x >= total) {
      return 1;
    }
    double at = (x + total) / step;
    int i = Math.min(STEPS - 1, (int) at);
    return below[i] + (at - i) * (below[i + 1] - below[i]);
  }

  /// The chance to lie within a half width.
  double within(double half) {
    return half >= total ? 1 : below(half) - below(-half);
  }

  /// The chance that this and another lie within a disc.
  double within(EvenSum other, double radius) {
    if (total == 0) {
      return other.within(radius);
    }
    double sum = 0;
    for (int i = 0; i < STEPS; i++) {
      double mid = x(i) + step / 2;
      double left = radius * radius - mid * mid;
      if (left > 0) {
        sum += (below[i + 1] - below[i]) * other.within(Math.sqrt(left));
      }
    }
    return sum;
  }
}
