package ell.desk.jig;

import ell.core.board.Part;
import ell.core.board.Side;
import ell.core.jig.Bending;
import ell.core.jig.JigPlan;
import ell.core.jig.Landing;
import ell.core.jig.Probe;
import ell.core.jig.Tooling;
import ell.desk.mark.BoardFrame;
import ell.desk.mark.BoardPicture;
import ell.desk.mark.Ink;
import ell.desk.mark.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.BiConsumer;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/// The board in its jig from above: how far it bends as strokes, probes as the heads they are,
/// fingers as squares with what they bear, pins; about the probe in hand the ring of its error.
final class FromAbovePicture extends BoardPicture {
  private static final double HEAD = 5.5;

  /// Room for what the heads are called.
  private static final double FOOT = 24;

  private JigModel.Shown shown;

  FromAbovePicture() {
    super("the board in its jig");
  }

  void onPlace(BiConsumer<Double, Double> listener) {
    onClick((x, y) -> {
      BoardFrame f = frame(getWidth(), getHeight() - FOOT);
      listener.accept(f.mmX(x), f.mmY(y));
    });
  }

  void show(JigModel.Shown s) {
    shown = s;
    if (s != null) {
      board(s.plan().revision(), Side.FIRST);
      JigPlan p = s.plan();
      setAccessibleText(
          String.format(
              Locale.ROOT,
              "the board in its jig from above: %d probes, %d of them from above, %d fingers, pins"
                  + " at %.1f, %.1f and %.1f, %.1f mm",
              p.probes().size(),
              p.topProbes(),
              p.bending().fingers().size(),
              p.tooling().round().xMm(),
              p.tooling().round().yMm(),
              p.tooling().slot().xMm(),
              p.tooling().slot().yMm()));
    }
    redraw();
  }

  @Override
  protected Optional<double[]> inHandMm() {
    return shown == null ? Optional.empty() : Optional.ofNullable(JigModel.place(shown));
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    if (shown == null || revision() == null) {
      return;
    }
    Ink ink = ink();
    BoardFrame f = frame(w, h - FOOT);
    clip(g, w, h);
    edge(g, f, ink);
    bent(g, f, ink);
    bodies(g, f, ink);
    pins(g, f, ink);
    for (int i = 0; i < shown.plan().bending().fingers().size(); i++) {
      finger(g, f, ink, i);
    }
    for (Probe p : shown.plan().probes()) {
      probe(g, f, ink, p);
    }
    List<double[]> taken = new ArrayList<>();
    letters(g, f, ink, taken);
    for (int i = 0; i < shown.plan().bending().fingers().size(); i++) {
      Bending b = shown.plan().bending();
      double r = Math.max(6, shown.plan().setup().mm("fingerRadius") * f.scale());
      Bending.Finger x = b.fingers().get(i);
      label(
          g,
          ink,
          f.x(x.xMm()),
          f.y(x.yMm()) + r + 13,
          JigView.bears(b, x, 1),
          taken,
          shown.finger() == i);
    }
    shown.probe().ifPresent(p -> ring(g, f, ink, p));
    legend(g, ink, w, h);
  }

  /// Strokes: the farther the board bends, the denser.
  private void bent(GraphicsContext g, BoardFrame f, Ink ink) {
    List<double[]> field = shown.plan().bending().field();
    double most = shown.plan().bending().deflection();
    if (field.size() < 2 || !(most > 0)) {
      return;
    }
    double px = apart(field, 0) * 1e3 * f.scale();
    double high = apart(field, 1) * 1e3 * f.scale();
    for (double[] c : field) {
      double share = Math.abs(c[2]) / most;
      if (share > 0.08) {
        g.setFill(Ink.thin(ink.slate(), 0.32 * share));
        double x = Math.round(f.x(1e3 * c[0]) - px / 2);
        double y = Math.round(f.y(1e3 * c[1]) - high / 2);
        g.fillRect(
            x,
            y,
            Math.round(f.x(1e3 * c[0]) + px / 2) - x,
            Math.round(f.y(1e3 * c[1]) + high / 2) - y);
      }
    }
  }

  /// The least distance of two cells along an axis.
  private static double apart(List<double[]> field, int axis) {
    double[] all = field.stream().mapToDouble(c -> c[axis]).sorted().distinct().toArray();
    double least = Double.POSITIVE_INFINITY;
    for (int i = 1; i < all.length; i++) {
      double d = all[i] - all[i - 1];
      least = d > 1e-7 ? Math.min(least, d) : least;
    }
    return Double.isInfinite(least) ? 0 : least;
  }

