package ell.desk.prove;

import ell.core.entry.Entry;
import ell.core.prove.ProveFacts;
import ell.core.prove.TestPlan;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Verdict;
import ell.core.rack.Standing.Mark;
import ell.desk.mark.Hairline;
import ell.desk.mark.Ink;
import ell.desk.mark.LimitStrip;
import ell.desk.mark.Marks;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.scene.canvas.GraphicsContext;

/// The steps of a plan as rungs between two rails that are climbed from below: what is done is a
/// full rung with its mark and its reading, what is in hand has brass corners, what is to come is a
/// hairline.
final class RungsPicture extends Picture {
  private static final double ROW = 27;
  private static final double MARK = 26;

  private List<Rung> rungs = List.of();
  private int at = -1;

  /// A rung.
  private record Rung(int number, String name, Optional<Entry.ProofStep> step, int round, int of) {}

  RungsPicture() {
    super("steps of the test plan");
  }

  void show(ProveModel.Shown s) {
    rungs = s == null ? List.of() : rungs(s);
    at = s == null ? -1 : at(s);
    setAccessibleText("steps of the test plan. " + words());
    redraw();
  }

  private static Optional<ProveFacts.Run> run(ProveModel.Shown s) {
    return s.facts().last();
  }

  private static List<Rung> rungs(ProveModel.Shown s) {
    List<Rung> all = new ArrayList<>();
    Optional<ProveFacts.Run> run = run(s);
    if (s.plan().isEmpty()) {
      return all;
    }
    TestPlan p = s.plan().get();
    List<Entry.ProofStep> made = run.map(ProveFacts.Run::made).orElse(List.of());
    boolean other = run.isPresent() && made.stream().anyMatch(m -> !named(p, m));
    for (int i = 0; i < p.steps().size(); i++) {
      int number = i + 1;
      String name = p.steps().get(i).name();
      List<Entry.ProofStep> own =
          other
              ? made.stream().filter(m -> m.name().equals(name)).toList()
              : made.stream().filter(m -> m.number() == number).toList();
      Optional<Entry.ProofStep> worst =
          own.stream()
              .reduce((a, b) -> a.verdict().filter(v -> v == Verdict.OUT).isPresent() ? a : b);
      all.add(new Rung(number, name, worst, own.size(), p.times(number)));
    }
    return all;
  }

  private static boolean named(TestPlan p, Entry.ProofStep m) {
    return m.number() <= p.steps().size() && p.steps().get(m.number() - 1).name().equals(m.name());
  }

  private static int at(ProveModel.Shown s) {
    if (s.now().isPresent()) {
      return s.now().get().turn().number() - 1;
    }
    return -1;
  }

  private String words() {
    List<String> all = new ArrayList<>();
    for (Rung r : rungs) {
      r.step()
          .ifPresent(x ->
              all.add(
                  (r.name() + " " + value(x)).strip()
                      + (x.left()
                          ? " left out"
                          : x.verdict().map(v -> " " + v.words()).orElse(""))));
    }
    return all.isEmpty() ? rungs.size() + " to be made" : String.join(", ", all);
  }

  private static String value(Entry.ProofStep s) {
    return s.value()
        .map(v -> Double.isInfinite(v) ? "open" : EngineeringNumber.print(v, s.unit(), 4))
        .orElse("");
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    Ink ink = ink();
    if (rungs.isEmpty()) {
      return;
    }
    int fit = Math.max(1, (int) Math.floor((h - 16) / ROW));
    int columns = w > 620 && rungs.size() > fit ? 2 : 1;
    int rows = Math.min(fit, (rungs.size() + columns - 1) / columns);
    int shown = rows * columns;
    int here = at >= 0 ? at : bad();
    int from = Math.clamp(here - shown / 2L, 0, Math.max(0, rungs.size() - shown));
    double wide = (w - 24 * (columns - 1)) / columns;
    for (int c = 0; c < columns; c++) {
      double x = c * (wide + 24);
      int first = from + c * rows;
      int end = Math.min(rungs.size(), first + rows);
      if (first >= end) {
        continue;
      }
      double bottom = 4 + (end - first) * ROW;
      // the two rails of the climb
      Hairline.upright(g, ink.ink2(), x + 2, 2, bottom, 2);
      Hairline.upright(g, ink.ink2(), x + MARK, 2, bottom, 2);
      for (int i = first; i < end; i++) {
        rung(g, ink, rungs.get(i), x, 4 + (i - first) * ROW + ROW / 2, wide, i == at);
      }
    }
    int left = rungs.size() - from - shown;
    if (left > 0) {
      g.setFont(Type.words(11));
      g.setFill(ink.ink2());
      Type.write(g, "and " + left + " more below", 32, h - 2);
    }
  }

