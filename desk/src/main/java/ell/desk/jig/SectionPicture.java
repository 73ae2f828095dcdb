package ell.desk.jig;

import ell.core.board.Side;
import ell.core.jig.Bending;
import ell.core.jig.JigPlan;
import ell.core.jig.Probe;
import ell.desk.mark.Ink;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.Locale;
import java.util.TreeMap;
import javafx.scene.canvas.GraphicsContext;

/// The jig in section, seen from the front: finger plate, fingers, the board as it bends, much
/// enlarged, guide plate, probes with the arrows of their force, probe plate; beside them the sum.
final class SectionPicture extends Picture {
  private JigModel.Shown shown;

  SectionPicture() {
    super("the jig in section");
  }

  void show(JigModel.Shown s) {
    shown = s;
    if (s != null) {
      setAccessibleText(
          String.format(
              Locale.ROOT,
              "the jig in section: %.1f N of probes, the board bends by %.3f mm",
              s.plan().force(),
              1e3 * s.plan().bending().deflection()));
    }
    redraw();
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    if (shown == null) {
      return;
    }
    Ink ink = ink();
    JigPlan p = shown.plan();
    Bending b = p.bending();
    double[] box = p.revision().boxMm();
    double left = 12;
    double right = w - 62;
    double sx = (right - left) / Math.max(1, box[2] - box[0]);
    double top = 22;
    double board = h * 0.46;
    double guide = h * 0.64;
    double bottom = h - 14;
    g.setFont(Type.bold(13));
    g.setFill(ink.ink());
    Type.write(g, "From the front", 0, 12);
    plate(g, ink, left - 8, right + 8, top, "fingers", right);
    plate(g, ink, left - 8, right + 8, guide, "guide", right);
    plate(g, ink, left - 8, right + 8, bottom - 8, "probes", right);
    double most = Math.max(1e-9, Double.isNaN(b.deflection()) ? 1 : b.deflection());
    double enlarged = b.held() ? Math.min(18, h * 0.09) / most : 0;
    for (int i = 0; i < b.fingers().size(); i++) {
      Bending.Finger f = b.fingers().get(i);
      double x = left + (f.xMm() - box[0]) * sx;
      boolean hand = shown.finger() == i;
      g.setFill(hand ? ink.brass() : ink.stone());
      g.setStroke(ink.ink());
      g.setLineWidth(1.2);
      if (b.fingerSide() || b.rests()) {
        g.fillRect(x - 4, top + 8, 8, board - top - 11);
        g.strokeRect(x - 4, top + 8, 8, board - top - 11);
      }
      if (!b.fingerSide() || b.rests()) {
        g.fillRect(x - 4, board + 3, 8, guide - board - 3);
        g.strokeRect(x - 4, board + 3, 8, guide - board - 3);
      }
    }
    for (Probe x : p.probes()) {
      boolean above = x.target().side() == Side.FIRST;
      double px = left + (x.target().xMm() - box[0]) * sx;
      boolean hand = shown.probe().filter(q -> q.number() == x.number()).isPresent();
      g.setStroke(hand ? ink.brass() : ink.ink2());
      g.setLineWidth(hand ? 3 : 1.4);
      double tip = above ? board - 5 : board + 5;
      g.strokeLine(px, above ? top + 8 : bottom - 8, px, tip);
      g.setFill(hand ? ink.brass() : ink.ink());
      double d = above ? -1 : 1;
      g.fillPolygon(
          new double[] {px - 4, px + 4, px}, new double[] {tip + 8 * d, tip + 8 * d, tip}, 3);
    }
    curve(g, ink, b, left, box, sx, board, enlarged);
    sum(g, ink, p, Side.SECOND, left, right, box, sx, bottom - 10);
    sum(g, ink, p, Side.FIRST, left, right, box, sx, top + 9);
    g.setFont(Type.numbers(11));
    g.setFill(ink.ink2());
    String bends =
        b.held()
            ? String.format(
                Locale.ROOT,
                "bends %.3f mm, drawn %.0f ×",
                1e3 * b.deflection(),
                enlarged * 1e-3 / sx)
            : p.probes().isEmpty() ? "no probe presses" : "the fingers do not hold it";
    Type.write(g, bends, Type.width(Type.bold(13), "From the front") + 12, 12);
  }

  private static void plate(
      GraphicsContext g, Ink ink, double x0, double x1, double y, String name, double right) {
    g.setFill(Ink.thin(ink.stone(), 0.7));
    g.fillRect(x0, y, x1 - x0, 8);
    g.setStroke(ink.ink2());
    g.setLineWidth(1);
    g.strokeRect(x0, y, x1 - x0, 8);
    g.setFont(Type.words(11));
    g.setFill(ink.ink2());
    Type.write(g, name, right + 12, y + 8);
  }

  /// The board from the front: at each place the mean of what bends behind it.
  private static void curve(
      GraphicsContext g,
      Ink ink,
      Bending b,
      double left,
      double[] box,
      double sx,
      double y,
      double enlarged) {
    g.setStroke(ink.ink());
    g.setLineWidth(4);
    if (b.field().isEmpty() || enlarged == 0) {
      g.strokeLine(left, y, left + (box[2] - box[0]) * sx, y);
      return;
    }
    TreeMap<Double, double[]> by = new TreeMap<>();
    for (double[] c : b.field()) {
      double[] m = by.computeIfAbsent(Math.round(c[0] * 1e6) / 1e6, _ -> new double[2]);
      m[0] += c[2];
      m[1]++;
    }
    double up = b.fingerSide() ? 1 : -1;
    g.beginPath();
    boolean first = true;
    for (var e : by.entrySet()) {
      double px = left + (1e3 * e.getKey() - box[0]) * sx;
      double py = y - up * enlarged * e.getValue()[0] / e.getValue()[1];
      if (first) {
        g.moveTo(px, py);
        first = false;
      } else {
        g.lineTo(px, py);
      }
    }
    g.stroke();
  }

  /// The sum of the forces of a side where it acts.
  private static void sum(
      GraphicsContext g,
      Ink ink,
      JigPlan p,
      Side side,
      double left,
      double right,
      double[] box,
      double sx,
      double y) {
    double force = p.force(side);
    if (force == 0) {
      return;
    }
    double up = side == Side.SECOND ? -1 : 1;
    double x = left + (p.centreMm(side)[0] - box[0]) * sx;
    g.setStroke(ink.slate());
    g.setLineWidth(4);
    g.strokeLine(x, y, x, y + up * 20);
    g.setFill(ink.slate());
    g.fillPolygon(
        new double[] {x - 7, x + 7, x}, new double[] {y + up * 17, y + up * 17, y + up * 29}, 3);
    String text = String.format(Locale.ROOT, "%.1f N", force);
    g.setFont(Type.numbersBold(13));
    double wide = Type.width(Type.numbersBold(13), text);
    double tx = Math.clamp(x + 9, left, right - wide);
    double ty = y + up * 12 + 5;
    g.setFill(Ink.thin(ink.sheet(), 0.88));
    g.fillRect(tx - 2, ty - 12, wide + 4, 15);
    g.setFill(ink.ink());
    Type.write(g, text, tx, ty);
  }
}
