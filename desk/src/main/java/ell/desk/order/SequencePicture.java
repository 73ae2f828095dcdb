package ell.desk.order;

import ell.core.order.OrderFacts;
import ell.core.order.Step;
import ell.desk.mark.Ink;
import ell.desk.mark.Marks;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.function.IntConsumer;
import javafx.scene.canvas.GraphicsContext;

/// The whole sequence as a ruler in minutes: stretches of like steps, gates as diamonds, the step
/// in hand under a brass bracket.
final class SequencePicture extends Picture {
  private OrderModel.Shown shown;
  private IntConsumer onStep = _ -> {};

  SequencePicture() {
    super("sequence");
    setMinHeight(66);
    setPrefHeight(66);
    setMaxHeight(66);
    setOnMouseClicked(e -> {
      if (shown != null) {
        onStep.accept(stepAt(e.getX()));
      }
    });
  }

  /// Is told the index of a step that is clicked.
  void onStep(IntConsumer listener) {
    onStep = listener;
  }

  void show(OrderModel.Shown what) {
    shown = what;
    setAccessibleText(
        "step " + what.step().number() + " of " + what.work().plan().order().steps().size());
    redraw();
  }

  private double[] starts(double w) {
    List<Step> steps = shown.work().plan().order().steps();
    double[] at = new double[steps.size() + 1];
    // a step takes at least a little room, so that short ones can be hit and seen
    double total = steps.stream().mapToDouble(SequencePicture::room).sum();
    for (int i = 0; i < steps.size(); i++) {
      at[i + 1] = at[i] + room(steps.get(i)) / total * (w - 20);
    }
    return at;
  }

  private static double room(Step s) {
    return s.gate().isPresent() ? 60 : 20 + Math.min(s.seconds(), 120);
  }

  private int stepAt(double x) {
    double[] at = starts(getWidth());
    int i = 0;
    while (i < at.length - 2 && x - 10 > at[i + 1]) {
      i++;
    }
    return i;
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    if (shown == null) {
      return;
    }
    Ink ink = ink();
    List<Step> steps = shown.work().plan().order().steps();
    double[] at = starts(w);
    double y = 14;
    double barH = 18;
    g.setStroke(ink.ink2());
    g.setLineWidth(1);
    g.strokeLine(10, y + barH + 3, w - 10, y + barH + 3);
    int gate = 0;
    List<GateName> names = new ArrayList<>();
    for (int i = 0; i < steps.size(); i++) {
      Step s = steps.get(i);
      boolean done = OrderFacts.of(shown.work().state()).done(s);
      double x0 = 10 + at[i];
      double x1 = 10 + at[i + 1];
      if (s.gate().isPresent()) {
        gate++;
        double x = (x0 + x1) / 2;
        Marks.gate(g, ink, x, y + barH / 2, 7, done);
        names.add(new GateName(x, gate, s.gate().get(), done));
      } else {
        g.setFill(done ? ink.stone() : ink.sheet());
        g.fillRect(x0 + 0.5, y, Math.max(1, x1 - x0 - 1), barH);
        g.setStroke(done ? ink.ink() : ink.ink2());
        g.setLineWidth(0.8);
        g.strokeRect(x0 + 0.5, y, Math.max(1, x1 - x0 - 1), barH);
        if (s.parts().isEmpty()) {
          g.setStroke(ink.ochre());
          g.setLineWidth(1.2);
          g.strokeLine(x0 + 2, y + barH - 2, x1 - 2, y + 2);
        }
      }
      if (s == shown.step()) {
        g.setStroke(ink.brass());
        g.setLineWidth(2.6);
        g.strokeLine(x0 - 1, y - 6, x1 + 1, y - 6);
        g.strokeLine(x0 - 1, y - 6, x0 - 1, y - 1);
        g.strokeLine(x1 + 1, y - 6, x1 + 1, y - 1);
      }
    }
    labels(g, ink, steps, at, y + barH);
    gates(g, ink, names, w, y + barH + 18);
  }

  private record GateName(double x, int number, String name, boolean done) {}

  /// Names of gates on two lines, a number alone where both are taken.
  private static void gates(GraphicsContext g, Ink ink, List<GateName> names, double w, double y) {
    double[] until = {Double.NEGATIVE_INFINITY, Double.NEGATIVE_INFINITY};
    g.setFont(Type.bold(11));
    for (int i = 0; i < names.size(); i++) {
      GateName n = names.get(i);
      g.setFill(n.done() ? ink.verdigris() : ink.slate());
      String text = Type.cut(Type.bold(11), n.number() + " " + n.name(), 78);
      double tw = Type.width(Type.bold(11), text);
      double x = Math.clamp(n.x() - tw / 2, 2, Math.max(2, w - tw - 2));
      int line = x > until[0] ? 0 : 1;
      if (x <= until[line]) {
        text = String.valueOf(n.number());
        tw = Type.width(Type.bold(11), text);
        x = n.x() - tw / 2;
        line = until[0] < until[1] ? 0 : 1;
      }
      if (x > until[line]) {
        Type.write(g, text, x, y + 12 * line);
        until[line] = x + tw + 5;
      }
    }
  }

  /// Names of the long stretches, where there is room.
  private void labels(GraphicsContext g, Ink ink, List<Step> steps, double[] at, double y) {
    List<int[]> stretches = new ArrayList<>();
    int from = 0;
    for (int i = 1; i <= steps.size(); i++) {
      boolean same =
          i < steps.size()
              && steps.get(i).gate().isEmpty()
              && steps.get(from).gate().isEmpty()
              && steps.get(i).action() == steps.get(from).action();
      if (!same) {
        stretches.add(new int[] {from, i});
        from = i;
      }
    }
    g.setFont(Type.words(11));
    g.setFill(ink.ink2());
    for (int[] s : stretches) {
      Step first = steps.get(s[0]);
      int parts = 0;
      for (int i = s[0]; i < s[1]; i++) {
        parts += steps.get(i).parts().size();
      }
      String text = first.action().words() + (parts > 0 ? " " + parts : "");
      if (first.gate().isEmpty() && at[s[1]] - at[s[0]] > Type.width(Type.words(11), text) + 6) {
        Type.write(g, text, 12 + at[s[0]], y + 15);
      }
    }
  }
}
