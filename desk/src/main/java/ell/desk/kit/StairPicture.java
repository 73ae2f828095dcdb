package ell.desk.kit;

import ell.core.kit.KitCheck.Stair;
import ell.core.rack.Standing.Mark;
import ell.desk.mark.Hairline;
import ell.desk.mark.Ink;
import ell.desk.mark.Marks;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import ell.work.kit.Buying;
import ell.work.kit.Buying.DateCost;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.function.IntConsumer;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;

/// Boards that can be built, as a staircase that rises over the days; below it, over the same days,
/// what it costs to have everything by then, as one that falls. A brass upright stands on the day
/// that is turned to.
final class StairPicture extends Picture {
  private static final double LEFT = 64;
  private static final double RIGHT = 76;
  private static final double COSTS = 58;
  private static final int LEAST_DAYS = 10;
  private KitModel.Shown shown;
  private IntConsumer onDay = _ -> {};

  StairPicture() {
    super("staircase of boards over days");
    setOnMouseClicked(e -> {
      if (shown != null) {
        onDay.accept(dayAt(e.getX()));
      }
    });
  }

  /// Is told the index of a day that is clicked.
  void onDay(IntConsumer listener) {
    onDay = listener;
  }

  void show(KitModel.Shown what) {
    shown = what;
    StringBuilder words = new StringBuilder("boards over days: ");
    what.kit()
        .stairs()
        .forEach(s -> words.append(s.boards()).append(" from ").append(s.from()).append(", "));
    what.costs()
        .forEach(c ->
            words
                .append("by ")
                .append(c.by())
                .append(" costs ")
                .append(Buying.money(c.total()))
                .append(", "));
    setAccessibleText(words.append("turned to ").append(what.at()).toString());
    redraw();
  }

  private LocalDate first() {
    return shown.days().getFirst();
  }

  private long span() {
    long days = ChronoUnit.DAYS.between(first(), shown.days().getLast());
    return Math.max(LEAST_DAYS, days + Math.max(2, days / 6));
  }

  private double x(LocalDate day, double w) {
    return LEFT + (w - LEFT - RIGHT) * ChronoUnit.DAYS.between(first(), day) / span();
  }

  private int dayAt(double px) {
    int best = 0;
    for (int i = 1; i < shown.days().size(); i++) {
      if (Math.abs(x(shown.days().get(i), getWidth()) - px)
          < Math.abs(x(shown.days().get(best), getWidth()) - px)) {
        best = i;
      }
    }
    return best;
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    if (shown == null) {
      return;
    }
    Ink ink = ink();
    double foot = h - 30 - (shown.costs().isEmpty() ? 0 : COSTS);
    boards(g, ink, w, foot);
    days(g, ink, w, foot);
    if (!shown.costs().isEmpty()) {
      costs(g, ink, w, foot + 24, h - 8);
    } else if (shown.working()) {
      g.setFill(ink.ink2());
      g.setFont(Type.words(11));
      Type.write(g, "what dates cost is being worked out (X stops it)", LEFT, h - 6);
    }
    double at = x(shown.at(), w);
    Hairline.upright(g, ink.brass(), at, 14, foot + 7, 2);
    Hairline.upright(g, ink.brass(), at, foot + 23, h - 8, 2);
    g.setFill(ink.brass());
    g.fillPolygon(new double[] {at - 6, at + 6, at}, new double[] {8, 8, 16}, 3);
  }

  private void boards(GraphicsContext g, Ink ink, double w, double foot) {
    int build = shown.kit().boards();
    long top = shown.kit().stairs().stream().mapToLong(Stair::boards).max().orElse(0);
    double most = Math.max(build * 1.2, Math.min(top, build * 1.6) * 1.05);
    double per = (foot - 26) / most;
    List<Stair> stairs = shown.kit().stairs();
    double end = w - RIGHT;
    double[] xs = new double[stairs.size() * 2 + 2];
    double[] ys = new double[xs.length];
    for (int i = 0; i < stairs.size(); i++) {
      double y = foot - Math.min(stairs.get(i).boards(), most) * per;
      xs[2 * i] = x(stairs.get(i).from(), w);
      xs[2 * i + 1] = i + 1 < stairs.size() ? x(stairs.get(i + 1).from(), w) : end;
      ys[2 * i] = y;
      ys[2 * i + 1] = y;
    }
    xs[xs.length - 2] = end;
    ys[ys.length - 2] = foot;
    xs[xs.length - 1] = LEFT;
    ys[ys.length - 1] = foot;
    g.setFill(Ink.thin(ink.verdigris(), 0.16));
    g.fillPolygon(xs, ys, xs.length);
    g.setStroke(ink.ink());
    g.setLineWidth(2.4);
    g.strokePolyline(xs, ys, xs.length - 2);
    scale(g, ink, foot, per, most, build);
    double goal = foot - build * per;
    g.setStroke(ink.madder());
    g.setLineWidth(1.4);
    g.setLineDashes(7, 5);
    g.strokeLine(LEFT, goal, end, goal);
    g.setLineDashes();
    g.setFont(Type.bold(13));
    g.setFill(ink.madder());
    Type.write(g, build + " wanted", end + 6, goal + 4);
    for (int i = 0; i < stairs.size(); i++) {
      tread(g, ink, stairs.get(i), xs[2 * i], xs[2 * i + 1], ys[2 * i], goal);
    }
  }

