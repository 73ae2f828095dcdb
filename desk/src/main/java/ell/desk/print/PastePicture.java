package ell.desk.print;

import ell.core.artwork.Figure;
import ell.core.artwork.Island;
import ell.core.entry.PasteLook;
import ell.core.print.PrintFacts;
import ell.core.print.StencilCheck;
import ell.core.print.SyringePlan;
import ell.core.print.TopUp;
import ell.core.quantity.Verdict;
import ell.desk.mark.BoardFrame;
import ell.desk.mark.BoardPicture;
import ell.desk.mark.Ink;
import ell.desk.mark.Marks;
import ell.desk.mark.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.IntConsumer;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import javafx.scene.shape.FillRule;
import javafx.scene.text.TextAlignment;

/// The paste layer in ink: each opening full where it releases well, striped where it just does,
/// empty and crossed where it does not; a mark where a print came out wrong.
final class PastePicture extends BoardPicture {
  private PrintModel.Shown shown;
  private IntConsumer onOpening = _ -> {};

  PastePicture() {
    super("paste layer");
    onClick(this::clicked);
  }

  void onOpening(IntConsumer listener) {
    onOpening = listener;
  }

  void show(PrintModel.Shown s) {
    if (shown == null || shown.selected() != s.selected()) {
      aim();
    }
    shown = s;
    board(s.work().plan().revision(), s.side());
    setAccessibleText(
        "paste layer, "
            + s.side().key()
            + " side"
            + s.line()
                .map(l -> ", in hand " + l.opening().name() + ", " + l.verdict().words())
                .orElse(""));
    redraw();
  }

  @Override
  protected Optional<double[]> inHandMm() {
    return shown.line().map(l -> l.opening().island().middle());
  }

  private void clicked(double px, double py) {
    if (shown == null || shown.check().isEmpty()) {
      return;
    }
    BoardFrame f = frame(getWidth(), getHeight());
    double x = f.mmX(px);
    double y = f.mmY(py);
    int found = -1;
    double least = 5 / f.scale() + 0.3;
    List<StencilCheck.Line> lines = shown.check().get().lines();
    for (int i = 0; i < lines.size(); i++) {
      Island island = lines.get(i).opening().island();
      var box = island.template().shape().getEnvelopeInternal();
      double dx =
          Math.max(0, Math.max(box.getMinX() + island.x() - x, x - box.getMaxX() - island.x()));
      double dy =
          Math.max(0, Math.max(box.getMinY() + island.y() - y, y - box.getMaxY() - island.y()));
      double d = Math.hypot(dx, dy);
      if (d < least) {
        least = d;
        found = i;
      }
    }
    if (found >= 0) {
      onOpening.accept(found);
    }
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    if (shown == null) {
      return;
    }
    Ink ink = ink();
    BoardFrame f = frame(w, h);
    clip(g, w, h);
    edge(g, f, ink);
    legend(g, f, ink);
    if (shown.check().isEmpty()) {
      g.setFont(Type.words(13));
      g.setFill(ink.ink2());
      g.setTextAlign(TextAlignment.CENTER);
      Type.write(g, shown.loading() ? "reading the paste layer" : "", w / 2, h / 2);
      g.setTextAlign(TextAlignment.LEFT);
      shown.needle().ifPresent(n -> needle(g, f, ink, n));
      return;
    }
    List<StencilCheck.Line> lines = shown.check().get().lines();
    boolean print = shown.done();
    for (int i = 0; i < lines.size(); i++) {
      opening(g, f, ink, lines.get(i), w, h);
    }
    if (print) {
      Map<String, PasteLook> looks = PrintFacts.of(shown.work().state()).paste();
      for (StencilCheck.Line l : lines) {
        PasteLook look = looks.get(l.opening().name());
        if (look != null) {
          look(g, f, ink, l, look);
        }
      }
    }
    shown.line().ifPresent(l -> inHand(g, f, ink, l, w));
  }

  /// The dots of the needle as large as they are, along the line that it follows.
  private static void needle(GraphicsContext g, BoardFrame f, Ink ink, SyringePlan plan) {
    g.setStroke(ink.slate());
    g.setLineWidth(0.9);
    g.setLineDashes(3, 3);
    g.beginPath();
    for (int i = 0; i < plan.dots().size(); i++) {
      double x = f.x(plan.dots().get(i).joint().xMm());
      double y = f.y(plan.dots().get(i).joint().yMm());
      if (i == 0) {
        g.moveTo(x, y);
      } else {
        g.lineTo(x, y);
      }
    }
    g.stroke();
    g.setLineDashes();
    g.setFont(Type.numbers(11));
    for (int i = 0; i < plan.dots().size(); i++) {
      SyringePlan.Dot d = plan.dots().get(i);
      double x = f.x(d.joint().xMm());
      double y = f.y(d.joint().yMm());
      double r =
          Math.max(
              1.5, TopUp.of(Math.max(d.paste(), 1e-15), 1e-3).domeDiameter() * 1e3 * f.scale() / 2);
      g.setFill(Ink.thin(ink.verdigris(), 0.62));
      g.fillOval(x - r, y - r, 2 * r, 2 * r);
      g.setStroke(ink.verdigris());
      g.strokeOval(x - r, y - r, 2 * r, 2 * r);
      if (i % 10 == 0) {
        g.setFill(ink.ink2());
        Type.write(g, String.valueOf(i + 1), x + r + 1, y - r);
      }
    }
  }

