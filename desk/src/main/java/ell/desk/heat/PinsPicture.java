package ell.desk.heat;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.heat.JointDemand;
import ell.desk.mark.BoardFrame;
import ell.desk.mark.BoardPicture;
import ell.desk.mark.Ink;
import ell.desk.mark.Type;
import java.util.List;
import java.util.Optional;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import javafx.scene.text.TextAlignment;

/// The pins of a part as an iron meets them: numbered in the order of soldering, each with the mark
/// of the heat that it wants: a ring, a dot, a square, a triangle.
final class PinsPicture extends BoardPicture {
  private HeatModel.Shown shown;
  private String inHand = "";

  PinsPicture() {
    super("pins and the heat that they want");
  }

  void show(HeatModel.Shown s) {
    shown = s;
    s.part()
        .ifPresent(p -> {
          // leads are soldered from the other side
          board(
              s.work().plan().revision(),
              s.work().plan().revision().throughHole(p) ? p.side().other() : p.side());
          if (!inHand.equals(p.reference()) && getWidth() > 0) {
            inHand = p.reference();
            across(reach(s.pins()), getWidth(), getHeight());
          }
        });
    setAccessibleText(
        s.part()
            .map(p ->
                p.reference()
                    + ": "
                    + String.join(
                        ", ",
                        s.pins().stream()
                            .map(x -> x.joint().pin() + " " + x.demand().need().key())
                            .toList()))
            .orElse("no part for the iron"));
    redraw();
  }

  private static double reach(List<JointDemand.Pin> pins) {
    double x0 = pins.stream().mapToDouble(p -> p.joint().xMm()).min().orElse(0);
    double x1 = pins.stream().mapToDouble(p -> p.joint().xMm()).max().orElse(10);
    double y0 = pins.stream().mapToDouble(p -> p.joint().yMm()).min().orElse(0);
    double y1 = pins.stream().mapToDouble(p -> p.joint().yMm()).max().orElse(10);
    return Math.max(Math.max(x1 - x0, y1 - y0) * 1.6, 8);
  }

  @Override
  protected Optional<double[]> inHandMm() {
    double x = shown.pins().stream().mapToDouble(p -> p.joint().xMm()).average().orElse(0);
    double y = shown.pins().stream().mapToDouble(p -> p.joint().yMm()).average().orElse(0);
    return Optional.of(new double[] {x, y});
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    Ink ink = ink();
    if (shown == null || shown.part().isEmpty()) {
      g.setFont(Type.words(13));
      g.setFill(ink.ink2());
      Type.write(g, "nothing on this board is soldered by iron", 20, h / 2);
      return;
    }
    if (!inHand.equals(shown.part().get().reference())) {
      inHand = shown.part().get().reference();
      across(reach(shown.pins()), w, h);
    }
    BoardFrame f = frame(w, h);
    clip(g, w, h);
    edge(g, f, ink);
    for (Joint j : revision().joints()) {
      pad(g, f, ink, j);
    }
    body(g, f, ink, shown.part().get());
    for (int i = 0; i < shown.pins().size(); i++) {
      pin(g, f, ink, shown.pins().get(i), i);
    }
  }

  private void pad(GraphicsContext g, BoardFrame f, Ink ink, Joint j) {
    double pw = Math.max(Math.max(j.widthMm(), j.drillMm()), 0.3) * f.scale();
    double ph = (j.heightMm() > 0 ? j.heightMm() : Math.max(j.widthMm(), 0.3)) * f.scale();
    boolean own = j.part().equals(inHand);
    g.setFill(Ink.thin(ink.ink2(), own ? 0.34 : 0.12));
    double x = f.x(j.xMm()) - pw / 2;
    double y = f.y(j.yMm()) - ph / 2;
    if (j.hole()) {
      g.fillOval(x, y, pw, ph);
    } else {
      g.fillRect(x, y, pw, ph);
    }
  }

  private void body(GraphicsContext g, BoardFrame f, Ink ink, Part p) {
    if (p.place().isEmpty()) {
      return;
    }
    double[] b = revision().shape(p).boxAt(p.place().get());
    double x = Math.min(f.x(b[0]), f.x(b[2]));
    g.setStroke(ink.ink2());
    g.setLineWidth(1.2);
    g.setLineDashes(6, 4);
    g.strokeRect(x, f.y(b[3]), (b[2] - b[0]) * f.scale(), (b[3] - b[1]) * f.scale());
    g.setLineDashes();
    g.setFont(Type.bold(13));
    g.setFill(ink.ink());
    Type.write(g, p.reference(), x + 4, Math.max(16, f.y(b[3]) - 6));
  }

  private void pin(GraphicsContext g, BoardFrame f, Ink ink, JointDemand.Pin p, int order) {
    double x = f.x(p.joint().xMm());
    double y = f.y(p.joint().yMm());
    double r = Math.clamp(f.scale() * 0.42, 6, 13);
    Color c =
        switch (p.demand().need()) {
          case LIGHT, NORMAL -> ink.verdigris();
          case HEAVY -> ink.ochre();
          case PREHEAT -> ink.madder();
        };
    g.setFill(ink.sheet());
    g.fillOval(x - r - 2, y - r - 2, 2 * r + 4, 2 * r + 4);
    g.setStroke(c);
    g.setFill(c);
    g.setLineWidth(2);
    switch (p.demand().need()) {
      case LIGHT -> g.strokeOval(x - r, y - r, 2 * r, 2 * r);
      case NORMAL -> g.fillOval(x - r, y - r, 2 * r, 2 * r);
      case HEAVY -> g.fillRect(x - r, y - r, 2 * r, 2 * r);
      case PREHEAT ->
          g.fillPolygon(
              new double[] {x, x + 1.2 * r, x - 1.2 * r},
              new double[] {y - 1.2 * r, y + 0.9 * r, y + 0.9 * r},
              3);
    }
    g.setFont(Type.numbersBold(Math.clamp(r, 9, 13)));
    g.setFill(p.demand().need() == JointDemand.Need.LIGHT ? ink.ink() : ink.sheet());
    g.setTextAlign(TextAlignment.CENTER);
    Type.write(g, String.valueOf(order + 1), x, y + 4);
    g.setFont(Type.words(11));
    g.setFill(ink.ink());
    Type.write(g, p.joint().pin() + "  " + p.joint().net(), x, y + r + 14);
    g.setTextAlign(TextAlignment.LEFT);
    if (order == shown.pin()) {
      brackets(g, ink, x, y, r + 6, r + 6);
    }
  }
}
