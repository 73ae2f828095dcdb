package ell.desk.power;

import ell.core.power.RailSpread;
import ell.core.power.RailSpread.Read;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.desk.mark.BoardTicks;
import ell.desk.mark.Hairline;
import ell.desk.mark.Ink;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/// Every rail over all boards of the build, one row each on the same scale from limit to limit: a
/// stroke for each board, taller and named for the one in hand and for those that are out or stand
/// apart.
final class RailsPicture extends Picture {
  private static final double LEFT = 96;
  private static final double RIGHT = 236;
  private static final double TALLEST = 64;
  private static final double LEAST = 40;

  /// Beyond its limits a row goes on for so much of what is between them.
  private static final double BEYOND = 0.35;

  private List<RailSpread> rails = List.of();
  private String inHand = "";

  RailsPicture() {
    super("rails of every board");
  }

  void show(List<RailSpread> all, String board) {
    rails = List.copyOf(all);
    inHand = board;
    setAccessibleText("rails of every board. " + String.join(". ", words(all)));
    redraw();
  }

  /// A sentence for each rail, for screen readers.
  static List<String> words(List<RailSpread> all) {
    List<String> lines = new ArrayList<>();
    for (RailSpread r : all) {
      StringBuilder s = new StringBuilder(r.rail().net()).append(": ").append(count(r));
      for (Read b : r.odd()) {
        s.append(", board ")
            .append(b.board())
            .append(' ')
            .append(EngineeringNumber.print(b.volts(), Unit.VOLT, 4))
            .append(
                b.verdict().filter(v -> v == Verdict.OUT).isPresent()
                    ? " is out"
                    : " stands apart");
      }
      lines.add(s.toString());
    }
    return lines;
  }

  private static String count(RailSpread r) {
    return r.boards().isEmpty()
        ? "not read on any of " + r.of()
        : r.boards().size()
            + " of "
            + r.of()
            + " read, middle "
            + EngineeringNumber.print(r.median(), Unit.VOLT, 4);
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    Ink ink = ink();
    if (rails.isEmpty()) {
      g.setFont(Type.words(13));
      g.setFill(ink.ink2());
      Type.write(g, "The ladder has no rails.", 8, 24);
      return;
    }
    double row = Math.clamp(h / rails.size(), LEAST, TALLEST);
    for (int i = 0; i < rails.size(); i++) {
      double y = row * i + row / 2 + 8;
      if (y + row / 3 > h) {
        g.setFont(Type.words(12));
        g.setFill(ink.ink2());
        Type.write(g, "and " + (rails.size() - i) + " more: make the window taller", 8, h - 4);
        return;
      }
      row(g, ink, rails.get(i), y, row, w);
    }
  }

  private void row(GraphicsContext g, Ink ink, RailSpread r, double y, double row, double w) {
    double a = LEFT;
    double b = Math.max(a + 80, w - RIGHT);
    double low = r.rail().low();
    double high = r.rail().high();
    double span = Math.max(high - low, 1e-9);
    double from = low - BEYOND * span;
    double to = high + BEYOND * span;
    g.setFont(Type.bold(13));
    g.setFill(ink.ink());
    Type.write(g, Type.cut(Type.bold(13), r.rail().net(), LEFT - 14), 4, y + 1);
    g.setFont(Type.numbers(11));
    g.setFill(ink.ink2());
    Type.write(
        g,
        (r.rail().guessed() ? "guessed " : "")
            + EngineeringNumber.print(r.rail().volts(), Unit.VOLT, 3),
        4,
        y + 14);
    Hairline.level(g, ink.ink2(), a, b, y, 1);
    double x0 = at(low, from, to, a, b);
    double x1 = at(high, from, to, a, b);
    g.setFill(Ink.thin(ink.verdigris(), 0.14));
    g.fillRect(x0, y - row * 0.28, x1 - x0, row * 0.28);
    Hairline.upright(g, ink.ink(), x0, y - row * 0.32, y + 4, 2);
    Hairline.upright(g, ink.ink(), x1, y - row * 0.32, y + 4, 2);
    g.setTextAlign(TextAlignment.CENTER);
    g.setFont(Type.numbers(10.5));
    g.setFill(ink.ink2());
    Type.write(g, EngineeringNumber.print(low, Unit.VOLT, 4), x0, y + 14);
    Type.write(g, EngineeringNumber.print(high, Unit.VOLT, 4), x1, y + 14);
    g.setTextAlign(TextAlignment.LEFT);
    BoardTicks.paint(
        g,
        ink,
        r.boards().stream()
            .map(x ->
                new BoardTicks.Tick(
                    x.board(),
                    at(x.volts(), from, to, a, b),
                    x.verdict(),
                    x.apart(),
                    x.board().equals(inHand)))
            .toList(),
        y,
        row * 0.22,
        row * 0.42,
        11);
    g.setFont(Type.words(12));
    g.setFill(ink.ink2());
    Type.write(g, Type.cut(Type.words(12), count(r), RIGHT - 22), b + 18, y + 4);
  }

  private static double at(double v, double from, double to, double a, double b) {
    return a + (b - a) * Math.clamp((v - from) / (to - from), 0, 1);
  }
}
