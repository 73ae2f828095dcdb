package ell.desk.trace;

import ell.core.trace.Traced;
import ell.desk.mark.Hairline;
import ell.desk.mark.Ink;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.List;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/// The suspects by rank, each with a bar on one graduated rule from nothing to certain.
final class RanksPicture extends Picture {
  private static final double ROW = 24;
  private static final double HEAD = 36;

  private List<Traced.Group> ranked = List.of();
  private int turned = -1;

  RanksPicture() {
    super("suspects by rank");
  }

  void show(TraceModel.Shown s) {
    ranked = s == null ? List.of() : s.traced().groups().stream().limit(TraceModel.LISTED).toList();
    turned = s == null ? -1 : s.suspect();
    setAccessibleText(
        "suspects by rank: "
            + String.join(
                ", ",
                ranked.stream().map(r -> name(r) + " " + Traced.percent(r.chance())).toList()));
    redraw();
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    Ink ink = ink();
    if (ranked.isEmpty()) {
      return;
    }
    double left = 8;
    double right = w - 58;
    g.setFont(Type.bold(13));
    g.setFill(ink.ink());
    Type.write(g, "Suspects", left, 12);
    for (int i = 0; i <= 10; i++) {
      double x = left + (right - left) * i / 10;
      Hairline.upright(g, ink.ink2(), x, HEAD - (i % 5 == 0 ? 18 : 14), HEAD - 10, 1);
    }
    Hairline.level(g, ink.ink2(), left, right, HEAD - 10, 1);
    int rows = (int) Math.min(ranked.size(), Math.floor((h - HEAD) / ROW));
    for (int i = 0; i < rows; i++) {
      Traced.Group r = ranked.get(i);
      double y = HEAD + i * ROW;
      boolean none = r.members().getFirst().suspects().isEmpty();
      double wide = (right - left) * r.chance();
      g.setFill(none ? ink.stone() : Ink.thin(ink.slate(), 0.55));
      g.fillRect(left, y + 17, wide, 5);
      Hairline.upright(g, ink.ink(), left + wide, y + 15, y + 23, 1.6);
      g.setFont(i == turned ? Type.bold(13) : Type.words(13));
      g.setFill(none ? ink.ink2() : ink.ink());
      String name = name(r);
      Type.write(
          g,
          Type.cut(i == turned ? Type.bold(13) : Type.words(13), name, right - left),
          left,
          y + 13);
      g.setFont(Type.numbers(13));
      g.setTextAlign(TextAlignment.RIGHT);
      Type.write(g, Traced.percent(r.chance()), w - 4, y + 18);
      g.setTextAlign(TextAlignment.LEFT);
      if (i == turned) {
        g.setStroke(ink.brass());
        g.setLineWidth(2.4);
        g.strokeLine(2, y + 2, 2, y + 22);
      }
    }
  }

  /// A suspect for a person.
  static String name(Traced.Group r) {
    return switch (r.words()) {
      case "healthy" -> "nothing is wrong";
      case "other" -> "something that is not listed";
      default -> r.words();
    };
  }
}
