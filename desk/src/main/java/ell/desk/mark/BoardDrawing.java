package ell.desk.mark;

import ell.core.board.Folded;
import ell.core.board.Joint;
import ell.core.board.PackageShape;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.record.Section;
import ell.core.revise.BodgeDrawing;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.SequencedSet;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.shape.ArcType;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;

/// The board in ink: parts that are done filled with stone, the parts in hand in brass corner
/// brackets, parts to come as hairlines. The second side is drawn mirrored, as one sees it. Zoom
/// with the wheel or the keys, click a part to name it.
public final class BoardDrawing extends BoardPicture {
  private Set<String> done = Set.of();

  /// What is in hand on less of the board than this share is hard to find.
  private static final double SMALL = 0.06;

  /// Of more in hand only the ends are named.
  private static final int FEW = 8;

  private final List<double[]> names = new ArrayList<>();
  private SequencedSet<String> inHand = new LinkedHashSet<>();
  private Set<String> faulty = Set.of();
  private List<Tip> tips = List.of();
  private Optional<BodgeDrawing.Marks> bodge = Optional.empty();
  private Consumer<String> onPart = _ -> {};

  /// A tip of the meter on a joint.
  ///
  /// @param letter shown beside it
  public record Tip(Joint joint, String letter) {}

  /// A place where something may be wrong.
  ///
  /// @param xMm as the board has it
  /// @param yMm as the board has it
  /// @param label shown in it, a rank
  /// @param away whether it is on the side that is not drawn
  public record Suspect(double xMm, double yMm, String label, boolean away) {}

  private List<Suspect> suspects = List.of();

  /// A drawing without a board.
  public BoardDrawing() {
    super("board drawing");
    onClick((x, y) -> partAt(x, y).ifPresent(onPart));
  }

  /// Is told the reference of a part that is clicked.
  public void onPart(Consumer<String> listener) {
    onPart = listener;
  }

  /// Shows a board's state.
  ///
  /// @param done references of parts that sit on the board
  /// @param inHand references of the step
  /// @param faulty references with an open finding
  public void show(
      Revision revision, Side side, Set<String> done, Set<String> inHand, Set<String> faulty) {
    if (!this.inHand.equals(inHand)) {
      aim();
    }
    board(revision, side);
    this.done = Set.copyOf(done);
    this.inHand = new LinkedHashSet<>(inHand);
    this.faulty = Set.copyOf(faulty);
    setAccessibleText(
        revision.title()
            + ", "
            + side.key()
            + " side, in hand: "
            + (inHand.isEmpty() ? "nothing" : Folded.folded(List.copyOf(inHand))));
    redraw();
  }

  /// Shows where something may be wrong, the likeliest first.
  public void suspects(List<Suspect> where) {
    suspects = List.copyOf(where);
    redraw();
  }

  /// Shows where a bodge is made: wires, cuts, and its steps by their numbers.
  public void bodge(Optional<BodgeDrawing.Marks> marks) {
    bodge = marks;
    redraw();
  }

  /// Shows where the tips of the meter go.
  public void tips(List<Tip> where) {
    tips = List.copyOf(where);
    redraw();
  }

  /// Zoomed in, the parts in hand are in the middle.
  @Override
  protected Optional<double[]> inHandMm() {
    double[] sum = new double[3];
    for (String r : inHand) {
      revision()
          .part(r)
          .flatMap(Part::place)
          .filter(p -> p.side() == side())
          .ifPresent(p -> {
            sum[0] += p.xMm();
            sum[1] += p.yMm();
            sum[2]++;
          });
    }
    return sum[2] == 0
        ? Optional.empty()
        : Optional.of(new double[] {sum[0] / sum[2], sum[1] / sum[2]});
  }

