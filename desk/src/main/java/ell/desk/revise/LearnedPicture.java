package ell.desk.revise;

import ell.core.quantity.Verdict;
import ell.core.revise.Compared;
import ell.core.revise.Lessons;
import ell.core.revise.Stacks;
import ell.core.statistic.Counts;
import ell.desk.mark.Ink;
import ell.desk.mark.Marks;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javafx.scene.canvas.GraphicsContext;

/// What the books say: revisions by how many of their boards were good at first, boards that were
/// tried together, and what goes wrong with packages, parts and sellers over all designs. Shares
/// are points on a line from none to all, with the interval that so few allow.
final class LearnedPicture extends Picture {
  private static final double LINE = 21;
  private static final int MOST = 5;

  private ReviseModel.Shown shown;

  LearnedPicture() {
    super("what the bench has learned");
  }

  void show(ReviseModel.Shown s) {
    shown = s;
    if (s != null) {
      setAccessibleText("what the bench has learned. " + String.join(". ", words(s)));
    }
    redraw();
  }

  /// A sentence for each line, for screen readers.
  static List<String> words(ReviseModel.Shown s) {
    List<String> all = new ArrayList<>();
    if (s.learned().isEmpty()) {
      return List.of("the books are being read");
    }
    ReviseModel.Learned l = s.learned().get();
    for (Compared.Group g : l.compared().groups()) {
      all.add(g.name() + ": " + g.good() + " of " + g.judged() + " good at first");
    }
    l.compared().pairs().forEach(p -> all.add(p.words()));
    l.stacks().words().forEach((k, v) -> all.add(k + ": " + v));
    for (Lessons.Way w : Lessons.Way.values()) {
      l.lessons().by().getOrDefault(w, List.of()).stream()
          .limit(MOST)
          .forEach(c ->
              all.add(w.key() + " " + c.name() + ": " + c.wrong() + " of " + c.of() + " wrong"));
    }
    return all;
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    if (shown == null) {
      return;
    }
    Ink ink = ink();
    if (shown.learned().isEmpty()) {
      text(g, ink, "The books are being read.", 8, 24, w - 16, false);
      return;
    }
    ReviseModel.Learned of = shown.learned().get();
    double y = head(g, ink, "Good at first", 4);
    double bar = Math.clamp(w * 0.34, 160, 320);
    for (Compared.Group x : of.compared().groups()) {
      text(g, ink, x.name(), 12, y, 150, true);
      double at = y;
      x.yield().ifPresent(i -> share(g, ink, x.share(), i, 168, bar, at - 4, 1));
      text(
          g,
          ink,
          x.judged() == 0
              ? x.boards() + " boards, none judged yet"
              : x.good() + " of " + x.judged() + ", " + x.all() + " defects",
          168 + bar + 16,
          y,
          w - bar - 190,
          false);
      y += LINE;
    }
    for (Compared.Pair p : of.compared().pairs()) {
      text(g, ink, p.before() + " to " + p.after() + ": " + p.words(), 12, y, w - 20, false);
      y += LINE;
    }
    Stacks stacks = of.stacks();
    if (!stacks.tried().isEmpty()) {
      y = head(g, ink, "Tried together", y + 6);
      for (Stacks.Tried t : stacks.tried().reversed().stream().limit(MOST).toList()) {
        Marks.paint(g, ink, Marks.of(t.verdict()), 18, y - 4, 5);
        text(
            g,
            ink,
            t.name()
                + ": "
                + String.join(" + ", t.members().stream().map(Stacks.Member::name).toList())
                + (t.mayShip()
                    ? ", may be shipped together"
                    : t.verdict() == Verdict.WITHIN ? ", changed since: try again" : ""),
            32,
            y,
            w - 40,
            false);
        y += LINE;
      }
    }
    for (Lessons.Way way : Lessons.Way.values()) {
      List<Lessons.Count> all =
          of.lessons().by().getOrDefault(way, List.of()).stream().limit(MOST).toList();
      if (all.isEmpty() || y + LINE * 2 > h) {
        continue;
      }
      y = head(g, ink, "Wrong, by " + way.key() + ", over all designs", y + 6);
      double most =
          Math.max(1e-6, all.stream().mapToDouble(c -> c.interval().high()).max().orElse(1) * 1.05);
      for (Lessons.Count c : all) {
        if (y > h - 4) {
          break;
        }
        text(g, ink, c.name(), 12, y, 150, false);
        share(g, ink, c.rate(), c.interval(), 168, bar, y - 4, most);
        text(
            g,
            ink,
            String.format(
                Locale.ROOT, "%d of %d, expect %.2g %%", c.wrong(), c.of(), 100 * c.rate()),
            168 + bar + 16,
            y,
            w - bar - 190,
            false);
        y += LINE;
      }
    }
  }

  private static double head(GraphicsContext g, Ink ink, String words, double y) {
    g.setFont(Type.bold(13));
    g.setFill(ink.ink());
    Type.write(g, words, 4, y + 14);
    return y + 14 + LINE;
  }

  private static void text(
      GraphicsContext g, Ink ink, String words, double x, double y, double wide, boolean loud) {
    g.setFont(loud ? Type.bold(12) : Type.words(12));
    g.setFill(loud ? ink.ink() : ink.ink2());
    Type.write(g, Type.cut(Type.words(12), words, Math.max(40, wide)), x, y);
  }

  private static void share(
      GraphicsContext g,
      Ink ink,
      double value,
      Counts.Interval i,
      double x,
      double wide,
      double y,
      double most) {
    g.setStroke(ink.hair());
    g.setLineWidth(1);
    g.strokeLine(x, y, x + wide, y);
    g.strokeLine(x, y - 4, x, y + 4);
    g.strokeLine(x + wide, y - 4, x + wide, y + 4);
    g.setStroke(ink.ink());
    g.setLineWidth(2.4);
    g.strokeLine(x + wide * i.low() / most, y, x + wide * Math.min(1, i.high() / most), y);
    g.setFill(ink.brass());
    double at = x + wide * Math.min(1, value / most);
    g.fillPolygon(new double[] {at - 4, at + 4, at}, new double[] {y - 9, y - 9, y - 2}, 3);
  }
}
