package ell.desk.mark;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.series.Series;
import java.util.List;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/// A measured line over its predicted band, with limits: ink for the line, a tint for the band,
/// dashes for limits.
public final class Plot extends Picture {
  private static final Series EMPTY = new Series("", new double[0], new double[0]);
  private Shown shown = new Shown("", Unit.SECOND, Unit.ONE, EMPTY, List.of(), List.of(), 1, 1);

  /// A stretch of the band.
  public record Band(double x0, double x1, double low, double high, String label) {}

  /// A limit over a stretch.
  public record Limit(double x0, double x1, double y) {}

  /// What is plotted.
  ///
  /// @param line readings over `xUnit`, from 0
  /// @param xLeast the axis goes at least to here
  /// @param yLeast likewise
  public record Shown(
      String what,
      Unit xUnit,
      Unit yUnit,
      Series line,
      List<Band> bands,
      List<Limit> limits,
      double xLeast,
      double yLeast) {
    public Shown {
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
            + (what.line().size() == 0
                ? ", nothing measured yet"
                : ", now "
                    + EngineeringNumber.print(
                        what.line().value(what.line().size() - 1), what.yUnit(), 3)));
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
    if (shown.line().size() > 0) {
      xMax = Math.max(xMax, shown.line().second(shown.line().size() - 1));
      yMax = Math.max(yMax, shown.line().most());
    }
    for (Band b : shown.bands()) {
      xMax = Math.max(xMax, b.x1());
      yMax = Math.max(yMax, b.high() * 1.1);
    }
    Axes axes = new Axes(left, top, right, bottom, 0, xMax, 0, yMax);
    axes.draw(
        g,
        ink,
        Axes.step(xMax, 6),
        v -> EngineeringNumber.print(v, shown.xUnit()),
        Axes.step(yMax, 4),
        v -> EngineeringNumber.print(v, shown.yUnit()));
    double labelled = 0;
    for (Band b : shown.bands()) {
      double x0 = axes.x(b.x0());
      double x1 = axes.x(b.x1());
      g.setFill(Ink.thin(ink.verdigris(), 0.2));
      double y1 = axes.y(Math.min(b.high(), yMax));
      g.fillRect(x0, y1, x1 - x0, Math.max(2, axes.y(Math.max(b.low(), 0)) - y1));
      g.setFont(Type.words(11));
      g.setFill(ink.ink2());
      g.setTextAlign(TextAlignment.CENTER);
      double half = Type.width(Type.words(11), b.label()) / 2;
      if ((x0 + x1) / 2 - half > labelled) {
        Type.write(g, b.label(), (x0 + x1) / 2, top + 8);
        labelled = (x0 + x1) / 2 + half + 6;
      }
      g.setTextAlign(TextAlignment.LEFT);
    }
    g.setStroke(ink.madder());
    g.setLineWidth(1.2);
    g.setLineDashes(4, 4);
    for (Limit l : shown.limits()) {
      if (l.y() <= yMax) {
        g.strokeLine(axes.x(l.x0()), axes.y(l.y()), axes.x(l.x1()), axes.y(l.y()));
      }
    }
    g.setLineDashes();
    g.setStroke(ink.ink());
    g.setLineWidth(1.6);
    axes.line(g, shown.line(), 0);
  }
}