  private Optional<String> partAt(double px, double py) {
    if (revision() == null) {
      return Optional.empty();
    }
    BoardFrame f = frame(getWidth(), getHeight());
    String found = null;
    double least = Double.POSITIVE_INFINITY;
    for (Part p : revision().parts()) {
      if (p.place().isEmpty() || p.side() != side()) {
        continue;
      }
      double[] b = revision().shape(p).boxAt(p.place().get());
      double x0 = Math.min(f.x(b[0]), f.x(b[2])) - 2;
      double x1 = Math.max(f.x(b[0]), f.x(b[2])) + 2;
      double area = (b[2] - b[0]) * (b[3] - b[1]);
      if (px >= x0 && px <= x1 && py >= f.y(b[3]) - 2 && py <= f.y(b[1]) + 2 && area < least) {
        least = area;
        found = p.reference();
      }
    }
    return Optional.ofNullable(found);
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    if (revision() == null) {
      return;
    }
    Ink ink = ink();
    BoardFrame f = frame(w, h);
    clip(g, w, h);
    edge(g, f, ink);
    pads(g, f, ink);
    for (Part p : revision().parts()) {
      if (p.place().isPresent() && p.side() == side() && !inHand.contains(p.reference())) {
        part(g, f, ink, p);
      }
    }
    sight(g, f, ink);
    names.clear();
    for (Part p : inHand()) {
      part(g, f, ink, p);
    }
    suspects(g, f, ink);
    tips(g, f, ink);
    bodge.ifPresent(b -> bodge(g, f, ink, b));
  }

  private void bodge(GraphicsContext g, BoardFrame f, Ink ink, BodgeDrawing.Marks m) {
    for (double[] w : m.wires()) {
      double x0 = f.x(w[0]);
      double y0 = f.y(w[1]);
      double x1 = f.x(w[2]);
      double y1 = f.y(w[3]);
      double bow = 0.18 * Math.hypot(x1 - x0, y1 - y0);
      g.setStroke(ink.sheet());
      for (int pass = 0; pass < 2; pass++) {
        g.setLineWidth(pass == 0 ? 6 : 2.6);
        g.beginPath();
        g.moveTo(x0, y0);
        g.quadraticCurveTo((x0 + x1) / 2, (y0 + y1) / 2 - bow - 6, x1, y1);
        g.stroke();
        g.setStroke(ink.slate());
      }
      g.setFill(ink.slate());
      g.fillOval(x0 - 3.5, y0 - 3.5, 7, 7);
      g.fillOval(x1 - 3.5, y1 - 3.5, 7, 7);
    }
    g.setStroke(ink.madder());
    g.setLineWidth(2.2);
    for (double[] c : m.cuts()) {
      double x = f.x(c[0]);
      double y = f.y(c[1]);
      g.strokeLine(x - 5, y - 5, x + 5, y + 5);
      g.strokeLine(x - 5, y + 5, x + 5, y - 5);
    }
    g.setFont(Type.bold(11));
    List<double[]> taken = new ArrayList<>();
    for (Section.Drawing.Label l : m.marks()) {
      double wide = Type.width(Type.bold(11), l.text());
      double x = Math.clamp(f.x(l.x()) + 8, 0, Math.max(0, getWidth() - wide - 6));
      double y = Math.max(12, f.y(l.y()) - 7);
      // one that would lie over another goes below it
      for (double[] t : taken) {
        if (Math.abs(y - t[1]) < 14 && x < t[0] + t[2] + 4 && t[0] < x + wide + 4) {
          y = t[1] + 15;
        }
      }
      taken.add(new double[] {x, y, wide});
      g.setFill(Ink.thin(ink.sheet(), 0.9));
      g.fillRect(x - 2, y - 11, wide + 4, 14);
      g.setFill(ink.ink());
      Type.write(g, l.text(), x, y);
    }
  }

  /// The parts in hand on this side, the first and the last before those between them, so that the
  /// ends of a row have their names.
  private List<Part> inHand() {
    List<Part> own =
        inHand.stream()
            .flatMap(r -> revision().part(r).stream())
            .filter(p -> p.place().isPresent() && p.side() == side())
            .collect(Collectors.toCollection(ArrayList::new));
    if (own.size() > 2) {
      own.add(1, own.removeLast());
    }
    return own;
  }

