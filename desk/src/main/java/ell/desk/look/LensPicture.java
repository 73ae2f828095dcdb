package ell.desk.look;

import ell.core.board.Joint;
import ell.core.board.PackageShape;
import ell.core.board.Part;
import ell.core.look.LookFacts;
import ell.core.look.Walk;
import ell.core.order.OrderFacts;
import ell.desk.mark.BoardFrame;
import ell.desk.mark.BoardPicture;
import ell.desk.mark.Ink;
import ell.desk.mark.Marks;
import ell.desk.mark.Type;
import java.util.Optional;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/// The joint under the lens and its neighbours: pads with the names of their pins, bodies in
/// hairlines, what was seen as a mark.
final class LensPicture extends BoardPicture {
  private LookModel.Shown shown;
  private String at = "";

  LensPicture() {
    super("joint under the lens");
  }

  void show(LookModel.Shown s) {
    shown = s;
    s.stop()
        .ifPresent(x -> {
          board(s.work().plan().revision(), x.side());
          aim();
        });
    setAccessibleText(
        s.stop()
            .map(x -> "under the lens " + x.joint().place() + ", " + x.side().key() + " side")
            .orElse("no joint in hand"));
    redraw();
  }

  @Override
  protected Optional<double[]> inHandMm() {
    return shown.stop().map(s -> new double[] {s.joint().xMm(), s.joint().yMm()});
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    Ink ink = ink();
    if (shown == null || shown.stop().isEmpty()) {
      g.setFont(Type.words(13));
      g.setFill(ink.ink2());
      Type.write(
          g,
          shown == null || shown.loading() ? "planning the walk" : "nothing sits on this board yet",
          20,
          h / 2);
      return;
    }
    Walk.Stop s = shown.stop().get();
    if (!at.equals(s.part().reference())) {
      at = s.part().reference();
      across(reach(s), w, h);
    }
    BoardFrame f = frame(w, h);
    clip(g, w, h);
    edge(g, f, ink);
    for (Part p : revision().parts()) {
      body(g, f, ink, p, w, h);
    }
    for (Joint j : revision().joints()) {
      pad(g, f, ink, j, w, h);
    }
    for (Part p : revision().parts()) {
      name(g, f, ink, p, w, h);
    }
    Joint j = s.joint();
    double hw = Math.max(Math.max(j.widthMm(), j.drillMm()), 0.3) * f.scale() / 2 + 7;
    double hh = (j.heightMm() > 0 ? j.heightMm() : Math.max(j.widthMm(), 0.3)) * f.scale() / 2 + 7;
    brackets(g, ink, f.x(j.xMm()), f.y(j.yMm()), hw, hh);
  }

  /// Wide enough for the joint and a few neighbours.
  private double reach(Walk.Stop s) {
    double pad = Math.max(Math.max(s.joint().widthMm(), s.joint().heightMm()), 0.5);
    double least = Double.POSITIVE_INFINITY;
    for (Joint o : revision().jointsOf(s.joint().part())) {
      double d = o.distanceMm(s.joint());
      least = d > 0.01 ? Math.min(least, d) : least;
    }
    return Math.clamp(Math.max(pad * 4, Double.isInfinite(least) ? 6 : least * 7), 4, 24);
  }

  private static boolean off(double x, double y, double r, double w, double h) {
    return x < -r || y < -r || x > w + r || y > h + r;
  }

  private void body(GraphicsContext g, BoardFrame f, Ink ink, Part p, double w, double h) {
    if (p.place().isEmpty()
        || p.side() != side()
        || !OrderFacts.of(shown.work().state()).placed().contains(p.reference())) {
      return;
    }
    PackageShape shape = revision().shape(p);
    double lw = shape.lengthMm() * f.scale();
    double lh = shape.widthMm() * f.scale();
    double cx = f.x(p.place().get().xMm());
    double cy = f.y(p.place().get().yMm());
    if (off(cx, cy, lw + lh, w, h)) {
      return;
    }
    g.save();
    g.translate(cx, cy);
    g.rotate(f.mirrored() ? p.place().get().rotationDeg() : -p.place().get().rotationDeg());
    g.setFill(Ink.thin(ink.stone(), 0.8));
    g.setStroke(ink.ink2());
    g.setLineWidth(1);
    if (shape.round()) {
      g.fillOval(-lw / 2, -lh / 2, lw, lh);
      g.strokeOval(-lw / 2, -lh / 2, lw, lh);
    } else {
      g.fillRect(-lw / 2, -lh / 2, lw, lh);
      g.strokeRect(-lw / 2, -lh / 2, lw, lh);
    }
    g.restore();
  }

