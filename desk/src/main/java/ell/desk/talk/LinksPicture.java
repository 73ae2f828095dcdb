package ell.desk.talk;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.Side;
import ell.core.talk.Link;
import ell.core.talk.LinkPlan;
import ell.desk.mark.BoardFrame;
import ell.desk.mark.BoardPicture;
import ell.desk.mark.Ink;
import ell.desk.mark.Type;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/// The board in ink with its links as small breakers: as they are, and in slate, dashed, as the
/// operation in hand must have them.
final class LinksPicture extends BoardPicture {
  private static final double LEVER = 26;

  /// Breakers nearer to each other than this are moved apart.
  private static final double APART = 42;

  private static final double WIDE = 110;

  private TalkModel.Shown shown;

  LinksPicture() {
    super("links on the board");
  }

  void show(TalkModel.Shown s) {
    shown = s;
    Side side =
        s.work().plan().talk().links().stream()
            .map(l -> s.work().plan().revision().part(l.part()).map(Part::side))
            .flatMap(Optional::stream)
            .findFirst()
            .orElse(Side.FIRST);
    board(s.work().plan().revision(), side);
    Map<String, Boolean> is = s.facts().stand(s.work().plan().talk()).links();
    StringBuilder words = new StringBuilder("links on the board");
    s.work()
        .plan()
        .talk()
        .links()
        .forEach(l ->
            words.append(", ").append(l.part()).append(' ').append(Link.word(is.get(l.part()))));
    setAccessibleText(words.toString());
    redraw();
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    if (shown == null || revision() == null) {
      return;
    }
    Ink ink = ink();
    clip(g, w, h);
    BoardFrame f = frame(w, h);
    edge(g, f, ink);
    g.setLineWidth(0.8);
    for (Part p : revision().parts()) {
      if (p.place().isEmpty() || p.side() != side()) {
        continue;
      }
      double[] b = revision().shape(p).boxAt(p.place().get());
      g.setStroke(p.fitted() ? ink.hair() : Ink.thin(ink.hair(), 0.5));
      g.strokeRect(
          Math.min(f.x(b[0]), f.x(b[2])),
          f.y(b[3]),
          (b[2] - b[0]) * f.scale(),
          (b[3] - b[1]) * f.scale());
    }
    plugs(g, f, ink);
    Map<String, Boolean> is = shown.facts().stand(shown.work().plan().talk()).links();
    Map<String, Boolean> must = shown.operation().map(s -> s.operation().links()).orElse(Map.of());
    List<Link> all = shown.work().plan().talk().links();
    double[][] at = places(f, all, h);
    for (int i = 0; i < all.size(); i++) {
      Link l = all.get(i);
      breaker(
          g,
          ink,
          l,
          at[i],
          is.getOrDefault(l.part(), false),
          Optional.ofNullable(must.get(l.part())));
    }
  }

  /// Where each link is, and where its breaker is drawn: those that would lie over each other are
  /// moved apart.
  private double[][] places(BoardFrame f, List<Link> all, double h) {
    double[][] at = new double[all.size()][4];
    for (int i = 0; i < at.length; i++) {
      List<Joint> joints = revision().jointsOf(all.get(i).part());
      for (Joint j : joints) {
        at[i][0] += f.x(j.xMm()) / joints.size();
        at[i][1] += f.y(j.yMm()) / joints.size();
      }
      at[i][2] = at[i][0];
      at[i][3] = at[i][1];
    }
    for (int round = 0; round < 60; round++) {
      for (int i = 0; i < at.length; i++) {
        for (int j = i + 1; j < at.length; j++) {
          double dy = at[j][3] - at[i][3];
          double push = (APART - Math.abs(dy)) / 2;
          if (push > 0.5 && Math.abs(at[j][2] - at[i][2]) < WIDE) {
            double sign = dy >= 0 ? 1 : -1;
            at[i][3] = Math.clamp(at[i][3] - sign * push, 20, h - 20);
            at[j][3] = Math.clamp(at[j][3] + sign * push, 20, h - 20);
          }
        }
      }
    }
    return at;
  }