  /// Lines from the edges of the board to what is in hand, where that is small on it.
  private void sight(GraphicsContext g, BoardFrame f, Ink ink) {
    double[] b = {1e9, 1e9, -1e9, -1e9};
    for (Part p : inHand()) {
      double[] own = revision().shape(p).boxAt(p.place().get());
      b[0] = Math.min(b[0], Math.min(f.x(own[0]), f.x(own[2])));
      b[1] = Math.min(b[1], f.y(own[3]));
      b[2] = Math.max(b[2], Math.max(f.x(own[0]), f.x(own[2])));
      b[3] = Math.max(b[3], f.y(own[1]));
    }
    double[] board = revision().boxMm();
    double x0 = Math.min(f.x(board[0]), f.x(board[2]));
    double x1 = Math.max(f.x(board[0]), f.x(board[2]));
    double y0 = f.y(board[3]);
    double y1 = f.y(board[1]);
    boolean small = (b[2] - b[0]) * (b[3] - b[1]) < SMALL * (x1 - x0) * (y1 - y0);
    if (b[0] > b[2] || !small) {
      return;
    }
    double cx = (b[0] + b[2]) / 2;
    double cy = (b[1] + b[3]) / 2;
    g.setStroke(ink.brass());
    g.setLineWidth(1);
    g.setLineDashes(1, 4);
    g.strokeLine(x0, cy, b[0] - 8, cy);
    g.strokeLine(b[2] + 8, cy, x1, cy);
    g.strokeLine(cx, y0, cx, b[1] - 8);
    g.strokeLine(cx, b[3] + 8, cx, y1);
    g.setLineDashes();
    g.setFill(ink.brass());
    g.fillPolygon(new double[] {x0 - 9, x0 - 9, x0 - 2}, new double[] {cy - 5, cy + 5, cy}, 3);
    g.fillPolygon(new double[] {x1 + 9, x1 + 9, x1 + 2}, new double[] {cy - 5, cy + 5, cy}, 3);
    g.fillPolygon(new double[] {cx - 5, cx + 5, cx}, new double[] {y0 - 9, y0 - 9, y0 - 2}, 3);
    g.fillPolygon(new double[] {cx - 5, cx + 5, cx}, new double[] {y1 + 9, y1 + 9, y1 + 2}, 3);
  }

  private void pads(GraphicsContext g, BoardFrame f, Ink ink) {
    for (Joint j : revision().joints()) {
      boolean here = j.hole() || (side() == Side.FIRST) == (j.reach() != Joint.Reach.SECOND);
      if (!here) {
        continue;
      }
      double pw = Math.max(Math.max(j.widthMm(), j.drillMm()), 0.3) * f.scale();
      double ph = (j.heightMm() > 0 ? j.heightMm() : Math.max(j.widthMm(), 0.3)) * f.scale();
      boolean placed = done.contains(j.part());
      boolean bare = PartKind.of(j.part()).bare() && revision().part(j.part()).isEmpty();
      g.setFill(placed || bare ? ink.ink2() : Ink.thin(ink.ink2(), 0.28));
      double x = f.x(j.xMm()) - pw / 2;
      double y = f.y(j.yMm()) - ph / 2;
      if (j.hole() || bare) {
        g.fillOval(x, y, pw, ph);
        if (j.hole() && j.drillMm() > 0) {
          double d = j.drillMm() * f.scale();
          g.setFill(ink.sheet());
          g.fillOval(f.x(j.xMm()) - d / 2, f.y(j.yMm()) - d / 2, d, d);
        }
      } else {
        g.fillRect(x, y, pw, ph);
      }
      boolean tipped = tips.stream().anyMatch(t -> t.joint().part().equals(j.part()));
      if (bare && !tipped && f.scale() > 5) {
        g.setFill(ink.ink2());
        g.setFont(Type.words(11));
        g.setTextAlign(TextAlignment.LEFT);
        Type.write(g, j.part(), x + pw + 2, y + ph - 1);
      }
    }
  }

