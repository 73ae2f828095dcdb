package ell.desk.jig;

import ell.core.jig.BreakEven;
import ell.desk.mark.Axes;
import ell.desk.mark.Ink;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.Locale;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/// Cost over boards, with the jig and without; where the lines cross it has paid, and a band says
/// how sure that is. An upright stroke stands at the boards that are to come.
final class WorthPicture extends Picture {
  private JigModel.Shown shown;

  WorthPicture() {
    super("what the jig costs");
  }

  void show(JigModel.Shown s) {
    shown = s;
    if (s != null) {
      setAccessibleText("what the jig costs: " + s.plan().verdict());
    }
    redraw();
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    if (shown == null || shown.plan().probes().isEmpty()) {
      return;
    }
    Ink ink = ink();
    BreakEven b = shown.plan().worth();
    BreakEven.Costs c = shown.plan().costs();
    boolean hand = shown.probe().isEmpty() && shown.finger() < 0;
    g.setFont(Type.bold(13));
    g.setFill(ink.ink());
    Type.write(g, "Cost over boards", 0, 12);
    double boards =
        Math.max(
            10, Math.max(1.15 * c.coming(), Double.isInfinite(b.boards()) ? 0 : 1.3 * b.boards()));
    boards =
        Double.isInfinite(b.high())
            ? boards
            : Math.max(boards, Math.min(1.1 * b.high(), 2 * boards));
    double most = Math.max(1, Math.max(c.without(boards), c.with(boards)) * 1.05);
    Axes a = new Axes(44, 22, w - 8, h - 22, 0, boards, 0, most);
    if (!Double.isInfinite(b.boards())) {
      double x0 = a.x(Math.min(b.low(), boards));
      double x1 = a.x(Math.min(b.high(), boards));
      g.setFill(Ink.thin(ink.verdigris(), hand ? 0.28 : 0.16));
      g.fillRect(x0, a.top(), x1 - x0, a.bottom() - a.top());
    }
    a.draw(
        g,
        ink,
        Axes.step(boards, 4),
        v -> String.format(Locale.ROOT, "%.0f", v),
        Axes.step(most, 4),
        v -> String.format(Locale.ROOT, "%.0f", v));
    g.setStroke(ink.ink());
    g.setLineWidth(2);
    g.strokeLine(a.x(0), a.y(0), a.x(boards), a.y(c.without(boards)));
    g.setLineWidth(3.2);
    g.setLineDashes(7, 4);
    g.strokeLine(a.x(0), a.y(c.with(0)), a.x(boards), a.y(c.with(boards)));
    g.setLineDashes();
    g.setStroke(ink.slate());
    g.setLineWidth(1.6);
    g.strokeLine(a.x(c.coming()), a.top(), a.x(c.coming()), a.bottom());
    g.setFont(Type.words(11));
    g.setFill(ink.ink());
    g.setTextAlign(TextAlignment.LEFT);
    word(g, ink, "with", a.x(0.04 * boards), a.y(c.with(0.04 * boards)) - 6);
    word(
        g,
        ink,
        "without",
        a.x(0.3 * boards),
        Math.min(a.bottom() - 4, a.y(c.without(0.3 * boards)) + 16));
    g.setTextAlign(TextAlignment.LEFT);
    if (!Double.isInfinite(b.boards()) && b.boards() <= boards) {
      double x = a.x(b.boards());
      double y = a.y(c.with(b.boards()));
      g.setFill(ink.brass());
      g.fillOval(x - 4.5, y - 4.5, 9, 9);
      word(g, ink, String.format(Locale.ROOT, "%.0f", b.boards()), x + 7, y + 14);
    }
  }

  private static void word(GraphicsContext g, Ink ink, String text, double x, double y) {
    double wide = Type.width(Type.words(11), text);
    g.setFont(Type.words(11));
    g.setFill(Ink.thin(ink.sheet(), 0.85));
    g.fillRect(x - 2, y - 10, wide + 4, 13);
    g.setFill(ink.ink());
    Type.write(g, text, x, y);
  }
}
