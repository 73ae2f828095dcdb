package ell.desk.talk;

import ell.core.talk.ChainOnBoard;
import ell.core.talk.ChainSeen;
import ell.core.talk.ChainSuspects;
import ell.desk.mark.Hairline;
import ell.desk.mark.Ink;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.Locale;
import java.util.Optional;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/// A chain as it lies: the elements that do what they should filled, the others empty; between them
/// how likely the data breaks there, as bars; where to look next in brackets. Of a long one the
/// whole is a rule, and what is in question is drawn large below it.
final class ChainPicture extends Picture {
  private static final int MOST = 12;

  private TalkModel.Shown shown;

  ChainPicture() {
    super("a chain of elements");
    setMinSize(200, 120);
  }

  void show(TalkModel.Shown s) {
    shown = s;
    setAccessibleText(
        s.chain()
            .map(c ->
                "chain "
                    + c.words()
                    + s.suspects()
                        .filter(x -> !x.suspects().isEmpty())
                        .map(x -> ", likeliest: " + x.suspects().getFirst().fault())
                        .orElse(""))
            .orElse("no chain"));
    redraw();
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    if (shown == null || shown.chain().isEmpty()) {
      return;
    }
    Ink ink = ink();
    ChainOnBoard c = shown.chain().get();
    int n = c.elements().size();
    int bad = shown.seen().map(ChainPicture::from).orElse(n + 1);
    double top = 30;
    rule(g, ink, c, bad, 20, w - 20, top);
    int first = Math.clamp((long) bad - MOST / 2, 1, Math.max(1, n - MOST + 1));
    int last = Math.min(n, first + MOST - 1);
    double step = (w - 80) / (last - first + 1.0);
    double y = top + Math.min(150, (h - top) * 0.4);
    double half = Math.min(34, step * 0.34);
    g.setFont(Type.words(11));
    g.setFill(ink.ink2());
    if (first == 1) {
      Type.write(g, c.head().isEmpty() ? "" : c.head(), 8, y - half - 8);
      Hairline.level(g, ink.ink(), 8, 40 + step / 2 - half, y, 1.4);
    }
    for (int i = first; i <= last; i++) {
      double x = 40 + (i - first + 0.5) * step;
      element(g, ink, c.elements().get(i - 1), x, y, half, i < bad || one(i));
      if (i < last) {
        Hairline.level(g, ink.ink(), x + half, x + step - half, y, 1.4);
      }
      bars(g, ink, c, i, x, y, half, step);
    }
    next(g, ink, c, first, last, step, y, half);
  }

  /// The first element that is not as it should be.
  private static int from(ChainSeen s) {
    return switch (s.kind()) {
      case FINE -> Integer.MAX_VALUE;
      case ALL_WRONG, NOTHING_AT_THE_END -> 1;
      default -> s.element();
    };
  }

  private boolean one(int i) {
    return shown
        .seen()
        .filter(s -> s.kind() == ChainSeen.Kind.ONE_DARK && s.element() != i)
        .isPresent();
  }

  private void rule(
      GraphicsContext g, Ink ink, ChainOnBoard c, int bad, double x0, double x1, double y) {
    int n = c.elements().size();
    Hairline.level(g, ink.ink(), x0, x1, y, 1);
    for (int i = 1; i <= n; i++) {
      double x = x0 + (i - 0.5) * (x1 - x0) / n;
      boolean good = i < bad || one(i);
      if (n <= 200 || i % (n / 100) == 0 || i == bad) {
        Hairline.upright(g, good ? ink.ink() : ink.madder(), x, y - (good ? 8 : 12), y, 1);
      }
    }
    g.setFont(Type.words(11));
    g.setFill(ink.ink2());
    Type.write(g, "1", x0, y + 14);
    g.setTextAlign(TextAlignment.RIGHT);
    Type.write(g, String.valueOf(n), x1, y + 14);
    g.setTextAlign(TextAlignment.LEFT);
  }

  private static void element(
      GraphicsContext g, Ink ink, String name, double x, double y, double half, boolean good) {
    if (good) {
      g.setFill(ink.stone());
      g.fillRect(x - half, y - half, 2 * half, 2 * half);
    }
    g.setStroke(ink.ink());
    g.setLineWidth(good ? 1.4 : 1);
    g.setLineDashes(good ? new double[0] : new double[] {4, 3});
    g.strokeRect(x - half, y - half, 2 * half, 2 * half);
    g.setLineDashes();
    g.setFont(Type.bold(13));
    g.setFill(ink.ink());
    g.setTextAlign(TextAlignment.CENTER);
    Type.write(g, Type.cut(Type.bold(13), name, 2 * half + 8), x, y + 4);
    g.setTextAlign(TextAlignment.LEFT);
  }

  /// How likely the data breaks at the near joint, within, and at the far joint of an element.
  private void bars(
      GraphicsContext g,
      Ink ink,
      ChainOnBoard c,
      int i,
      double x,
      double y,
      double half,
      double step) {
    if (shown.suspects().isEmpty()) {
      return;
    }
    String e = c.elements().get(i - 1);
    double[] chance = new double[3];
    for (ChainSuspects.Suspect s : shown.suspects().get().suspects()) {
      if (s.fault().contains(c.nearJoint(i))) {
        chance[0] += s.chance();
      } else if (s.fault().contains(c.farJoint(i)) || s.fault().contains("output of " + e)) {
        chance[2] += s.chance();
      } else if ((" " + s.fault() + " ").contains(" " + e + " ")) {
        chance[1] += s.chance();
      }
    }
    double[] at = {x - half, x, x + half};
    for (int k = 0; k < 3; k++) {
      if (chance[k] > 0.005) {
        double high = 90 * chance[k];
        g.setFill(Ink.thin(ink.madder(), 0.75));
        g.fillRect(at[k] - 5, y + half + 26 - 0, 10, high);
        g.setFont(Type.numbers(11));
        g.setFill(ink.ink());
        g.setTextAlign(TextAlignment.CENTER);
        Type.write(
            g, String.format(Locale.ROOT, "%.0f %%", 100 * chance[k]), at[k], y + half + 40 + high);
        g.setTextAlign(TextAlignment.LEFT);
      }
    }
  }

  private void next(
      GraphicsContext g,
      Ink ink,
      ChainOnBoard c,
      int first,
      int last,
      double step,
      double y,
      double half) {
    Optional<ChainSuspects.Look> look = shown.suspects().flatMap(ChainSuspects::next);
    if (look.isEmpty()) {
      return;
    }
    for (int i = first; i <= last; i++) {
      double x = 40 + (i - first + 0.5) * step;
      String p = look.get().place();
      double at =
          p.equals("net of " + c.nearJoint(i))
              ? x - step / 2
              : p.equals(c.nearJoint(i)) ? x - half : p.equals(c.farJoint(i)) ? x + half : -1;
      if (at >= 0) {
        g.setStroke(ink.brass());
        g.setLineWidth(2.4);
        g.strokeOval(at - 9, y - 9, 18, 18);
        g.setFont(Type.bold(12));
        g.setFill(ink.ink());
        g.setTextAlign(TextAlignment.CENTER);
        Type.write(g, "look here", at, y - half - 12);
        g.setTextAlign(TextAlignment.LEFT);
      }
    }
  }
}