  private void bodies(GraphicsContext g, BoardFrame f, Ink ink) {
    for (Part p : revision().parts()) {
      if (!p.fitted() || p.place().isEmpty() || p.kind().bare()) {
        continue;
      }
      double[] b = revision().shape(p).boxAt(p.place().get());
      g.setStroke(ink.hair());
      g.setLineWidth(1);
      g.setLineDashes(p.side() == Side.FIRST ? new double[0] : new double[] {3, 3});
      g.strokeRect(f.x(b[0]), f.y(b[3]), (b[2] - b[0]) * f.scale(), (b[3] - b[1]) * f.scale());
    }
    g.setLineDashes();
    for (Bending.Brittle c : shown.plan().bending().brittle()) {
      Part p = revision().part(c.part()).orElseThrow();
      double[] b = revision().shape(p).boxAt(p.place().orElseThrow());
      boolean out = c.strain() > shown.plan().setup().number("strainLimit");
      g.setStroke(out ? ink.madder() : ink.ink2());
      g.setLineWidth(out ? 2.2 : 1.2);
      g.strokeRect(f.x(b[0]), f.y(b[3]), (b[2] - b[0]) * f.scale(), (b[3] - b[1]) * f.scale());
      if (out) {
        g.strokeLine(f.x(b[0]), f.y(b[3]), f.x(b[2]), f.y(b[1]));
        g.strokeLine(f.x(b[0]), f.y(b[1]), f.x(b[2]), f.y(b[3]));
      }
    }
  }

  private void pins(GraphicsContext g, BoardFrame f, Ink ink) {
    Tooling t = shown.plan().tooling();
    for (int i = 0; i < 2; i++) {
      Tooling.Hole hole = i == 0 ? t.round() : t.slot();
      double r = Math.max(4, hole.diameterMm() / 2 * f.scale());
      double x = f.x(hole.xMm());
      double y = f.y(hole.yMm());
      g.setFill(t.made() ? ink.sheet() : ink.ink());
      g.setStroke(ink.ink());
      g.setLineWidth(1.6);
      g.setLineDashes(t.made() ? new double[] {3, 3} : new double[0]);
      g.fillOval(x - r, y - r, 2 * r, 2 * r);
      g.strokeOval(x - r, y - r, 2 * r, 2 * r);
      g.setLineDashes();
      if (i == 1 && !t.made()) {
        // flattened across the line to the round one
        double a = Math.atan2(f.y(t.round().yMm()) - y, f.x(t.round().xMm()) - x);
        g.setStroke(ink.sheet());
        g.setLineWidth(r * 0.45);
        for (int k = -1; k <= 1; k += 2) {
          double cx = x + k * r * 0.85 * Math.cos(a);
          double cy = y + k * r * 0.85 * Math.sin(a);
          g.strokeLine(
              cx - r * Math.sin(a),
              cy + r * Math.cos(a),
              cx + r * Math.sin(a),
              cy - r * Math.cos(a));
        }
      }
    }
  }

  private void finger(GraphicsContext g, BoardFrame f, Ink ink, int i) {
    Bending b = shown.plan().bending();
    Bending.Finger x = b.fingers().get(i);
    double r = Math.max(6, shown.plan().setup().mm("fingerRadius") * f.scale());
    double px = f.x(x.xMm());
    double py = f.y(x.yMm());
    boolean idle = !b.rests() && x.newtons() <= 0;
    g.setFill(Ink.thin(ink.stone(), 0.9));
    g.setStroke(idle ? ink.ink2() : ink.ink());
    g.setLineWidth(idle ? 1 : 1.8);
    g.setLineDashes(idle ? new double[] {3, 3} : new double[0]);
    g.fillRect(px - r, py - r, 2 * r, 2 * r);
    g.strokeRect(px - r, py - r, 2 * r, 2 * r);
    g.setLineDashes();
    g.strokeLine(px - r, py - r, px + r, py + r);
    g.strokeLine(px - r, py + r, px + r, py - r);
    if (shown.finger() == i) {
      brackets(g, ink, px, py, r + 5, r + 5);
    }
  }

  private void label(
      GraphicsContext g,
      Ink ink,
      double x,
      double y,
      String text,
      List<double[]> taken,
      boolean must) {
    double wide = Type.width(Type.numbers(11), text);
    y = Math.max(y, 11);
    double at = y;
    if (!must
        && taken.stream()
            .anyMatch(
                t -> Math.abs(t[0] - x) < (t[2] + wide) / 2 + 4 && Math.abs(t[1] - at) < 13)) {
      return;
    }
    taken.add(new double[] {x, y, wide});
    g.setFont(Type.numbers(11));
    g.setTextAlign(TextAlignment.CENTER);
    g.setFill(Ink.thin(ink.sheet(), 0.85));
    g.fillRect(x - wide / 2 - 2, y - 10, wide + 4, 13);
    g.setFill(ink.ink());
    Type.write(g, text, x, y);
    g.setTextAlign(TextAlignment.LEFT);
  }

