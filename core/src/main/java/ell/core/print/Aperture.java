package ell.core.print;

import ell.core.quantity.Check;

/// One opening of a stencil. Lengths in metre (any one unit gives the same ratios).
///
/// @param area of the opening
/// @param perimeter of the opening
/// @param narrowest smallest width across the opening
/// @param longest greatest length across the opening
public record Aperture(double area, double perimeter, double narrowest, double longest) {
  /// Area ratio from which paste releases well. Source: IPC-7525.
  public static final double GOOD_AREA_RATIO = 0.66;

  /// Aspect ratio from which paste releases well. Source: IPC-7525.
  public static final double GOOD_ASPECT_RATIO = 1.5;

  public Aperture {
    Check.positive(area, "area");
    Check.positive(perimeter, "perimeter");
    Check.positive(narrowest, "narrowest");
    Check.positive(longest, "longest");
  }

  /// A rectangle.
  ///
  /// @throws IllegalArgumentException when length is not above 0 or width is not above 0
  public static Aperture rectangle(double length, double width) {
    Check.positive(length, "length");
    Check.positive(width, "width");
    return new Aperture(
        length * width, 2 * (length + width), Math.min(length, width), Math.max(length, width));
  }

  /// A circle.
  ///
  /// @throws IllegalArgumentException when diameter is not above 0
  public static Aperture circle(double diameter) {
    Check.positive(diameter, "diameter");
    return new Aperture(Math.PI * diameter * diameter / 4, Math.PI * diameter, diameter, diameter);
  }

  /// Open area over wall area.
  ///
  /// @throws IllegalArgumentException when the thickness, in metre, is not above 0
  public double areaRatio(double thickness) {
    return area / (perimeter * Check.positive(thickness, "thickness"));
  }

  /// Smallest width over foil thickness.
  ///
  /// @throws IllegalArgumentException when thickness is not above 0
  public double aspectRatio(double thickness) {
    return narrowest / Check.positive(thickness, "thickness");
  }

  /// Whether the aspect ratio decides: length above five widths. Source: IPC-7525, from memory.
  public boolean aspectDecides() {
    return longest > 5 * narrowest;
  }

  /// Whether paste will release well, by the ratio that decides.
  public boolean releases(double thickness) {
    double hair = 1e-9;
    return aspectDecides()
        ? aspectRatio(thickness) >= GOOD_ASPECT_RATIO - hair
        : areaRatio(thickness) >= GOOD_AREA_RATIO - hair;
  }
}
