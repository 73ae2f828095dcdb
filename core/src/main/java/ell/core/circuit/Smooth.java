package ell.core.circuit;

/// Corners that are a little round, so that they have a slope everywhere: Newton's method needs it,
/// and no real part has a sharp one.
final class Smooth {
  private Smooth() {}

  /// The greater of `x` and 0, round within some `width`.
  static double over(double x, double width) {
    return 0.5 * (x + Math.sqrt(x * x + width * width));
  }

  /// How [#over] grows with `x`.
  static double overSlope(double x, double width) {
    return 0.5 * (1 + x / Math.sqrt(x * x + width * width));
  }

  /// `x` up to a limit, round within some `width` below it: what is left of the limit, taken from
  /// all of it, without the difference of two large numbers.
  static double upTo(double x, double limit, double width) {
    double all = Math.sqrt(limit * limit + width * width);
    double left = Math.sqrt((limit - x) * (limit - x) + width * width);
    return 0.5 * (x + x * (2 * limit - x) / (all + left));
  }

  /// From 0 to 1 as `x` goes from 0 to 1, flat outside.
  static double step(double x) {
    return x <= 0 ? 0 : x >= 1 ? 1 : x * x * (3 - 2 * x);
  }

  /// How [#step] grows with `x`.
  static double stepSlope(double x) {
    return x <= 0 || x >= 1 ? 0 : 6 * x * (1 - x);
  }

  /// The exponential, going on straight from `most` on, where no part follows it any more.
  static double exp(double x, double most) {
    return x <= most ? Math.exp(x) : Math.exp(most) * (1 + x - most);
  }

  /// How [#exp] grows with `x`.
  static double expSlope(double x, double most) {
    return Math.exp(Math.min(x, most));
  }
}
