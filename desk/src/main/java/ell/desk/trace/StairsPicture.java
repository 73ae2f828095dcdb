package ell.desk.trace;

import ell.core.trace.Traced;
import ell.desk.mark.Axes;
import ell.desk.mark.Hairline;
import ell.desk.mark.Ink;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.List;
import java.util.Locale;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/// What is not known, stepping down over the minutes that were spent; behind it a staircase that
/// halves the suspects each time; in dashes what the measurement in hand is expected to bring.
final class StairsPicture extends Picture {
  private List<Traced.Stair> stairs = List.of();
  private double expected;
  private double takes;

  StairsPicture() {
    super("what is not known");
  }

  void show(TraceModel.Shown s) {
    stairs = s == null ? List.of() : s.traced().stairs();
    expected = s == null ? 0 : s.choice().map(c -> c.information()).orElse(0.0);
    takes = s == null ? 0 : s.choice().map(c -> c.minutes()).orElse(0.0);
    setAccessibleText(
        stairs.isEmpty()
            ? "what is not known"
            : String.format(
                Locale.ROOT,
                "not known: %.1f bit at first, %.1f bit after %d steps",
                stairs.getFirst().entropy(),
                stairs.getLast().entropy(),
                stairs.size() - 1));
    redraw();
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    if (stairs.isEmpty()) {
      return;
    }
    Ink ink = ink();
    double left = 30;
    double top = 22;
    double bottom = h - 18;
    double most = 0.5;
    double minutes = Math.max(takes, 0.2);
    for (Traced.Stair s : stairs) {
      most = Math.max(most, s.entropy());
      minutes += s.minutes();
    }
    g.setFont(Type.bold(13));
    g.setFill(ink.ink());
    Type.write(g, "Not known, bit", 0, 12);
    Hairline.level(g, ink.ink2(), left, w - 2, bottom, 1);
    Hairline.upright(g, ink.ink2(), left, top, bottom, 1);
    double step = Axes.step(most, 4);
    g.setFont(Type.numbers(11));
    g.setTextAlign(TextAlignment.RIGHT);
    for (double v = 0; v <= most + 1e-9; v += step) {
      double y = bottom - v / most * (bottom - top);
      g.setFill(ink.ink2());
      Type.write(g, String.format(Locale.ROOT, "%.3g", v), left - 5, y + 4);
      Hairline.level(g, ink.hair(), left, w - 2, y, 1);
    }
    g.setFill(ink.ink2());
    Type.write(g, String.format(Locale.ROOT, "%.1f min", minutes), w - 2, h - 4);
    g.setTextAlign(TextAlignment.LEFT);
    double sx = (w - 2 - left) / minutes;
    double sy = (bottom - top) / most;
    halving(g, ink, left, bottom, sx, sy);
    g.setStroke(ink.ink());
    g.setLineWidth(2);
    double x = left;
    double y = bottom - stairs.getFirst().entropy() * sy;
    for (Traced.Stair s : stairs.subList(1, stairs.size())) {
      double nx = x + s.minutes() * sx;
      g.strokeLine(x, y, nx, y);
      double ny = bottom - s.entropy() * sy;
      g.strokeLine(nx, y, nx, ny);
      x = nx;
      y = ny;
    }
    g.setStroke(ink.slate());
    g.setLineDashes(4, 4);
    double nx = Math.min(w - 2, x + takes * sx);
    g.strokeLine(x, y, nx, y);
    g.strokeLine(nx, y, nx, Math.min(bottom, y + expected * sy));
    g.setLineDashes();
    g.setFill(ink.ink());
    g.fillOval(x - 3.5, y - 3.5, 7, 7);
  }

  /// As if each measurement halved what is left.
  private void halving(
      GraphicsContext g, Ink ink, double left, double bottom, double sx, double sy) {
    g.setStroke(ink.ink2());
    g.setLineWidth(1);
    g.setLineDashes(1, 3);
    double x = left;
    double bits = stairs.getFirst().entropy();
    for (Traced.Stair s : stairs.subList(1, stairs.size())) {
      double nx = x + s.minutes() * sx;
      double then = Math.max(0, bits - 1);
      g.strokeLine(x, bottom - bits * sy, nx, bottom - bits * sy);
      g.strokeLine(nx, bottom - bits * sy, nx, bottom - then * sy);
      x = nx;
      bits = then;
    }
    g.setLineDashes();
  }
}
