package ell.desk.mark;

import ell.core.series.Series;
import ell.core.series.Thinning;
import java.math.BigDecimal;
import java.math.MathContext;
import java.util.function.DoubleFunction;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/// A right-angled pair of axes: where a point lies in the picture, the ticks along both, and lines
/// thinned by least and greatest so that millions of readings draw like thousands and no spike is
/// lost.
///
/// @param left the edge of the field, in units of the picture
/// @param top likewise
/// @param right likewise
/// @param bottom likewise
/// @param x0 what lies at the left edge
/// @param x1 what lies at the right edge, greater
/// @param y0 what lies at the bottom
/// @param y1 what lies at the top, greater
public record Axes(
    double left,
    double top,
    double right,
    double bottom,
    double x0,
    double x1,
    double y0,
    double y1) {
  private static final double TICK = 4;

  /// Where a value across lies.
  public double x(double value) {
    return left + (value - x0) / (x1 - x0) * (right - left);
  }

  /// Where a value upward lies.
  public double y(double value) {
    return bottom - (value - y0) / (y1 - y0) * (bottom - top);
  }

  /// Both axes with their ticks and numbers.
  ///
  /// @param xStep between two ticks across
  /// @param xText how a number across is written
  /// @param yStep between two ticks upward
  /// @param yText how a number upward is written
  public void draw(
      GraphicsContext g,
      Ink ink,
      double xStep,
      DoubleFunction<String> xText,
      double yStep,
      DoubleFunction<String> yText) {
    Hairline.upright(g, ink.ink2(), left, top - 2, bottom, 1);
    Hairline.level(g, ink.ink2(), left, right, bottom, 1);
    g.setFont(Type.numbers(11));
    g.setFill(ink.ink2());
    g.setTextAlign(TextAlignment.RIGHT);
    for (double v = first(y0, yStep); v <= last(y1, yStep); v += yStep) {
      Hairline.level(g, ink.ink2(), left - TICK, left, y(v), 1);
      Type.write(g, yText.apply(round(v)), left - 7, y(v) + 3.5);
    }
    g.setTextAlign(TextAlignment.CENTER);
    for (double v = first(x0, xStep); v <= last(x1, xStep); v += xStep) {
      Hairline.upright(g, ink.ink2(), x(v), bottom, bottom + TICK, 1);
      Type.write(g, xText.apply(round(v)), x(v), bottom + 16);
    }
    g.setTextAlign(TextAlignment.LEFT);
  }

  /// Strokes a series as it is set, thinned to the columns of the field.
  ///
  /// @param origin which of its seconds lies at 0 of the axis
  public void line(GraphicsContext g, Series s, double origin) {
    int columns = Math.max(1, (int) Math.ceil(right - left));
    int[] kept = Thinning.of(s, origin + x0, origin + x1, columns);
    g.beginPath();
    for (int k = 0; k < kept.length; k++) {
      double px = x(s.second(kept[k]) - origin);
      double py = y(s.value(kept[k]));
      if (k == 0) {
        g.moveTo(px, py);
      } else {
        g.lineTo(px, py);
      }
    }
    g.stroke();
  }

  /// A step of 1, 2 or 5 times a power of ten that parts a span into about so many.
  ///
  /// @param span more than 0
  /// @param parts about so many steps
  public static double step(double span, int parts) {
    double raw = Math.max(span / parts, 1e-12);
    double power = Math.pow(10, Math.floor(Math.log10(raw)));
    double m = raw / power;
    return power * (m <= 1 ? 1 : m <= 2 ? 2 : m <= 5 ? 5 : 10);
  }

  private static double first(double from, double step) {
    return Math.ceil(from / step - 1e-9) * step;
  }

  private static double last(double to, double step) {
    return to + step * 1e-6;
  }

  /// A tick without the last digits that adding up left: 15 ns, not 15.000000000000002 ns.
  public static double round(double v) {
    return new BigDecimal(v).round(new MathContext(6)).doubleValue();
  }
}
