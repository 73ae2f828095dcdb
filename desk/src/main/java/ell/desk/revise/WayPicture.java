package ell.desk.revise;

import ell.core.revise.RespinSaid;
import ell.core.revise.WayOut;
import ell.desk.mark.Axes;
import ell.desk.mark.Ink;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.Locale;
import java.util.Optional;
import javafx.scene.canvas.GraphicsContext;
import org.hipparchus.distribution.continuous.BetaDistribution;

/// Cost of the three ways over the one number that decides, the chance that a mended board comes
/// out right; where the lines cross the choice turns, and a band says what the book knows of the
/// chance.
final class WayPicture extends Picture {
  private static final int POINTS = 41;

  private Optional<WayOut> way = Optional.empty();
  private Optional<RespinSaid.Question> question = Optional.empty();

  WayPicture() {
    super("rework, respin or wait");
  }

  void show(Optional<WayOut> w, Optional<RespinSaid.Question> q) {
    way = w;
    question = q;
    setAccessibleText(
        "rework, respin or wait: "
            + w.map(x ->
                    String.format(
                        Locale.ROOT,
                        "rework %.0f, respin %.0f, wait %.0f; %s is cheapest, %s",
                        x.rework().cost(),
                        x.respin().cost(),
                        x.pause().cost(),
                        x.choice().name(),
                        x.turns()))
                .orElse("no board is left to be mended"));
    redraw();
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    Ink ink = ink();
    g.setFont(Type.bold(13));
    g.setFill(ink.ink());
    Type.write(g, "Rework, respin or wait", 0, 12);
    if (way.isEmpty()) {
      g.setFont(Type.words(12));
      g.setFill(ink.ink2());
      Type.write(g, "No board is left to be mended.", 0, 32);
      return;
    }
    WayOut x = way.get();
    double[][] y = x.lines(POINTS);
    double most = 1;
    for (double[] line : y) {
      for (double v : line) {
        most = Math.max(most, v);
      }
    }
    most *= 1.08;
    Axes a = new Axes(46, 24, w - 20, h - 34, 0, 100, 0, most);
    known(g, ink, a);
    a.draw(
        g,
        ink,
        25,
        v -> String.format(Locale.ROOT, "%.0f %%", v),
        Axes.step(most, 4),
        v -> String.format(Locale.ROOT, "%.0f", v));
    line(g, ink, a, y[1], 1.6, new double[] {2, 4});
    line(g, ink, a, y[2], 1.6, new double[] {9, 4});
    line(g, ink, a, y[0], 3, new double[0]);
    double p = 100 * x.asked().successChance();
    g.setStroke(ink.slate());
    g.setLineWidth(1.6);
    g.strokeLine(a.x(p), a.top(), a.x(p), a.bottom());
    x.turnsAt()
        .ifPresent(t -> {
          g.setFill(ink.brass());
          g.fillOval(a.x(100 * t) - 4.5, a.y(x.other().cost()) - 4.5, 9, 9);
          g.setFont(Type.numbers(11));
          word(
              g,
              ink,
              String.format(Locale.ROOT, "%.0f %%", 100 * t),
              a.x(100 * t) + 7,
              a.y(x.other().cost()) + 16);
        });
    words(g, ink, a, x, y, w);
    g.setFont(Type.words(11));
    g.setFill(ink.ink2());
    Type.write(g, "chance that mending works", 46, h - 2);
  }

  private static void words(GraphicsContext g, Ink ink, Axes a, WayOut x, double[][] y, double w) {
    double[] at = {y[0][2], y[1][POINTS - 1], y[2][POINTS - 1]};
    double low = Math.min(a.y(at[1]), a.y(at[2]));
    boolean near = Math.abs(a.y(at[1]) - a.y(at[2])) < 14;
    g.setFont(Type.words(11));
    word(g, ink, "rework", a.x(5) + 4, Math.max(a.top() + 10, a.y(at[0]) - 5));
    double rightR = w - 24 - Type.width(Type.words(11), "respin");
    double rightW = w - 24 - Type.width(Type.words(11), "wait");
    boolean respinAbove = x.respin().cost() >= x.pause().cost();
    word(g, ink, "respin", rightR, near ? (respinAbove ? low - 5 : low + 18) : a.y(at[1]) - 5);
    word(g, ink, "wait", rightW, near ? (respinAbove ? low + 18 : low - 5) : a.y(at[2]) - 5);
  }

  /// Where the chance lies by the book, nine times of ten.
  private void known(GraphicsContext g, Ink ink, Axes a) {
    if (question.isEmpty() || question.get().tried() == 0) {
      return;
    }
    BetaDistribution b = WayOut.chance(question.get().succeeded(), question.get().tried());
    double x0 = a.x(100 * b.inverseCumulativeProbability(0.05));
    double x1 = a.x(100 * b.inverseCumulativeProbability(0.95));
    g.setFill(Ink.thin(ink.verdigris(), 0.16));
    g.fillRect(x0, a.top(), x1 - x0, a.bottom() - a.top());
  }

  private static void line(
      GraphicsContext g, Ink ink, Axes a, double[] y, double width, double[] dash) {
    g.setStroke(ink.ink());
    g.setLineWidth(width);
    g.setLineDashes(dash);
    g.beginPath();
    for (int i = 0; i < y.length; i++) {
      double px = a.x(100.0 * i / (y.length - 1));
      if (i == 0) {
        g.moveTo(px, a.y(y[i]));
      } else {
        g.lineTo(px, a.y(y[i]));
      }
    }
    g.stroke();
    g.setLineDashes();
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