  /// The first rung that did not hold, 0 where all did.
  private int bad() {
    for (int i = 0; i < rungs.size(); i++) {
      boolean held =
          rungs.get(i).step().isEmpty()
              || rungs.get(i).step().get().verdict().filter(v -> v == Verdict.WITHIN).isPresent();
      if (!held) {
        return i;
      }
    }
    return 0;
  }

  private static Mark mark(Rung r, boolean now) {
    if (r.step().isEmpty()) {
      return now ? Mark.NEXT : Mark.NOT_YET;
    }
    Entry.ProofStep s = r.step().get();
    return s.left() ? Mark.NOT_YET : s.verdict().map(Marks::of).orElse(Mark.CLOSE);
  }

  private void rung(GraphicsContext g, Ink ink, Rung r, double x, double y, double w, boolean now) {
    boolean done = r.step().isPresent();
    Hairline.level(g, done ? ink.ink2() : ink.hair(), x + 2, x + MARK, y, done ? 2 : 1);
    g.setFill(ink.paper());
    g.fillOval(x + MARK / 2 - 7, y - 7, 16, 14);
    Marks.paint(g, ink, mark(r, now), x + MARK / 2 + 1, y, 5);
    if (now) {
      corners(g, ink, x + MARK + 6, y - ROW / 2 + 2, w - MARK - 8, ROW - 4);
    }
    double name = w < 420 ? 138 : Math.min(190, w * 0.4);
    g.setFont(now ? Type.bold(13) : Type.words(13));
    g.setFill(done || now ? ink.ink() : ink.ink2());
    String title = r.name() + (r.of() > 1 ? " \u00b7 " + r.round() + " of " + r.of() : "");
    Type.write(g, Type.cut(Type.words(13), title, name - 8), x + MARK + 12, y + 4.5);
    if (!done) {
      return;
    }
    Entry.ProofStep s = r.step().get();
    double a = x + MARK + 12 + name;
    boolean strip = s.value().filter(Double::isFinite).isPresent() && s.limits().isPresent();
    String v = value(s);
    g.setFont(Type.numbers(13));
    g.setFill(ink.ink());
    if (!v.isEmpty()) {
      Type.write(g, v, a, y + 4.5);
    }
    double b = a + (v.isEmpty() ? 0 : 78);
    double room = x + w - b - 6;
    if (strip && room > 64) {
      LimitStrip.paint(
          g,
          ink,
          new LimitStrip.Shown(
              s.limits().get(), s.value(), s.uncertainty().orElse(0.0), s.verdict(), s.unit()),
          b,
          y + 6,
          Math.min(room, 150),
          false);
    } else if (!strip && room > 20) {
      g.setFont(Type.words(12));
      g.setFill(ink.ink2());
      String words = (s.left() ? "left out: " : "") + s.words();
      Type.write(g, Type.cut(Type.words(12), words, room), b, y + 4.5);
    }
  }

  private static void corners(GraphicsContext g, Ink ink, double x, double y, double w, double h) {
    g.setStroke(ink.brass());
    g.setLineWidth(2);
    double k = 7;
    g.strokePolyline(new double[] {x, x, x + k}, new double[] {y + k, y, y}, 3);
    g.strokePolyline(new double[] {x + w - k, x + w, x + w}, new double[] {y, y, y + k}, 3);
    g.strokePolyline(new double[] {x, x, x + k}, new double[] {y + h - k, y + h, y + h}, 3);
    g.strokePolyline(
        new double[] {x + w - k, x + w, x + w}, new double[] {y + h, y + h, y + h - k}, 3);
  }
}
