package ell.desk.prove;

import ell.core.prove.BuildProof;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Limits;
import ell.desk.mark.BoardTicks;
import ell.desk.mark.Hairline;
import ell.desk.mark.Ink;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.List;
import java.util.Locale;
import java.util.function.IntConsumer;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/// One row a test: a strip from limit to limit with a tick for each board, the odd one named; what
/// is no number has a box a board instead. Beside it how many failed and how capable it is.
final class BuildPicture extends Picture {
  private static final double LEFT = 168;
  private static final double RIGHT = 208;
  private static final double ROW = 40;
  private static final double BEYOND = 0.3;

  private List<BuildProof.OfTest> rows = List.of();
  private int at;
  private int from;
  private int boards;
  private String inHand = "";

  BuildPicture() {
    super("every test over the build");
  }

  void onRow(IntConsumer turn) {
    setOnMouseClicked(e -> {
      int i = from + (int) ((e.getY() - 4) / ROW);
      if (i >= 0 && i < rows.size()) {
        turn.accept(i);
      }
    });
  }

  void show(ProveModel.Shown s) {
    rows = s.rows();
    at = s.test();
    boards = s.work().build().boards().size();
    inHand = s.work().board();
    setAccessibleText("every test over the build. " + String.join(". ", words(rows)));
    redraw();
  }

  /// A sentence for each test, for screen readers.
  static List<String> words(List<BuildProof.OfTest> all) {
    return all.stream()
        .map(t ->
            t.name()
                + ": "
                + count(t)
                + (t.outliers().isEmpty()
                    ? ""
                    : ", board " + String.join(", ", t.outliers()) + " stands apart"))
        .toList();
  }

  private static String count(BuildProof.OfTest t) {
    return t.n() == 0
        ? "not made yet"
        : t.n()
            + (t.n() == 1 ? " board, " : " boards, ")
            + (t.failed() == 0 ? "none" : t.failed())
            + " failed"
            + (t.bad().isEmpty() ? "" : ": " + String.join(", ", t.bad()));
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    Ink ink = ink();
    if (rows.isEmpty()) {
      g.setFont(Type.words(13));
      g.setFill(ink.ink2());
      Type.write(g, "The plan has no tests.", 8, 24);
      return;
    }
    int fit = Math.max(1, (int) Math.floor((h - 8) / ROW));
    from = Math.clamp(at - fit / 2L, 0, Math.max(0, rows.size() - fit));
    int end = Math.min(rows.size(), from + fit);
    for (int i = from; i < end; i++) {
      row(g, ink, rows.get(i), 4 + (i - from) * ROW, w, i == at);
    }
    if (end < rows.size()) {
      g.setFont(Type.words(11));
      g.setFill(ink.ink2());
      g.setTextAlign(TextAlignment.RIGHT);
      Type.write(g, "and " + (rows.size() - end) + " more below", w - 4, h - 1);
      g.setTextAlign(TextAlignment.LEFT);
    }
  }

  private void row(
      GraphicsContext g, Ink ink, BuildProof.OfTest t, double top, double w, boolean mine) {
    double y = top + ROW * 0.62;
    double a = LEFT;
    double b = Math.max(a + 80, w - RIGHT);
    if (mine) {
      g.setFill(ink.stick());
      g.fillRect(0, top + 1, w, ROW - 2);
      g.setFill(ink.brass());
      g.fillRect(0, top + 1, 3, ROW - 2);
    }
    g.setFont(Type.bold(13));
    g.setFill(t.n() == 0 ? ink.ink2() : ink.ink());
    Type.write(g, Type.cut(Type.bold(13), t.name(), LEFT - 20), 9, y + 1);
    if (t.points().isEmpty()) {
      boxes(g, ink, t, a, b, y);
    } else {
      strip(g, ink, t, a, b, y);
    }
    g.setFont(Type.words(12));
    g.setFill(t.failed() > 0 ? ink.madder() : ink.ink2());
    Type.write(g, Type.cut(Type.words(12), count(t), RIGHT - 24), b + 20, y - 6);
    g.setFill(ink.ink2());
    String more =
        t.capability()
            .map(c ->
                String.format(Locale.ROOT, "Cpk %.2f", c.cpk())
                    + c.cpkLow()
                        .map(l ->
                            String.format(
                                Locale.ROOT, ", %.2f to %.2f", l, c.cpkHigh().orElseThrow()))
                        .orElse(""))
            .orElse("");
    if (!t.drift().isEmpty()) {
      more = more.isEmpty() ? "drifts" : more + " \u00b7 drifts";
    }
    Type.write(g, Type.cut(Type.words(12), more, RIGHT - 24), b + 20, y + 9);
  }

