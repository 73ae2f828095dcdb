package ell.desk.kit;

import ell.core.kit.KitCheck;
import ell.core.kit.KitLine;
import ell.core.rack.Standing.Mark;
import ell.desk.mark.Hairline;
import ell.desk.mark.Ink;
import ell.desk.mark.Marks;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/// A bar for each line of the kit as long as the boards it makes, over a rule of boards with a mark
/// at the build's size; gates below, each with what it waits for.
final class ReachPicture extends Picture {
  static final double ROW = 30;
  private static final double HEAD = 34;
  private static final double LEFT = 190;
  private KitModel.Shown shown;
  private int selected;

  ReachPicture() {
    super("how many boards each part makes");
  }

  void show(KitModel.Shown what, int line) {
    shown = what;
    selected = line;
    if (what != null) {
      setAccessibleText(what.verdict());
      setMinHeight(HEAD + what.lines().size() * ROW + 34);
      setPrefHeight(getMinHeight());
    }
    redraw();
  }

  /// Where a line begins.
  double yOf(int line) {
    return line == 0 ? 0 : HEAD + line * ROW;
  }

  /// The line at a height, -1 when there is none.
  int lineAt(double y) {
    int i = (int) Math.floor((y - HEAD) / ROW);
    return shown == null || i < 0 || i >= shown.lines().size() ? -1 : i;
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    if (shown == null) {
      return;
    }
    Ink ink = ink();
    KitCheck kit = shown.kit();
    double right = w - 130;
    double most = Math.max(kit.boards() * 1.25, 1);
    double per = (right - LEFT) / most;
    rule(g, ink, kit.boards(), per, most);
    double goal = LEFT + kit.boards() * per;
    for (int i = 0; i < shown.lines().size(); i++) {
      double y = HEAD + i * ROW;
      line(g, ink, shown.lines().get(i), y, i == selected, per, most, w, goal);
    }
    Hairline.upright(g, ink.ink(), goal, HEAD - 16, HEAD + shown.lines().size() * ROW + 4, 2);
    if (shown.folded() > 0) {
      g.setFill(ink.ink2());
      g.setFont(Type.words(13));
      Type.write(
          g,
          shown.folded() + " more lines make " + kit.boards() + " boards (Space shows them)",
          LEFT,
          HEAD + shown.lines().size() * ROW + 20);
    }
  }

  private void rule(GraphicsContext g, Ink ink, int boards, double per, double most) {
    Hairline.level(g, ink.ink2(), LEFT, LEFT + most * per, HEAD - 8, 1);
    g.setFont(Type.numbers(11));
    g.setFill(ink.ink2());
    g.setTextAlign(TextAlignment.CENTER);
    int step = (int) Math.max(1, Math.ceil(most / 15));
    for (int b = 0; b <= most; b++) {
      double x = LEFT + b * per;
      if (b % step == 0) {
        Hairline.upright(g, ink.ink2(), x, HEAD - 15, HEAD - 8, 1);
        if (b != boards && Math.abs(b - boards) * per > 46) {
          g.setFill(ink.ink2());
          Type.write(g, String.valueOf(b), x, HEAD - 19);
        }
      } else if (per > 4) {
        Hairline.upright(g, ink.ink2(), x, HEAD - 12, HEAD - 8, 1);
      }
    }
    g.setFont(Type.bold(13));
    g.setFill(ink.ink());
    Type.write(g, boards + " boards", LEFT + boards * per, HEAD - 19);
    g.setTextAlign(TextAlignment.LEFT);
  }

  private void line(
      GraphicsContext g,
      Ink ink,
      KitLine r,
      double y,
      boolean chosen,
      double per,
      double most,
      double w,
      double goal) {
    boolean missing = r.shortBy() > 0;
    if (chosen) {
      g.setFill(Ink.thin(ink.brass(), 0.14));
      g.fillRect(0, y + 1, w, ROW - 2);
      g.setFill(ink.brass());
      g.fillRect(0, y + 1, 3, ROW - 2);
    }
    g.setFont(Type.bold(13));
    g.setFill(ink.ink());
    Type.write(g, Type.cut(Type.bold(13), r.code(), 160), 28, y + 13);
    g.setFont(Type.words(11));
    g.setFill(ink.ink2());
    Type.write(g, Type.cut(Type.words(11), String.join(" ", r.references()), 158), 28, y + 26);
    Marks.paint(g, ink, missing ? Mark.OUT : Mark.WITHIN, 14, y + ROW / 2, 4);
    double end = LEFT + Math.min(r.reach(), most) * per;
    double length = Math.max(end - LEFT, 1.5);
    g.setFill(missing ? ink.madder() : ink.ink2());
    g.fillRect(LEFT, y + 9, length, ROW - 17);
    g.setFill(ink.sheet());
    g.fillRect(LEFT + 1, y + 10, Math.max(0, length - 2), ROW - 19);
    g.setFill(missing ? Ink.thin(ink.madder(), 0.3) : ink.stone());
    g.fillRect(LEFT + 1, y + 10, Math.max(0, length - 2), ROW - 19);
    if (missing && r.onOrder() > 0) {
      // what is under way, as an open stretch
      double more = Math.min((double) r.onOrder() / r.perBoard(), most - r.reach()) * per;
      g.setLineDashes(4, 3);
      g.setStroke(ink.slate());
      g.strokeRect(end, y + 9, Math.max(0, more), ROW - 17);
      g.setLineDashes();
      g.setFill(ink.slate());
      g.setFont(Type.words(11));
      String when =
          r.expected()
              .map(d -> "due " + d.getDayOfMonth() + "." + d.getMonthValue() + ".")
              .orElse("on order");
      Type.write(g, when, Math.max(goal + 6, end + more + 6), y + 14);
    }
    g.setFont(Type.numbers(11));
    g.setTextAlign(TextAlignment.RIGHT);
    g.setFill(missing ? ink.madder() : ink.ink2());
    Type.write(
        g,
        missing ? "short " + r.shortBy() : (r.onHand() + r.fromAlternates()) + " of " + r.toGo(),
        w - 8,
        y + 14);
    g.setFont(Type.words(11));
    g.setFill(ink.ink2());
    Type.write(
        g,
        Type.cut(Type.words(11), r.bin().isEmpty() ? "no bin" : "bin " + r.bin(), 112),
        w - 8,
        y + 26);
    g.setTextAlign(TextAlignment.LEFT);
  }
}
