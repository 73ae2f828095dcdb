package ell.desk.look;

import ell.core.look.Chart;
import ell.core.look.Rates;
import ell.desk.mark.Hairline;
import ell.desk.mark.Ink;
import ell.desk.mark.Marks;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/// Defects of each board in a thousand opportunities, with the limits of chance, and what goes
/// wrong most.
final class ChartPicture extends Picture {
  private Optional<Rates> rates = Optional.empty();
  private String board = "";

  ChartPicture() {
    super("defects by board");
    setMinSize(220, 110);
  }

  void show(LookModel.Shown s) {
    rates = s.rates();
    board = s.work().board();
    setAccessibleText(
        rates
            .map(r ->
                r.boards().size()
                    + " boards looked at, "
                    + r.defects()
                    + " defects"
                    + r.chart()
                        .map(c ->
                            c.out().isEmpty()
                                ? ", none differs more than chance"
                                : ", out: "
                                    + c.out().stream()
                                        .map(i -> r.boards().get(i - 1).serial())
                                        .toList())
                        .orElse(""))
            .orElse("defects by board"));
    redraw();
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    Ink ink = ink();
    g.setFont(Type.bold(13));
    g.setFill(ink.ink());
    if (rates.isEmpty() || rates.get().boards().isEmpty()) {
      Type.write(g, "nothing was looked at yet", 0, 12);
      return;
    }
    Rates r = rates.get();
    Type.write(
        g,
        String.format(
            Locale.ROOT,
            "%d defects on %d boards · %.0f DPMO",
            r.defects(),
            r.boards().size(),
            r.dpmo()),
        0,
        12);
    double left = 30;
    double bottom = h - 34;
    double top = 24;
    Optional<Chart> chart = r.chart();
    double most = 1;
    for (Rates.Board b : r.boards()) {
      most = Math.max(most, 1000.0 * b.defects() / b.opportunities());
    }
    if (chart.isPresent()) {
      for (double u : chart.get().upper()) {
        most = Math.max(most, u);
      }
    }
    most *= 1.1;
    double step = (w - left - 8) / r.boards().size();
    Hairline.level(g, ink.ink2(), left, w - 4, bottom, 1);
    Hairline.upright(g, ink.ink2(), left, top, bottom, 1);
    g.setFont(Type.numbers(11));
    g.setFill(ink.ink2());
    g.setTextAlign(TextAlignment.RIGHT);
    Type.write(g, String.format(Locale.ROOT, "%.0f‰", most), left - 4, top + 6);
    g.setTextAlign(TextAlignment.CENTER);
    for (int i = 0; i < r.boards().size(); i++) {
      Rates.Board b = r.boards().get(i);
      double x = left + step * (i + 0.5);
      double y = bottom - 1000.0 * b.defects() / b.opportunities() / most * (bottom - top);
      boolean out = false;
      if (chart.isPresent()) {
        double upper = bottom - chart.get().upper().get(i) / most * (bottom - top);
        double centre = bottom - chart.get().centre() / most * (bottom - top);
        g.setStroke(ink.madder());
        g.setLineWidth(1.1);
        g.setLineDashes(4, 3);
        g.strokeLine(x - step / 2, upper, x + step / 2, upper);
        g.setLineDashes();
        Hairline.level(g, ink.hair(), x - step / 2, x + step / 2, centre, 1);
        out = chart.get().out().contains(i + 1);
      }
      Marks.paint(
          g,
          ink,
          out ? ell.core.rack.Standing.Mark.OUT : ell.core.rack.Standing.Mark.WITHIN,
          x,
          y,
          out ? 5 : 3.5);
      g.setFont(b.serial().equals(board) ? Type.numbersBold(11) : Type.numbers(11));
      g.setFill(b.serial().equals(board) ? ink.ink() : ink.ink2());
      Type.write(g, b.serial(), x, bottom + 12);
    }
    g.setTextAlign(TextAlignment.LEFT);
    g.setFont(Type.words(11));
    g.setFill(ink.ink2());
    Type.write(g, Type.cut(Type.words(11), most(r), w), 0, h - 6);
  }

  private static String most(Rates r) {
    List<Rates.Group> parts =
        r.by().getOrDefault(Rates.Sorting.PART, List.of()).stream()
            .filter(g -> g.defects() > 0)
            .limit(3)
            .toList();
    return parts.isEmpty()
        ? "no defects"
        : "most: "
            + String.join(
                ", ", parts.stream().map(g -> g.name() + " " + g.defects() + "×").toList());
  }
}
