package ell.desk.mark;

import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Paint;

/// Level and upright lines as filled boxes on whole pixels: sharp at any scale, and far cheaper to
/// draw than stroked paths, of which a graduated rule has hundreds.
public final class Hairline {
  private Hairline() {}

  /// A level line from `x0` to `x1`, its middle at `y`.
  public static void level(
      GraphicsContext g, Paint ink, double x0, double x1, double y, double width) {
    g.setFill(ink);
    g.fillRect(Math.round(x0), Math.round(y - width / 2), Math.round(x1 - x0), thick(width));
  }

  /// An upright line from `y0` to `y1`, its middle at `x`.
  public static void upright(
      GraphicsContext g, Paint ink, double x, double y0, double y1, double width) {
    g.setFill(ink);
    g.fillRect(
        Math.round(x - width / 2),
        Math.round(Math.min(y0, y1)),
        thick(width),
        Math.round(Math.abs(y1 - y0)));
  }

  private static double thick(double width) {
    return Math.max(1, Math.round(width));
  }
}
