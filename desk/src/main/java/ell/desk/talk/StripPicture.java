package ell.desk.talk;

import ell.core.entry.Entry;
import ell.core.rack.Standing.Mark;
import ell.core.talk.Strip;
import ell.desk.mark.Hairline;
import ell.desk.mark.Ink;
import ell.desk.mark.Marks;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/// A paper strip: what was sent at its left edge, what was heard at its right, in time; what was
/// expected is pencilled beside it, with a mark.
final class StripPicture extends Picture {
  private static final double ROW = 19;
  private static final double TIME = 64;
  private static final double FEED = 14;

  /// A step ends a little after what it waited for.
  private static final double SLACK = 0.02;

  private List<Line> lines = List.of();
  private int scrolled;

  /// A row of the strip, and what was expected there.
  ///
  /// @param expected empty for nothing
  private record Line(double seconds, char kind, String text, String expected, Mark mark) {}

  StripPicture() {
    super("what was sent and heard");
    setMinSize(200, 120);
  }

  void show(TalkModel.Shown s) {
    List<Line> all = new ArrayList<>();
    double at = 0;
    int r = 0;
    for (Entry.Talk.Step step : s.steps()) {
      at += step.seconds();
      int end = answer(s.rows(), r, step, at);
      while (r < end) {
        add(all, s.rows().get(r++));
      }
      String expected =
          step.number()
              + "  "
              + (step.expected().isEmpty()
                  ? step.got().isEmpty() ? step.sent() : step.got()
                  : step.expected());
      Mark mark = TalkModel.good(step) ? Mark.WITHIN : Mark.OUT;
      if (!all.isEmpty() && all.getLast().expected().isEmpty() && all.getLast().kind() != '?') {
        Line l = all.removeLast();
        all.add(new Line(l.seconds(), l.kind(), l.text(), expected, mark));
      } else {
        all.add(new Line(at, '?', "", expected, mark));
      }
    }
    while (r < s.rows().size()) {
      add(all, s.rows().get(r++));
    }
    lines = all;
    scrolled = s.scrolled();
    setAccessibleText(
        "strip of "
            + all.size()
            + " rows"
            + (all.isEmpty()
                ? ""
                : ", the last: " + all.getLast().text() + " " + all.getLast().expected()));
    redraw();
  }

  /// Behind the row that answers a step, else behind what came until it ended.
  private static int answer(List<Strip.Row> rows, int from, Entry.Talk.Step step, double at) {
    int end = from;
    while (end < rows.size() && rows.get(end).seconds() <= at + SLACK) {
      if (rows.get(end).kind() == '<'
          && !step.got().isBlank()
          && rows.get(end).text().contains(step.got().strip())) {
        return end + 1;
      }
      end++;
    }
    return end;
  }

  private static void add(List<Line> all, Strip.Row r) {
    all.add(new Line(r.seconds(), r.kind(), r.text(), "", Mark.NOT_YET));
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    Ink ink = ink();
    double left = TIME;
    double right = Math.max(left + 200, w * 0.7);
    g.setFill(ink.sheet());
    g.fillRect(left, 0, right - left, h);
    feed(g, ink, left, right, h);
    int room = Math.max(1, (int) ((h - 16) / ROW));
    int end = Math.max(0, lines.size() - scrolled);
    int begin = Math.max(0, end - room);
    double y = 8;
    double middle = left + FEED + (right - left - 2 * FEED) * 0.3;
    double last = -1;
    for (Line l : lines.subList(begin, end)) {
      double base = y + 13;
      if (Math.abs(l.seconds() - last) > 0.0005 && l.kind() != '?') {
        g.setFont(Type.numbers(11));
        g.setFill(ink.ink2());
        g.setTextAlign(TextAlignment.RIGHT);
        Type.write(g, String.format(Locale.ROOT, "%.2f s", l.seconds()), left - 8, base);
        g.setTextAlign(TextAlignment.LEFT);
        last = l.seconds();
      }
      switch (l.kind()) {
        case '>' -> {
          g.setFont(Type.words(13));
          g.setFill(ink.slate());
          double x = left + FEED + 8;
          Type.write(g, Type.cut(Type.words(13), l.text(), right - FEED - x - 8), x, base);
        }
        case '<' -> {
          g.setFont(Type.words(13));
          g.setFill(ink.ink());
          Type.write(
              g, Type.cut(Type.words(13), l.text(), right - FEED - middle - 8), middle, base);
        }
        case '!' -> {
          g.setFont(Type.words(11));
          g.setFill(ink.madder());
          Type.write(
              g,
              Type.cut(Type.words(11), "line " + l.text(), right - left - 2 * FEED - 16),
              left + FEED + 8,
              base);
        }
        default -> {} // only what was expected stands here
      }
      if (!l.expected().isEmpty()) {
        Marks.paint(g, ink, l.mark(), right + 16, base - 4, 4.2);
        g.setFont(Type.words(11));
        g.setFill(ink.ink2());
        Type.write(g, Type.cut(Type.words(11), l.expected(), w - right - 34), right + 28, base);
        Hairline.level(g, Ink.thin(ink.ink2(), 0.4), right, right + 8, base - 4, 1);
      }
      y += ROW;
    }
    if (begin > 0 || end < lines.size()) {
      g.setFont(Type.words(11));
      g.setFill(ink.ink2());
      Type.write(
          g,
          (begin > 0 ? begin + " rows before" : "")
              + (begin > 0 && end < lines.size() ? ", " : "")
              + (end < lines.size() ? lines.size() - end + " behind" : ""),
          0,
          h - 6);
    }
  }

  /// The holes that the strip is fed by, and its edges.
  private static void feed(GraphicsContext g, Ink ink, double left, double right, double h) {
    g.setFill(ink.paper());
    for (double y = 9; y < h; y += 12) {
      g.fillOval(left + 4, y, 5, 5);
      g.fillOval(right - 9, y, 5, 5);
    }
    Hairline.upright(g, ink.hair(), left, 0, h, 1);
    Hairline.upright(g, ink.hair(), right, 0, h, 1);
    Hairline.upright(g, Ink.thin(ink.hair(), 0.6), left + FEED, 0, h, 1);
    Hairline.upright(g, Ink.thin(ink.hair(), 0.6), right - FEED, 0, h, 1);
  }
}