  /// What must be in or out, with its name.
  private void plugs(GraphicsContext g, BoardFrame f, Ink ink) {
    Optional<LinkPlan.Step> s = shown.operation();
    if (s.isEmpty()) {
      return;
    }
    g.setFont(Type.words(13));
    s.get()
        .operation()
        .plugs()
        .forEach((part, in) -> {
          Optional<Part> p = revision().part(part);
          if (p.flatMap(Part::place).isEmpty()) {
            return;
          }
          boolean wrong = s.get().plug().contains(part) || s.get().unplug().contains(part);
          double[] b = revision().shape(p.get()).boxAt(p.get().place().get());
          g.setStroke(wrong ? ink.slate() : ink.ink());
          g.setLineWidth(1.6);
          g.setLineDashes(wrong ? new double[] {5, 4} : new double[0]);
          g.strokeRect(
              Math.min(f.x(b[0]), f.x(b[2])),
              f.y(b[3]),
              (b[2] - b[0]) * f.scale(),
              (b[3] - b[1]) * f.scale());
          g.setLineDashes();
          g.setFill(wrong ? ink.slate() : ink.ink());
          g.setTextAlign(TextAlignment.CENTER);
          Type.write(g, part + (in ? " in" : " out"), f.x((b[0] + b[2]) / 2), f.y(b[1]) - 6);
          g.setTextAlign(TextAlignment.LEFT);
        });
  }

  private void breaker(
      GraphicsContext g, Ink ink, Link l, double[] at, boolean closed, Optional<Boolean> must) {
    double x = at[2];
    double y = at[3];
    double half = LEVER / 2;
    g.setFill(Ink.thin(ink.paper(), 0.9));
    g.fillOval(x - half - 8, y - half - 8, LEVER + 16, LEVER + 16);
    if (Math.abs(at[1] - y) > LEVER) {
      // where the link itself lies
      g.setStroke(ink.ink2());
      g.setLineWidth(0.8);
      g.strokeLine(at[0], at[1], x - half, y);
      g.setFill(ink.ink2());
      g.fillOval(at[0] - 2.5, at[1] - 2.5, 5, 5);
    }
    g.setFill(ink.ink());
    g.fillOval(x - half - 3, y - 3, 6, 6);
    g.fillOval(x + half - 3, y - 3, 6, 6);
    lever(g, ink.ink(), x, y, closed, 2.6, false);
    boolean change = must.isPresent() && must.get() != closed;
    if (change) {
      lever(g, ink.slate(), x, y, must.get(), 2, true);
    }
    String state = Link.word(closed) + (change ? ": " + (must.get() ? "close it" : "open it") : "");
    g.setFill(Ink.thin(ink.paper(), 0.9));
    g.fillRect(
        x + half + 6,
        y - 15,
        Math.max(Type.width(Type.bold(13), l.part()), Type.width(Type.words(11), state)) + 8,
        31);
    g.setFont(Type.bold(13));
    g.setFill(ink.ink());
    Type.write(g, l.part(), x + half + 10, y - 2);
    g.setFont(Type.words(11));
    g.setFill(change ? ink.slate() : ink.ink2());
    Type.write(g, state, x + half + 10, y + 12);
  }

  /// A lever from the left contact: down on the right one, or up.
  private static void lever(
      GraphicsContext g,
      javafx.scene.paint.Color c,
      double x,
      double y,
      boolean closed,
      double wide,
      boolean dashed) {
    g.setStroke(c);
    g.setLineWidth(wide);
    g.setLineDashes(dashed ? new double[] {4, 3} : new double[0]);
    double half = LEVER / 2;
    if (closed) {
      g.strokeLine(x - half, y, x + half, y);
    } else {
      g.strokeLine(x - half, y, x + half * 0.55, y - LEVER * 0.6);
    }
    g.setLineDashes();
  }
}
