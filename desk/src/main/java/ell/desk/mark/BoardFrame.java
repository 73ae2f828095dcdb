package ell.desk.mark;

/// Where a place on the board lies in a picture. The second side is drawn mirrored, as one sees it.
///
/// @param scale pixels in a millimetre
/// @param x0 left end of the board's box, millimetre
/// @param y0 lower end of it
/// @param left where `x0` lies when it is not mirrored, pixel
/// @param bottom where `y0` lies
/// @param right where `x0` lies when it is mirrored
public record BoardFrame(
    double scale,
    double x0,
    double y0,
    double left,
    double bottom,
    double right,
    boolean mirrored) {
  /// Pixel of a place.
  public double x(double mm) {
    return mirrored ? right - (mm - x0) * scale : left + (mm - x0) * scale;
  }

  /// Pixel of a place.
  public double y(double mm) {
    return bottom - (mm - y0) * scale;
  }

  /// Place of a pixel.
  public double mmX(double px) {
    return mirrored ? x0 + (right - px) / scale : x0 + (px - left) / scale;
  }

  /// Place of a pixel.
  public double mmY(double py) {
    return y0 + (bottom - py) / scale;
  }
}