  private void name(GraphicsContext g, BoardFrame f, Ink ink, Part p, double w, double h) {
    if (p.place().isEmpty() || p.side() != side()) {
      return;
    }
    double cx = f.x(p.place().get().xMm());
    double cy = f.y(p.place().get().yMm());
    if (cx > 10 && cy > 10 && cx < w - 10 && cy < h - 10) {
      double tw = Type.width(Type.bold(13), p.reference()) + 6;
      g.setFill(Ink.thin(ink.sheet(), 0.85));
      g.fillRect(cx - tw / 2, cy - 8, tw, 16);
      g.setFont(Type.bold(13));
      g.setFill(ink.ink());
      g.setTextAlign(TextAlignment.CENTER);
      Type.write(g, p.reference(), cx, cy + 4);
      g.setTextAlign(TextAlignment.LEFT);
    }
  }

  private void pad(GraphicsContext g, BoardFrame f, Ink ink, Joint j, double w, double h) {
    boolean here =
        j.hole() || (side() == ell.core.board.Side.FIRST) == (j.reach() != Joint.Reach.SECOND);
    double pw = Math.max(Math.max(j.widthMm(), j.drillMm()), 0.3) * f.scale();
    double ph = (j.heightMm() > 0 ? j.heightMm() : Math.max(j.widthMm(), 0.3)) * f.scale();
    double x = f.x(j.xMm());
    double y = f.y(j.yMm());
    if (!here || off(x, y, pw + ph, w, h)) {
      return;
    }
    boolean own = shown.stop().orElseThrow().joint().part().equals(j.part());
    g.setFill(Ink.thin(ink.brass(), own ? 0.42 : 0.2));
    g.setStroke(own ? ink.ink() : ink.ink2());
    g.setLineWidth(own ? 1.2 : 0.7);
    if (j.hole()) {
      g.fillOval(x - pw / 2, y - ph / 2, pw, ph);
      g.strokeOval(x - pw / 2, y - ph / 2, pw, ph);
      double d = j.drillMm() * f.scale();
      g.setFill(ink.stone());
      g.fillOval(x - d / 2, y - d / 2, d, d);
    } else {
      g.fillRect(x - pw / 2, y - ph / 2, pw, ph);
      g.strokeRect(x - pw / 2, y - ph / 2, pw, ph);
    }
    boolean bad =
        shown.work().state().findings().stream()
            .anyMatch(i -> i.place().equals(j.place()) || i.place().equals(j.part()));
    double r = Math.clamp(Math.min(pw, ph) * 0.2, 3, 7);
    double my = ph > pw ? y - ph * 0.28 : y;
    double mx = ph > pw ? x : x - pw * 0.28;
    if (bad) {
      Marks.paint(g, ink, ell.core.rack.Standing.Mark.OUT, mx, my, r);
    } else if (LookFacts.of(shown.work().state()).sawGood(j.place())) {
      Marks.paint(g, ink, ell.core.rack.Standing.Mark.WITHIN, mx, my, r * 0.7);
    }
    if (own && Math.min(pw, ph) > 9) {
      g.setFont(Type.numbersBold(Math.clamp(Math.min(pw, ph) * 0.5, 9, 15)));
      g.setFill(ink.ink());
      g.setTextAlign(TextAlignment.CENTER);
      Type.write(g, j.pin(), ph > pw ? x : x + pw * 0.18, (ph > pw ? y + ph * 0.2 : y) + 4);
      g.setTextAlign(TextAlignment.LEFT);
    }
  }
}