  /// How many boards, and what allows no more, over the tread where there is room.
  private void tread(
      GraphicsContext g, Ink ink, Stair s, double x0, double x1, double y, double goal) {
    Font bold = Type.bold(13);
    String number = String.valueOf(s.boards());
    String limit =
        s.boards() >= shown.kit().boards()
            ? "enough"
            : s.limiting().map(c -> c + " limits").orElse("");
    double room = x1 - x0 - 12;
    double below = Math.abs(y - 8 - goal) < 14 && y > goal - 2 ? 20 : 0;
    g.setFill(ink.ink());
    g.setFont(bold);
    Type.write(g, number, x0 + 7, y - 7 + below);
    double after = Type.width(bold, number) + 7;
    if (room > after + 30) {
      g.setFont(Type.words(11));
      g.setFill(ink.ink2());
      Type.write(g, Type.cut(Type.words(11), limit, room - after), x0 + 7 + after, y - 7 + below);
    }
  }

  private void scale(GraphicsContext g, Ink ink, double foot, double per, double most, int build) {
    Hairline.upright(g, ink.ink2(), LEFT, foot - most * per, foot, 1);
    g.setFont(Type.numbers(11));
    g.setTextAlign(TextAlignment.RIGHT);
    int step = (int) Math.max(1, Math.ceil(most / 6));
    for (int b = 0; b <= most; b++) {
      double y = foot - b * per;
      boolean named = b % step == 0;
      if (named || per > 4) {
        Hairline.level(g, ink.ink2(), LEFT - (named ? 7 : 4), LEFT, y, 1);
      }
      if (named) {
        g.setFill(ink.ink2());
        Type.write(g, String.valueOf(b), LEFT - 11, y + 3.5);
      }
    }
    g.setTextAlign(TextAlignment.LEFT);
    g.setFont(Type.words(11));
    g.setFill(ink.ink2());
    Type.write(g, "boards", 8, 18);
  }

  private void days(GraphicsContext g, Ink ink, double w, double foot) {
    Hairline.level(g, ink.ink2(), LEFT, w - RIGHT, foot, 1);
    for (long d = 0; d <= span(); d++) {
      double x = x(first().plusDays(d), w);
      boolean week = first().plusDays(d).getDayOfWeek() == DayOfWeek.MONDAY;
      Hairline.upright(g, ink.ink2(), x, foot, foot + (week ? 7 : 4), 1);
    }
    g.setFont(Type.numbers(11));
    g.setTextAlign(TextAlignment.CENTER);
    double free = Double.NEGATIVE_INFINITY;
    for (int i = 0; i < shown.days().size(); i++) {
      LocalDate day = shown.days().get(i);
      double x = x(day, w);
      String text = i == 0 ? "today" : day.getDayOfMonth() + "." + day.getMonthValue() + ".";
      if (x - 18 > free || i == shown.day()) {
        g.setFill(i == shown.day() ? ink.ink() : ink.ink2());
        Type.write(g, text, x, foot + 19);
        free = x + 18;
      }
    }
    g.setTextAlign(TextAlignment.LEFT);
  }

  /// What everything costs by each date: the later, the cheaper.
  private void costs(GraphicsContext g, Ink ink, double w, double top, double foot) {
    double dearest = shown.costs().stream().mapToDouble(DateCost::total).max().orElse(1);
    double per = (foot - top - 20) / Math.max(dearest, 1e-9);
    g.setFont(Type.words(11));
    g.setFill(ink.ink2());
    Type.write(g, "costs", 8, foot - 4);
    g.setFill(Ink.thin(ink.slate(), 0.14));
    g.setStroke(ink.slate());
    for (int i = 0; i < shown.costs().size(); i++) {
      DateCost c = shown.costs().get(i);
      double x0 = x(c.by(), w);
      double x1 = i + 1 < shown.costs().size() ? x(shown.costs().get(i + 1).by(), w) : w - RIGHT;
      double y = foot - c.total() * per;
      g.setFill(Ink.thin(ink.slate(), c.unmet().isEmpty() ? 0.2 : 0.07));
      g.fillRect(x0, y, x1 - x0, foot - y);
      g.setLineWidth(1.6);
      g.setLineDashes(c.unmet().isEmpty() ? new double[0] : new double[] {4, 3});
      g.setStroke(ink.slate());
      g.strokeLine(x0, y, x1, y);
      g.strokeLine(x0, y, x0, foot);
      g.setLineDashes();
      double over = Math.min(y - 5, foot - 9);
      Marks.paint(g, ink, c.unmet().isEmpty() ? Mark.WITHIN : Mark.OUT, x0 + 7, over - 3.5, 3.4);
      String text = (c.proven() ? "" : "≤ ") + Buying.money(c.total());
      if (x1 - x0 > Type.width(Type.numbersBold(11), text) + 18) {
        g.setFont(Type.numbersBold(11));
        g.setFill(ink.ink());
        Type.write(g, text, x0 + 15, over);
      }
    }
    Hairline.level(g, ink.ink2(), LEFT, w - RIGHT, foot, 1);
  }
}