  private void legend(GraphicsContext g, BoardFrame f, Ink ink) {
    if (shown.legend().isEmpty()) {
      return;
    }
    g.setStroke(ink.hair());
    for (Figure x : shown.legend().get().figures()) {
      if (x instanceof Figure.Stroke s) {
        g.setLineWidth(Math.clamp(s.pen().penMm() * f.scale(), 0.6, 3));
        g.beginPath();
        g.moveTo(f.x(s.path().getFirst()[0]), f.y(s.path().getFirst()[1]));
        for (double[] p : s.path().subList(1, s.path().size())) {
          g.lineTo(f.x(p[0]), f.y(p[1]));
        }
        g.stroke();
      }
    }
  }

  private static void trace(GraphicsContext g, BoardFrame f, Island island) {
    g.beginPath();
    for (double[] r : island.rings()) {
      for (int i = 0; i < r.length; i += 2) {
        double x = f.x(r[i] + island.x());
        double y = f.y(r[i + 1] + island.y());
        if (i == 0) {
          g.moveTo(x, y);
        } else {
          g.lineTo(x, y);
        }
      }
      g.closePath();
    }
  }

  private void opening(
      GraphicsContext g, BoardFrame f, Ink ink, StencilCheck.Line l, double w, double h) {
    Island island = l.opening().island();
    double[] m = island.middle();
    double cx = f.x(m[0]);
    double cy = f.y(m[1]);
    double reach = island.template().longest() * f.scale();
    if (cx < -reach || cy < -reach || cx > w + reach || cy > h + reach) {
      return;
    }
    boolean bad = l.verdict() == Verdict.OUT;
    boolean just = !bad && l.margin() < 1.25;
    Color c = bad ? ink.madder() : just ? ink.ochre() : ink.verdigris();
    g.setFillRule(FillRule.EVEN_ODD);
    trace(g, f, island);
    g.setFill(bad ? ink.sheet() : just ? Ink.thin(c, 0.22) : Ink.thin(c, 0.62));
    g.fill();
    g.setStroke(c);
    g.setLineWidth(bad ? 1.6 : 1);
    g.stroke();
    var box = island.template().shape().getEnvelopeInternal();
    double bw = box.getWidth() * f.scale() / 2;
    double bh = box.getHeight() * f.scale() / 2;
    if (bad) {
      g.strokeLine(cx - bw, cy - bh, cx + bw, cy + bh);
      g.strokeLine(cx - bw, cy + bh, cx + bw, cy - bh);
    } else if (just && Math.min(bw, bh) > 1.5) {
      // stripes across the narrow way
      boolean flat = bw > bh;
      for (double t = -0.6; t < 0.9; t += 0.6) {
        if (flat) {
          g.strokeLine(cx + t * bw, cy - bh, cx + t * bw, cy + bh);
        } else {
          g.strokeLine(cx - bw, cy + t * bh, cx + bw, cy + t * bh);
        }
      }
    }
  }

  private static void look(
      GraphicsContext g, BoardFrame f, Ink ink, StencilCheck.Line l, PasteLook look) {
    double[] m = l.opening().island().middle();
    double x = f.x(m[0]);
    double y = f.y(m[1]);
    double r = Math.clamp(f.scale() * 0.45, 4.5, 9);
    g.setFill(ink.sheet());
    g.fillOval(x - r - 2, y - r - 2, 2 * r + 4, 2 * r + 4);
    g.setStroke(ink.madder());
    g.setFill(ink.madder());
    g.setLineWidth(1.8);
    switch (look) {
      case MISSING -> g.strokeOval(x - r, y - r, 2 * r, 2 * r);
      case THIN -> {
        g.strokeOval(x - r, y - r, 2 * r, 2 * r);
        g.fillArc(x - r, y - r, 2 * r, 2 * r, 180, 180, javafx.scene.shape.ArcType.CHORD);
      }
      case SMEARED -> {
        for (int i = -1; i <= 1; i++) {
          g.strokeLine(x - r, y + i * r * 0.6 + r * 0.3, x + r, y + i * r * 0.6 - r * 0.3);
        }
      }
      case BRIDGED -> {
        g.fillOval(x - r, y - r / 2, r, r);
        g.fillOval(x, y - r / 2, r, r);
        g.strokeLine(x - r / 2, y, x + r / 2, y);
      }
      case GOOD -> Marks.paint(g, ink, ell.core.rack.Standing.Mark.WITHIN, x, y, r);
    }
  }

  private void inHand(GraphicsContext g, BoardFrame f, Ink ink, StencilCheck.Line l, double w) {
    Island island = l.opening().island();
    double[] m = island.middle();
    var box = island.template().shape().getEnvelopeInternal();
    double cx = f.x(m[0]);
    double cy = f.y(m[1]);
    brackets(
        g, ink, cx, cy, box.getWidth() * f.scale() / 2 + 5, box.getHeight() * f.scale() / 2 + 5);
    g.setFont(Type.bold(13));
    String name = l.opening().name();
    double tw = Type.width(Type.bold(13), name) + 8;
    double bw = box.getWidth() * f.scale() / 2;
    double bh = box.getHeight() * f.scale() / 2;
    // beside a flat opening, above an upright one: its neighbours lie the other way
    boolean beside = bw > bh * 1.3;
    double y = beside ? cy + 4 : cy - bh - 12;
    y = y < 14 ? cy + bh + 20 : y;
    double x = Math.clamp(beside ? cx + bw + 14 + tw / 2 : cx, tw / 2 + 2, w - tw / 2 - 2);
    g.setFill(Ink.thin(ink.sheet(), 0.9));
    g.fillRect(x - tw / 2, y - 12, tw, 16);
    g.setFill(ink.ink());
    g.setTextAlign(TextAlignment.CENTER);
    Type.write(g, name, x, y);
    g.setTextAlign(TextAlignment.LEFT);
  }

  /// What the picture's marks mean, for the line below it.
  static List<String> legendWords() {
    return new ArrayList<>(
        List.of("full: releases well", "striped: just releases", "crossed: does not release"));
  }
}