  private void part(GraphicsContext g, BoardFrame f, Ink ink, Part p) {
    PackageShape shape = revision().shape(p);
    Part.Spot spot = p.place().orElseThrow();
    double cx = f.x(spot.xMm());
    double cy = f.y(spot.yMm());
    double lw = shape.lengthMm() * f.scale();
    double lh = shape.widthMm() * f.scale();
    boolean hand = inHand.contains(p.reference());
    boolean placed = done.contains(p.reference());
    g.save();
    g.translate(cx, cy);
    g.rotate(f.mirrored() ? spot.rotationDeg() : -spot.rotationDeg());
    boolean round = shape.round();
    if (placed) {
      g.setFill(ink.stone());
      if (round) {
        g.fillOval(-lw / 2, -lh / 2, lw, lh);
      } else {
        g.fillRect(-lw / 2, -lh / 2, lw, lh);
      }
    }
    g.setLineWidth(placed || hand ? 1.4 : 0.8);
    g.setStroke(placed ? ink.ink() : hand ? ink.brass() : p.fitted() ? ink.ink2() : ink.hair());
    if (!p.fitted()) {
      g.setLineDashes(2, 3);
    }
    if (round) {
      g.strokeOval(-lw / 2, -lh / 2, lw, lh);
    } else {
      g.strokeRect(-lw / 2, -lh / 2, lw, lh);
    }
    g.setLineDashes();
    mark(g, ink, shape, lw, lh, toMarked(f, p, shape));
    g.restore();
    double[] b = shape.boxAt(spot);
    double bw = (b[2] - b[0]) * f.scale();
    double bh = (b[3] - b[1]) * f.scale();
    if (hand) {
      brackets(g, ink, cx, cy, bw / 2 + 5, bh / 2 + 5);
    }
    if (faulty.contains(p.reference())) {
      Marks.paint(
          g, ink, ell.core.rack.Standing.Mark.OUT, cx, cy, Math.min(7, Math.max(4, bh / 3)));
    }
    name(g, ink, p.reference(), cx, cy, bw, bh, hand, placed);
  }

  /// Where the joint that a part's mark points to lies, seen from its middle, in the turned frame
  /// of its body: pin 1, the cathode, or the minus lead. By custom when the netlist does not tell.
  private double[] toMarked(BoardFrame f, Part p, PackageShape shape) {
    List<String> pins =
        switch (shape.mark()) {
          case BAR -> List.of("K", "C", "CATHODE", "1");
          case STRIPE -> List.of("-", "N", "NEG", "2");
          default -> List.of("1", "A1");
        };
    Part.Spot spot = p.place().orElseThrow();
    for (String pin : pins) {
      for (Joint j : revision().jointsOf(p.reference())) {
        if (j.pin().equalsIgnoreCase(pin)) {
          double dx = f.x(j.xMm()) - f.x(spot.xMm());
          double dy = f.y(j.yMm()) - f.y(spot.yMm());
          double a = Math.toRadians(f.mirrored() ? -spot.rotationDeg() : spot.rotationDeg());
          return new double[] {
            dx * Math.cos(a) - dy * Math.sin(a), dx * Math.sin(a) + dy * Math.cos(a)
          };
        }
      }
    }
    return new double[] {f.mirrored() ? 1 : -1, -1};
  }

  /// The mark of a body, on the side of the joint that it means: a dot at the corner, a bar or a
  /// hatched stripe along the edge, a notch in the end.
  private static void mark(
      GraphicsContext g, Ink ink, PackageShape shape, double lw, double lh, double[] to) {
    double r = Math.clamp(Math.min(lw, lh) / 9, 1.2, 4);
    double sx = to[0] < 0 ? -1 : 1;
    double sy = to[1] < 0 ? -1 : 1;
    boolean alongX = Math.abs(to[0]) * lh >= Math.abs(to[1]) * lw;
    g.setFill(ink.ink());
    switch (shape.mark()) {
      case DOT, FLAT ->
          g.fillOval(sx * (lw / 2 - 2 * r) - r, sy * (lh / 2 - 2 * r) - r, 2 * r, 2 * r);
      case BAR -> {
        if (alongX) {
          g.fillRect(sx * (lw / 2 - 2 * r) - r / 2, -lh / 2, r, lh);
        } else {
          g.fillRect(-lw / 2, sy * (lh / 2 - 2 * r) - r / 2, lw, r);
        }
      }
      case STRIPE -> {
        // a segment of the can on the minus side
        double start = Math.toDegrees(Math.atan2(-to[1], to[0])) - 38;
        g.fillArc(-lw / 2, -lh / 2, lw, lh, start, 76, ArcType.CHORD);
      }
      case NOTCH -> {
        g.setStroke(ink.ink());
        if (lw > lh) {
          g.strokeArc(sx * lw / 2 - 2 * r, -2 * r, 4 * r, 4 * r, 0, 360, ArcType.OPEN);
        } else {
          g.strokeArc(-2 * r, sy * lh / 2 - 2 * r, 4 * r, 4 * r, 0, 360, ArcType.OPEN);
        }
      }
      case NONE -> {}
    }
  }

