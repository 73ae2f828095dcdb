package ell.desk.trace;

import ell.core.board.Joint;
import ell.core.board.PackageShape;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Side;
import ell.core.entry.BoardState;
import ell.core.trace.Probe;
import ell.core.trace.Suspect;
import ell.core.trace.Traced;
import ell.desk.mark.BoardFrame;
import ell.desk.mark.BoardPicture;
import ell.desk.mark.Ink;
import ell.desk.mark.Type;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/// The board, shaded by where the fault may be: the likelier, the denser the strokes over a part.
/// The tips of the measurement in hand are lettered; joints that one tip reads one after the other
/// are numbered.
final class WherePicture extends BoardPicture {
  private static final double LEAST = 0.004;
  private static final int NAMED = 6;

  private Map<String, Double> mass = Map.of();
  private List<String> ranked = List.of();

  /// Ways in which a tip may be held, pixels from its joint; further ones where it is crowded.
  private static final double[][] TIP_WAYS = {
    {11, -15}, {-11, -15}, {11, 15}, {-11, 15}, {26, -22}, {-26, -22}, {26, 22}, {-26, 22}
  };

  private List<String> tips = List.of();

  /// Whether one tip goes to all of them, in their order.
  private boolean oneAfterTheOther;

  private boolean empty = true;

  WherePicture() {
    super("where the fault may be");
  }

  void show(TraceModel.Shown s) {
    empty = s == null;
    if (s == null) {
      redraw();
      return;
    }
    Map<String, Double> by = new HashMap<>();
    for (Traced.Ranked r : s.traced().suspects()) {
      for (Suspect x : r.suspects()) {
        List<String> parts = x.places().stream().map(BoardState::part).distinct().toList();
        parts.forEach(p -> by.merge(p, r.chance() / parts.size(), Double::sum));
      }
    }
    mass = by;
    ranked =
        by.entrySet().stream()
            .filter(e -> e.getValue() > LEAST)
            .sorted(Map.Entry.<String, Double>comparingByValue(Comparator.reverseOrder()))
            .limit(NAMED)
            .map(Map.Entry::getKey)
            .toList();
    List<String> held = new ArrayList<>();
    s.choice()
        .map(c -> c.probe())
        .ifPresent(p -> {
          held.addAll(p.places());
          if (p.kind() == Probe.Kind.OHMS) {
            held.add(p.b());
          }
          oneAfterTheOther = p.kind() == Probe.Kind.ALONG;
        });
    tips = held;
    Side side =
        ranked.stream()
            .flatMap(p -> s.work().plan().revision().part(p).stream())
            .findFirst()
            .map(Part::side)
            .orElse(Side.FIRST);
    board(s.work().plan().revision(), side);
    setAccessibleText(
        "where the fault may be, "
            + side.key()
            + " side: "
            + String.join(
                ", ",
                ranked.stream()
                    .map(p -> String.format(Locale.ROOT, "%s %.0f %%", p, 100 * mass.get(p)))
                    .toList()));
    redraw();
  }

  @Override
  protected Optional<double[]> inHandMm() {
    return ranked.stream()
        .flatMap(p -> revision().part(p).stream())
        .flatMap(p -> p.place().stream())
        .findFirst()
        .map(x -> new double[] {x.xMm(), x.yMm()});
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    if (empty || revision() == null) {
      return;
    }
    Ink ink = ink();
    BoardFrame f = frame(w, h);
    clip(g, w, h);
    edge(g, f, ink);
    for (Joint j : revision().joints()) {
      boolean here = j.hole() || (side() == Side.FIRST) == (j.reach() != Joint.Reach.SECOND);
      if (here) {
        double pw = Math.max(Math.max(j.widthMm(), j.drillMm()), 0.3) * f.scale();
        double ph = (j.heightMm() > 0 ? j.heightMm() : Math.max(j.widthMm(), 0.3)) * f.scale();
        g.setFill(Ink.thin(ink.ink2(), 0.35));
        g.fillRect(f.x(j.xMm()) - pw / 2, f.y(j.yMm()) - ph / 2, pw, ph);
      }
    }
    double most = mass.values().stream().mapToDouble(x -> x).max().orElse(1);
    for (Part p : revision().parts()) {
      if (p.fitted() && p.place().isPresent() && p.side() == side()) {
        part(g, f, ink, p, mass.getOrDefault(p.reference(), 0.0), most);
      }
    }
    g.setFont(Type.numbersBold(13));
    List<double[]> taken = new ArrayList<>();
    for (String name : ranked) {
      revision().part(name).ifPresent(p -> label(g, f, ink, p, taken));
    }
    for (int i = 0; i < tips.size(); i++) {
      String name = oneAfterTheOther ? String.valueOf(i + 1) : i == 0 ? "A" : "B";
      tip(g, f, ink, tips.get(i), name, taken);
    }
  }

