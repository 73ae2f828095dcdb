package ell.desk.mark;

import ell.core.quantity.Verdict;
import ell.core.rack.Standing.Mark;
import javafx.scene.canvas.GraphicsContext;

/// The marks that stand beside a colour, so that colour is never alone: filled dot, half-filled
/// dot, cross, open dot, ring; an open diamond for a gate.
public final class Marks {
  private Marks() {}

  /// The mark of a verdict.
  public static Mark of(Verdict v) {
    return switch (v) {
      case WITHIN -> Mark.WITHIN;
      case CLOSE -> Mark.CLOSE;
      case OUT -> Mark.OUT;
    };
  }

  /// Paints a mark around a point.
  public static void paint(GraphicsContext g, Ink ink, Mark m, double x, double y, double r) {
    g.setFill(ink.of(m));
    g.setStroke(ink.of(m));
    g.setLineWidth(Math.max(1.4, r / 3));
    switch (m) {
      case WITHIN -> g.fillOval(x - r, y - r, 2 * r, 2 * r);
      case CLOSE -> {
        g.strokeOval(x - r, y - r, 2 * r, 2 * r);
        g.fillArc(x - r, y - r, 2 * r, 2 * r, 90, 180, javafx.scene.shape.ArcType.ROUND);
      }
      case OUT -> {
        g.strokeLine(x - r, y - r, x + r, y + r);
        g.strokeLine(x - r, y + r, x + r, y - r);
      }
      case NOT_YET -> g.strokeOval(x - r, y - r, 2 * r, 2 * r);
      case NEXT -> {
        g.setLineWidth(Math.max(2, r / 2));
        g.strokeOval(x - r - 1, y - r - 1, 2 * r + 2, 2 * r + 2);
      }
    }
  }

  /// Paints the diamond of a gate.
  public static void gate(GraphicsContext g, Ink ink, double x, double y, double r, boolean held) {
    double[] xs = {x, x + r, x, x - r};
    double[] ys = {y - r * 1.25, y, y + r * 1.25, y};
    g.setFill(held ? ink.verdigris() : ink.sheet());
    g.fillPolygon(xs, ys, 4);
    g.setStroke(held ? ink.verdigris() : ink.slate());
    g.setLineWidth(1.8);
    g.strokePolygon(xs, ys, 4);
  }
}
