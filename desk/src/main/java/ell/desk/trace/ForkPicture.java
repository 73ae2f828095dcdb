package ell.desk.trace;

import ell.core.trace.Choice;
import ell.core.trace.Traced;
import ell.desk.mark.Ink;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/// The measurement in hand as a fork: each answer that it may give, as thick as it is likely, and
/// which suspects would be left.
final class ForkPicture extends Picture {
  private static final int MOST = 6;

  private Optional<Choice> choice = Optional.empty();

  ForkPicture() {
    super("what the measurement may show");
  }

  void show(TraceModel.Shown s) {
    choice = s == null ? Optional.empty() : s.choice();
    setAccessibleText(
        choice
            .map(c ->
                c.probe().line()
                    + " may show "
                    + String.join(
                        "; ",
                        c.outcomes().stream()
                            .map(o ->
                                String.format(
                                    Locale.ROOT,
                                    "%s with %.0f %%, then %s",
                                    o.words(),
                                    100 * o.chance(),
                                    String.join(", ", o.left())))
                            .toList()))
            .orElse("nothing is left to measure"));
    redraw();
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    if (choice.isEmpty()) {
      return;
    }
    Ink ink = ink();
    Choice c = choice.get();
    List<Choice.Result> all =
        c.outcomes().stream()
            .sorted((a, b) -> Double.compare(b.chance(), a.chance()))
            .limit(MOST)
            .sorted((a, b) -> Integer.compare(c.outcomes().indexOf(a), c.outcomes().indexOf(b)))
            .toList();
    g.setFont(Type.bold(13));
    g.setFill(ink.ink());
    Type.write(g, "What " + c.probe().line() + " may show", 0, 12);
    double top = 26;
    double room = (h - top - 6) / Math.max(1, all.size());
    double stem = 20;
    double mid = top + (h - top) / 2 - 3;
    double branch = Math.clamp(w * 0.13, 24, 120);
    double wide = Math.clamp(w * 0.34, 100, 160);
    g.setStroke(ink.slate());
    g.setLineWidth(9);
    g.strokeLine(4, mid, stem, mid);
    for (int i = 0; i < all.size(); i++) {
      Choice.Result r = all.get(i);
      double y = top + room * (i + 0.5);
      g.setStroke(Ink.thin(ink.slate(), 0.85));
      g.setLineWidth(Math.max(1, 12 * r.chance()));
      g.beginPath();
      g.moveTo(stem, mid);
      g.bezierCurveTo(stem + branch * 0.5, mid, stem + branch * 0.4, y, stem + branch, y);
      g.stroke();
      double x = stem + branch + 8;
      g.setFont(Type.numbersBold(13));
      g.setFill(ink.ink());
      g.setTextAlign(TextAlignment.RIGHT);
      Type.write(g, Traced.percent(r.chance()), x + 44, y + 4);
      g.setTextAlign(TextAlignment.LEFT);
      g.setFont(Type.words(13));
      String words = Type.cut(Type.words(13), r.words(), wide);
      Type.write(g, words, x + 54, y + 4);
      g.setFill(ink.ink2());
      double from = x + 54 + wide + 6;
      Type.write(
          g,
          Type.cut(Type.words(13), String.join(", ", r.left()), Math.max(0, w - from - 4)),
          from,
          y + 4);
    }
  }
}
