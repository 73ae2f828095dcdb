package ell.core.jig;

import ell.core.quantity.Check;

/// A rectangle held along its edges, free to turn there, under an even pressure: Navier's series
/// (Timoshenko, Theory of Plates and Shells, chapter 5).
///
/// @param rigidity D, N m
/// @param deflection in the middle, m
/// @param strain of the surface in the middle
public record PlateSeries(double rigidity, double deflection, double strain) {
  private static final int TERMS = 201;

  /// Works it.
  ///
  /// @param length m
  /// @param width m
  /// @param thickness m
  /// @param modulus Pa
  /// @param nu Poisson's ratio, 0...0.499
  /// @param pressure Pa
  /// @throws IllegalArgumentException when a length or the modulus is not above 0, or the pressure
  ///   below
  public static PlateSeries of(
      double length, double width, double thickness, double modulus, double nu, double pressure) {
    Check.positive(length, "length");
    Check.positive(width, "width");
    Check.positive(thickness, "thickness");
    Check.positive(modulus, "modulus");
    Check.notNegative(pressure, "pressure");
    double d = modulus * Math.pow(thickness, 3) / (12 * (1 - nu * nu));
    double w = 0;
    double xx = 0;
    double yy = 0;
    for (int m = 1; m <= TERMS; m += 2) {
      for (int n = 1; n <= TERMS; n += 2) {
        double a = m / length;
        double b = n / width;
        double sign = (m + n) / 2 % 2 == 1 ? 1 : -1;
        double c = sign / (m * (double) n * Math.pow(a * a + b * b, 2));
        w += c;
        xx += c * a * a;
        yy += c * b * b;
      }
    }
    double f = 16 * pressure / (Math.pow(Math.PI, 6) * d);
    double k = f * Math.PI * Math.PI * Math.max(Math.abs(xx), Math.abs(yy));
    return new PlateSeries(d, f * w, thickness / 2 * k);
  }
}
