package ell.core.pulse;

/// What a conductor lies on: how high over the plane, in what.
///
/// @param height of the strip over its plane, m; between two planes, from plane to plane
/// @param er relative permittivity of what lies between
/// @param thickness of the copper, m
/// @param between whether it lies between two planes
/// @param guessed whether nobody said it
public record Stack(double height, double er, double thickness, boolean between, boolean guessed) {
  /// A board of two sides, 1.6 mm, the other side a plane: typical, no source.
  public static final Stack USUAL = new Stack(1.5e-3, 4.3, 35e-6, false, true);

  /// @throws IllegalArgumentException when a value is out of its range
  public Stack {
    if (!(height > 0 && height < 0.1)) {
      throw new IllegalArgumentException("height is above 0 and below 0.1 m, got " + height);
    }
    if (!(er >= 1 && er <= 100)) {
      throw new IllegalArgumentException("er is in 1...100, got " + er);
    }
    if (!(thickness >= 0 && thickness < 0.9 * height)) {
      throw new IllegalArgumentException("thickness is below the height, got " + thickness);
    }
  }

  /// A strip of some width on it.
  ///
  /// @param width m, above 0
  public LineOnBoard strip(double width) {
    return between
        ? LineOnBoard.stripline(width, height, thickness, er)
        : LineOnBoard.microstrip(width, height, thickness, er);
  }
}