  /// What is no number: a box for each board that was tested, crossed where it failed.
  private void boxes(
      GraphicsContext g, Ink ink, BuildProof.OfTest t, double a, double b, double y) {
    double step = Math.clamp((b - a) / Math.max(1, boards), 3, 16);
    Hairline.level(g, ink.hair(), a, b, y, 1);
    for (int i = 0; i < t.n() && a + i * step < b; i++) {
      boolean bad = i >= t.n() - t.failed();
      g.setStroke(bad ? ink.madder() : ink.verdigris());
      g.setLineWidth(1.5);
      double s = Math.min(9, step - 2);
      double x = a + i * step + 1;
      if (bad) {
        g.strokeLine(x, y - s, x + s, y);
        g.strokeLine(x, y, x + s, y - s);
      } else {
        g.setFill(ink.verdigris());
        g.fillRect(x, y - s, s, s);
      }
    }
  }

  private void strip(
      GraphicsContext g, Ink ink, BuildProof.OfTest t, double a, double b, double y) {
    double least = t.points().stream().mapToDouble(BuildProof.Point::value).min().orElse(0);
    double most = t.points().stream().mapToDouble(BuildProof.Point::value).max().orElse(1);
    Limits l = t.limits().orElse(new Limits(Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY));
    boolean lowOpen = Double.isInfinite(l.low());
    boolean highOpen = Double.isInfinite(l.high());
    double reach = Math.max(most - least, 1e-9 * Math.max(1, Math.abs(most)));
    double low = lowOpen ? Math.min(least, highOpen ? least : l.high()) - reach : l.low();
    double high = highOpen ? Math.max(most, lowOpen ? most : l.low()) + reach : l.high();
    double span = Math.max(high - low, 1e-12);
    double from0 = low - (lowOpen ? 0 : BEYOND * span);
    double to0 = high + (highOpen ? 0 : BEYOND * span);
    Hairline.level(g, ink.ink2(), a, b, y, 1);
    double x0 = lowOpen ? a : at(low, from0, to0, a, b);
    double x1 = highOpen ? b : at(high, from0, to0, a, b);
    if (!lowOpen || !highOpen) {
      g.setFill(Ink.thin(ink.verdigris(), 0.14));
      g.fillRect(x0, y - 13, x1 - x0, 13);
    }
    g.setFont(Type.numbers(10.5));
    g.setTextAlign(TextAlignment.CENTER);
    if (!lowOpen) {
      Hairline.upright(g, ink.ink(), x0, y - 15, y + 4, 2);
      g.setFill(ink.ink2());
      Type.write(g, EngineeringNumber.print(l.low(), t.unit(), 4), x0, y + 14);
    }
    if (!highOpen) {
      Hairline.upright(g, ink.ink(), x1, y - 15, y + 4, 2);
      g.setFill(ink.ink2());
      Type.write(g, EngineeringNumber.print(l.high(), t.unit(), 4), x1, y + 14);
    }
    g.setTextAlign(TextAlignment.LEFT);
    BoardTicks.paint(
        g,
        ink,
        t.points().stream()
            .map(p ->
                new BoardTicks.Tick(
                    p.board(),
                    at(p.value(), from0, to0, a, b),
                    p.verdict(),
                    p.apart(),
                    p.board().equals(inHand)))
            .toList(),
        y,
        10,
        17,
        10.5);
  }

  private static double at(double v, double from, double to, double a, double b) {
    return a + (b - a) * Math.clamp((v - from) / (to - from), 0, 1);
  }
}