  private void probe(GraphicsContext g, BoardFrame f, Ink ink, Probe p) {
    double x = f.x(p.target().xMm());
    double y = f.y(p.target().yMm());
    boolean hand = shown.probe().filter(q -> q.number() == p.number()).isPresent();
    head(g, ink, x, y, p.target().kind().head(), p.target().side() == Side.FIRST);
    if (hand) {
      brackets(g, ink, x, y, HEAD + 6, HEAD + 6);
    }
  }

  /// A head as it looks end on; one that comes from above is hollow, with a bar over it.
  static void head(GraphicsContext g, Ink ink, double x, double y, String head, boolean above) {
    g.setStroke(ink.ink());
    g.setFill(above ? ink.sheet() : ink.ink());
    g.setLineWidth(1.6);
    switch (head) {
      case "round" -> {
        g.fillOval(x - HEAD, y - HEAD, 2 * HEAD, 2 * HEAD);
        g.strokeOval(x - HEAD, y - HEAD, 2 * HEAD, 2 * HEAD);
      }
      case "crown" -> {
        g.setFill(ink.sheet());
        g.fillOval(x - HEAD, y - HEAD, 2 * HEAD, 2 * HEAD);
        g.strokeOval(x - HEAD, y - HEAD, 2 * HEAD, 2 * HEAD);
        g.setFill(ink.ink());
        for (int i = 0; i < 4; i++) {
          double a = Math.PI / 4 + i * Math.PI / 2;
          g.fillOval(
              x + 0.55 * HEAD * Math.cos(a) - 1.5, y + 0.55 * HEAD * Math.sin(a) - 1.5, 3, 3);
        }
      }
      case "spear" -> {
        double[] xs = {x, x + HEAD, x, x - HEAD};
        double[] ys = {y - HEAD, y, y + HEAD, y};
        g.fillPolygon(xs, ys, 4);
        g.strokePolygon(xs, ys, 4);
      }
      default -> {
        double[] xs = {x - HEAD, x + HEAD, x};
        double[] ys = {y + 0.8 * HEAD, y + 0.8 * HEAD, y - HEAD};
        g.fillPolygon(xs, ys, 3);
        g.strokePolygon(xs, ys, 3);
      }
    }
    if (above) {
      g.strokeLine(x - HEAD - 1, y - HEAD - 3.5, x + HEAD + 1, y - HEAD - 3.5);
    }
  }

  private void letters(GraphicsContext g, BoardFrame f, Ink ink, List<double[]> taken) {
    List<Probe> order = new ArrayList<>(shown.plan().probes());
    shown
        .probe()
        .ifPresent(p -> {
          order.remove(p);
          order.addFirst(p);
        });
    for (Probe p : order) {
      boolean hand = shown.probe().filter(q -> q.number() == p.number()).isPresent();
      label(
          g,
          ink,
          f.x(p.target().xMm()),
          f.y(p.target().yMm()) - HEAD - 8,
          hand || shown.plan().probes().size() < 30 ? p.target().net() : String.valueOf(p.number()),
          taken,
          hand);
    }
  }

  /// The copper, and around the probe how far it may stray: three deviations.
  private void ring(GraphicsContext g, BoardFrame f, Ink ink, Probe p) {
    Landing.Error e =
        Landing.at(
            p.target().xMm(),
            p.target().yMm(),
            shown.plan().tooling().pins(),
            shown.plan().setup().errors(),
            p.of().tiltMm());
    double x = f.x(p.target().xMm());
    double y = f.y(p.target().yMm());
    double r = e.rss() * Math.sqrt(3) * f.scale();
    double pw = p.target().widthMm() / 2 * f.scale();
    double ph = p.target().heightMm() / 2 * f.scale();
    if (r < 2) {
      return;
    }
    g.setStroke(ink.verdigris());
    g.setLineWidth(1.4);
    if (p.target().round()) {
      g.strokeOval(x - pw, y - pw, 2 * pw, 2 * pw);
    } else {
      g.save();
      g.translate(x, y);
      g.rotate(-p.target().rotationDeg());
      g.strokeRect(-pw, -ph, 2 * pw, 2 * ph);
      g.restore();
    }
    g.setStroke(ink.madder());
    g.setLineDashes(4, 3);
    g.strokeOval(x - r, y - r, 2 * r, 2 * r);
    g.setLineDashes();
  }

  private void legend(GraphicsContext g, Ink ink, double w, double h) {
    String[] heads = {"crown", "round", "spear", "sharp"};
    double x = 10;
    double y = h - 8;
    g.setFont(Type.words(11));
    for (String s : heads) {
      if (shown.plan().probes().stream().noneMatch(p -> p.target().kind().head().equals(s))) {
        continue;
      }
      head(g, ink, x, y, s, false);
      g.setFill(ink.ink());
      Type.write(g, s, x + 10, y + 4);
      x += 24 + Type.width(Type.words(11), s);
    }
    if (shown.plan().topProbes() > 0) {
      head(g, ink, x, y, "round", true);
      g.setFill(ink.ink());
      Type.write(g, "above", x + 10, y + 4);
    }
  }
}