  private void name(
      GraphicsContext g,
      Ink ink,
      String name,
      double cx,
      double cy,
      double bw,
      double bh,
      boolean hand,
      boolean placed) {
    double size = Math.clamp(Math.min(bh * 0.62, bw / (name.length() * 0.62)), 0, 13);
    boolean beside = size < 8 && hand;
    if (size < 8 && !hand) {
      return;
    }
    Font font = hand ? Type.bold(beside ? 11 : Math.max(size, 9)) : Type.words(Math.max(size, 8));
    g.setFont(font);
    g.setFill(hand || placed ? ink.ink() : ink.ink2());
    g.setTextAlign(TextAlignment.CENTER);
    final double y = beside ? cy - bh / 2 - 9 : cy + font.getSize() * 0.36;
    if (beside) {
      double half = Type.width(font, name) / 2 + 2;
      boolean between = inHand.size() > FEW && names.size() >= 2;
      if (between || names.stream().anyMatch(n -> n[1] == y && Math.abs(n[0] - cx) < n[2] + half)) {
        g.setTextAlign(TextAlignment.LEFT);
        return; // the ends have theirs
      }
      names.add(new double[] {cx, y, half});
    }
    if (!beside) {
      // over pads and holes a name needs a quiet ground
      double tw = Type.width(font, name) + 2;
      g.setFill(Ink.thin(placed ? ink.stone() : ink.sheet(), 0.72));
      g.fillRect(cx - tw / 2, y - font.getSize() * 0.82, tw, font.getSize());
      g.setFill(hand || placed ? ink.ink() : ink.ink2());
    }
    Type.write(g, name, cx, y);
    g.setTextAlign(TextAlignment.LEFT);
  }

  private void suspects(GraphicsContext g, BoardFrame f, Ink ink) {
    Font font = Type.numbersBold(12);
    for (Suspect s : suspects.reversed()) {
      double x = f.x(s.xMm());
      double y = f.y(s.yMm());
      double[] xs = {x, x + 11, x, x - 11};
      double[] ys = {y - 11, y, y + 11, y};
      g.setFill(ink.sheet());
      g.fillPolygon(xs, ys, 4);
      g.setStroke(ink.madder());
      g.setLineWidth(2);
      if (s.away()) {
        g.setLineDashes(3, 3);
      }
      g.strokePolygon(xs, ys, 4);
      g.setLineDashes();
      g.setFill(ink.madder());
      g.setFont(font);
      Type.write(g, s.label(), x - Type.width(font, s.label()) / 2, y + 4);
    }
  }

  private void tips(GraphicsContext g, BoardFrame f, Ink ink) {
    Set<String> here = new HashSet<>();
    double[] last = null;
    for (Tip t : tips) {
      Joint j = t.joint();
      boolean otherSide =
          !j.hole()
              && (side() == Side.FIRST
                  ? j.reach() == Joint.Reach.SECOND
                  : j.reach() == Joint.Reach.FIRST);
      double x = f.x(j.xMm());
      double y = f.y(j.yMm());
      if (last != null) {
        g.setStroke(ink.slate());
        g.setLineWidth(1.4);
        g.setLineDashes(6, 4);
        g.strokeLine(last[0], last[1], x, y);
        g.setLineDashes();
      }
      last = new double[] {x, y};
      g.setStroke(ink.slate());
      g.setLineWidth(2.4);
      if (otherSide) {
        g.setLineDashes(3, 3);
      }
      g.strokeOval(x - 9, y - 9, 18, 18);
      g.setLineDashes();
      String text = t.letter() + " " + j.place() + (otherSide ? " (other side)" : "");
      Font font = Type.bold(13);
      double tw = Type.width(font, text) + 10;
      double lx = Math.clamp(x + 12, 2, Math.max(2, getWidth() - tw - 2));
      double ly = y - 12 - (here.isEmpty() ? 0 : 0);
      if (ly < 16) {
        ly = y + 26;
      }
      here.add(t.letter());
      g.setFill(ink.sheet());
      g.fillRect(lx, ly - 13, tw, 18);
      g.setStroke(ink.slate());
      g.setLineWidth(1);
      g.strokeRect(lx, ly - 13, tw, 18);
      g.setFill(ink.slate());
      g.setFont(font);
      Type.write(g, text, lx + 5, ly);
    }
  }
}
