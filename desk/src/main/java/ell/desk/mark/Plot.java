package ell.desk.mark;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import java.util.List;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/// A measured line over its predicted band, with limits: ink for the line, a tint for the band,
/// dashes for limits.
public final class Plot extends Picture {
  private Shown shown = new Shown("", Unit.SECOND, Unit.ONE, List.of(), List.of(), List.of(), 1, 1);

  /// A point of a line.
  public record Point(double x, double y) {}

  /// A stretch of the band.
  public record Band(double x0, double x1, double low, double high, String label) {}

  /// A limit over a stretch.
  public record Limit(double x0, double x1, double y) {}

  /// What is plotted.
  ///
  /// @param xLeast the axis goes at least to here
  /// @param yLeast likewise
  public record Shown(
      String what,
      Unit xUnit,
      Unit yUnit,
      List<Point> line,
      List<Band> bands,
      List<Limit> limits,
      double xLeast,
      double yLeast) {
    public Shown {
      line = List.copyOf(line);
      bands = List.copyOf(bands);
      limits = List.copyOf(limits);
    }
  }

  /// A plot with nothing on it.
  public Plot() {
    super("plot");
    setMinSize(200, 90);
  }

  /// Shows something else.
  public void show(Shown what) {
    shown = what;
    setAccessibleText(
        what.what()
            + (what.line().isEmpty()
                ? ", nothing measured yet"
                : ", now " + EngineeringNumber.print(what.line().getLast().y(), what.yUnit(), 3)));
    redraw();
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    Ink ink = ink();
    double left = 62;
    double bottom = h - 20;
    double top = 8;
    double right = w - 10;
    double xMax = shown.xLeast();
    double yMax = shown.yLeast();
    for (Point p : shown.line()) {
      xMax = Math.max(xMax, p.x());
      yMax = Math.max(yMax, p.y());
    }
    for (Band b : shown.bands()) {
      xMax = Math.max(xMax, b.x1());
      yMax = Math.max(yMax, b.high() * 1.1);
    }
    double sx = (right - left) / xMax;
    double sy = (bottom - top) / yMax;
    axes(g, ink, left, bottom, top, right, xMax, yMax);
    for (Band b : shown.bands()) {
      double x0 = left + b.x0() * sx;
      double x1 = left + b.x1() * sx;
      g.setFill(Ink.thin(ink.verdigris(), 0.2));
      double y1 = bottom - Math.min(b.high(), yMax) * sy;
      g.fillRect(x0, y1, x1 - x0, Math.max(2, bottom - Math.max(b.low(), 0) * sy - y1));
      g.setFont(Type.words(11));
      g.setFill(ink.ink2());
      g.setTextAlign(TextAlignment.CENTER);
      g.fillText(b.label(), (x0 + x1) / 2, top + 8);
      g.setTextAlign(TextAlignment.LEFT);
    }
    g.setStroke(ink.madder());
    g.setLineWidth(1.2);
    g.setLineDashes(4, 4);
    for (Limit l : shown.limits()) {
      if (l.y() <= yMax) {
        double y = bottom - l.y() * sy;
        g.strokeLine(left + l.x0() * sx, y, left + l.x1() * sx, y);
      }
    }
    g.setLineDashes();
    g.setStroke(ink.ink());
    g.setLineWidth(1.6);
    g.beginPath();
    for (int i = 0; i < shown.line().size(); i++) {
      Point p = shown.line().get(i);
      double x = left + p.x() * sx;
      double y = bottom - p.y() * sy;
      if (i == 0) {
        g.moveTo(x, y);
      } else {
        g.lineTo(x, y);
      }
    }
    g.stroke();
  }

  private void axes(
      GraphicsContext g,
      Ink ink,
      double left,
      double bottom,
      double top,
      double right,
      double xMax,
      double yMax) {
    Hairline.upright(g, ink.ink2(), left, top, bottom, 1);
    Hairline.level(g, ink.ink2(), left, right, bottom, 1);
    g.setFont(Type.numbers(11));
    g.setFill(ink.ink2());
    double step = nice(yMax / 4);
    g.setTextAlign(TextAlignment.RIGHT);
    for (double v = 0; v <= yMax * 1.0001; v += step) {
      double y = bottom - v / yMax * (bottom - top);
      Hairline.level(g, ink.ink2(), left - 4, left, y, 1);
      g.fillText(EngineeringNumber.print(round(v), shown.yUnit()), left - 7, y + 3.5);
    }
    g.setTextAlign(TextAlignment.CENTER);
    double xs = nice(xMax / 6);
    for (double v = 0; v <= xMax * 1.0001; v += xs) {
      double x = left + v / xMax * (right - left);
      Hairline.upright(g, ink.ink2(), x, bottom, bottom + 4, 1);
      g.fillText(EngineeringNumber.print(round(v), shown.xUnit()), x, bottom + 15);
    }
    g.setTextAlign(TextAlignment.LEFT);
  }

  private static double round(double v) {
    return new java.math.BigDecimal(v).round(new java.math.MathContext(6)).doubleValue();
  }

  /// A step of 1, 2 or 5 times a power of ten.
  private static double nice(double raw) {
    double power = Math.pow(10, Math.floor(Math.log10(Math.max(raw, 1e-12))));
    double m = raw / power;
    return power * (m <= 1 ? 1 : m <= 2 ? 2 : m <= 5 ? 5 : 10);
  }
}