  private void part(GraphicsContext g, BoardFrame f, Ink ink, Part p, double chance, double most) {
    PackageShape shape = revision().shape(p);
    double[] b = shape.boxAt(p.place().orElseThrow());
    double x = Math.min(f.x(b[0]), f.x(b[2]));
    double y = f.y(b[3]);
    double bw = (b[2] - b[0]) * f.scale();
    double bh = (b[3] - b[1]) * f.scale();
    if (chance > LEAST) {
      double share = Math.sqrt(chance / most);
      g.setFill(Ink.thin(ink.slate(), 0.12 + 0.55 * share));
      g.fillRect(x, y, bw, bh);
      // strokes as well: the denser, the likelier
      g.save();
      g.beginPath();
      g.rect(x, y, bw, bh);
      g.clip();
      g.setStroke(ink.ink());
      g.setLineWidth(1);
      double step = 3 + 9 * (1 - share);
      for (double d = -bh; d < bw; d += step) {
        g.strokeLine(x + d, y + bh, x + d + bh, y);
      }
      g.restore();
    }
    g.setStroke(chance > LEAST ? ink.ink() : ink.ink2());
    g.setLineWidth(chance > LEAST ? 1.6 : 0.8);
    g.strokeRect(x, y, bw, bh);
  }

  private void label(GraphicsContext g, BoardFrame f, Ink ink, Part p, List<double[]> taken) {
    if (p.place().isEmpty() || p.side() != side()) {
      return;
    }
    double[] b = revision().shape(p).boxAt(p.place().get());
    double cx = (f.x(b[0]) + f.x(b[2])) / 2;
    double y = f.y(b[3]) - 4;
    String text = p.reference() + " " + Traced.percent(mass.get(p.reference()));
    double wide = Type.width(Type.numbersBold(13), text);
    double at = y;
    if (taken.stream()
        .anyMatch(t -> Math.abs(t[0] - cx) < (t[2] + wide) / 2 + 6 && Math.abs(t[1] - at) < 16)) {
      return; // the list beside has it
    }
    taken.add(new double[] {cx, y, wide});
    g.setFill(Ink.thin(ink.sheet(), 0.88));
    g.fillRect(cx - wide / 2 - 3, y - 12, wide + 6, 15);
    g.setFill(ink.ink());
    g.setTextAlign(TextAlignment.CENTER);
    Type.write(g, text, cx, y);
    g.setTextAlign(TextAlignment.LEFT);
  }

  /// A tip at a joint, or at the joint of a net that is easiest to reach; its letter where nothing
  /// is written yet, if there is such a place around it.
  private void tip(
      GraphicsContext g, BoardFrame f, Ink ink, String place, String letter, List<double[]> taken) {
    joint(place)
        .ifPresent(j -> {
          double x = f.x(j.xMm());
          double y = f.y(j.yMm());
          double wide = Type.width(Type.bold(13), letter);
          double[] at = TIP_WAYS[0];
          for (double[] way : TIP_WAYS) {
            if (free(x, y, way, wide, taken)) {
              at = way;
              break;
            }
          }
          double middle = middle(x, at, wide);
          double foot = foot(y, at);
          taken.add(new double[] {middle, foot, wide});
          g.setStroke(ink.brass());
          g.setLineWidth(2.4);
          g.strokeLine(x, y, x + at[0], y + at[1]);
          g.setFill(ink.brass());
          g.fillOval(x - 3, y - 3, 6, 6);
          g.setFont(Type.bold(13));
          g.setFill(Ink.thin(ink.sheet(), 0.88));
          g.fillRect(middle - wide / 2 - 2, foot - 12, wide + 4, 15);
          g.setFill(ink.ink());
          Type.write(g, letter, middle - wide / 2, foot);
        });
  }

  private Optional<Joint> joint(String place) {
    return revision()
        .joint(place)
        .or(() ->
            revision().net(place).stream()
                .min(Comparator.comparing((Joint j) -> !PartKind.of(j.part()).bare())))
        .or(() -> revision().jointsOf(place).stream().findFirst());
  }

  private boolean free(double x, double y, double[] way, double wide, List<double[]> taken) {
    double middle = middle(x, way, wide);
    double foot = foot(y, way);
    return foot > 14
        && foot < getHeight() - 4
        && middle > wide
        && middle < getWidth() - wide
        && taken.stream()
            .noneMatch(
                t -> Math.abs(t[0] - middle) < (t[2] + wide) / 2 + 4 && Math.abs(t[1] - foot) < 16);
  }

  private static double middle(double x, double[] way, double wide) {
    return x + way[0] + Math.signum(way[0]) * (wide / 2 + 2);
  }

  private static double foot(double y, double[] way) {
    return y + way[1] + (way[1] > 0 ? 12 : 0);
  }
}
