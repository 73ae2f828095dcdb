package ell.core.pulse;

import ell.core.quantity.Check;

/// A conductor over or between planes, as a line: its impedance, and how fast a signal runs on it.
///
/// @param z0 characteristic impedance, Ω
/// @param erEff the relative permittivity that a signal on it sees, 1 or more
public record LineOnBoard(double z0, double erEff) {
  /// Of light in nothing, m/s, by definition of the metre.
  public static final double LIGHT = 299_792_458;

  /// Wave impedance of nothing, Ω. Source: CODATA.
  private static final double ETA = 376.730313668;

  private static final double WIDE = 20;
  private static final int ROUNDS = 40;

  /// Metres a second.
  public double velocity() {
    return LIGHT / Math.sqrt(erEff);
  }

  /// A strip over a plane. Source: Hammerstad and Jensen, Accurate models for microstrip
  /// computer-aided design, 1980, written from memory.
  ///
  /// @param width of the strip, m, above 0
  /// @param height over the plane, m, above 0
  /// @param thickness of the strip, m, 0 or more
  /// @param er of what lies between, 1 or more
  /// @throws IllegalArgumentException when a value is out of its range
  public static LineOnBoard microstrip(double width, double height, double thickness, double er) {
    double u = Check.positive(width, "width") / Check.positive(height, "height");
    double t = Check.notNegative(thickness, "thickness") / height;
    Check.inRange(er, 1, 1000, "er");
    double wider =
        t == 0 ? 0 : t / Math.PI * Math.log(1 + 4 * Math.E * t(Math.sqrt(6.517 * u)) / t);
    double u1 = u + wider;
    double ur = u + wider * (1 + 1 / Math.cosh(Math.sqrt(er - 1))) / 2;
    double e = permittivity(ur, er);
    double ratio = inAir(u1) / inAir(ur);
    return new LineOnBoard(inAir(ur) / Math.sqrt(e), e * ratio * ratio);
  }

  /// One over the square of the hyperbolic cotangent.
  private static double t(double x) {
    double th = Math.tanh(x);
    return th * th;
  }

  private static double inAir(double u) {
    double f = 6 + (2 * Math.PI - 6) * Math.exp(-Math.pow(30.666 / u, 0.7528));
    return ETA / (2 * Math.PI) * Math.log(f / u + Math.sqrt(1 + 4 / (u * u)));
  }

  private static double permittivity(double u, double er) {
    double u4 = u * u * u * u;
    double a =
        1
            + Math.log((u4 + u * u / 2704) / (u4 + 0.432)) / 49
            + Math.log(1 + Math.pow(u / 18.1, 3)) / 18.7;
    double b = 0.564 * Math.pow((er - 0.9) / (er + 3), 0.053);
    return (er + 1) / 2 + (er - 1) / 2 * Math.pow(1 + 10 / u, -a * b);
  }

  /// A strip in the middle between two planes: exact where it is thin. Source: Cohn, Characteristic
  /// impedance of the shielded-strip transmission line, 1954; what thickness adds to the width by
  /// Wheeler, 1978; both written from memory.
  ///
  /// @param width of the strip, m, above 0
  /// @param height from plane to plane, m, above `thickness`
  /// @param thickness of the strip, m, 0 or more
  /// @param er of what lies between, 1 or more
  /// @throws IllegalArgumentException when a value is out of its range
  public static LineOnBoard stripline(double width, double height, double thickness, double er) {
    Check.positive(width, "width");
    Check.positive(height, "height");
    Check.inRange(thickness, 0, 0.9 * height, "thickness");
    Check.inRange(er, 1, 1000, "er");
    double x = thickness / height;
    double wide = width / (height - thickness);
    if (x > 0) {
      double m = 2 / (1 + 2.0 / 3 * x / (1 - x));
      double a = x / (2 - x);
      double b = 0.0796 * x / (width / height + 1.1 * x);
      wide += x / (Math.PI * (1 - x)) * (1 - Math.log(a * a + Math.pow(b, m)) / 2);
    }
    return new LineOnBoard(30 * Math.PI / Math.sqrt(er) * integrals(wide), er);
  }

  /// K(k') / K(k) of the complete elliptic integrals for k = tanh(π w / 2), each π/2 over a mean of
  /// Gauss.
  private static double integrals(double w) {
    return w > WIDE
        ? 1 / (w + 2 * Math.log(2) / Math.PI) // the rest is below what a number holds
        : mean(1 / Math.cosh(Math.PI * w / 2)) / mean(Math.tanh(Math.PI * w / 2));
  }

  /// The arithmetic-geometric mean of 1 and another number.
  private static double mean(double other) {
    double a = 1;
    double b = other;
    for (int i = 0; i < ROUNDS && Math.abs(a - b) > 1e-16 * a; i++) {
      double m = (a + b) / 2;
      b = Math.sqrt(a * b);
      a = m;
    }
    return a;
  }
}
