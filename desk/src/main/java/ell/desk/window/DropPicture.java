package ell.desk.window;

import ell.desk.mark.Hairline;
import ell.desk.mark.Ink;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.List;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/// What to drop where: the files that must be there, what may come with them, and what they become.
final class DropPicture extends Picture {
  private record Slip(String title, String what, boolean must) {}

  private static final List<Slip> SLIPS =
      List.of(
          new Slip("Bill of materials", "CSV: reference, value, package, code", true),
          new Slip("Placement", "CSV: reference, x, y, rotation, side", true),
          new Slip("Netlist", "IPC-D-356A: every joint with its net", true),
          new Slip("Layers", "paste, legend, drill, outline", false),
          new Slip("Shelf", "CSV: code, quantity, bin", false),
          new Slip("Power ladder", "JSON; proposed when there is none", false));

  DropPicture() {
    super(
        "files of a revision: bill of materials, placement and netlist must be there; layers, shelf"
            + " and power ladder may come with them; together they become a revision and its build");
    setMinHeight(250);
    setPrefHeight(280);
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    Ink ink = ink();
    double slip = Math.min(270, w * 0.4);
    double step = h / SLIPS.size();
    double gather = slip + Math.min(90, w * 0.12);
    double middle = h / 2;
    for (int i = 0; i < SLIPS.size(); i++) {
      slip(g, ink, SLIPS.get(i), 1, i * step + 4, slip, step - 10);
      double y = i * step + step / 2;
      double weight = SLIPS.get(i).must() ? 1.4 : 0.7;
      Hairline.level(g, ink.ink2(), slip + 2, gather - 24, y, weight);
      g.setStroke(ink.ink2());
      g.setLineWidth(weight);
      g.strokeLine(gather - 24, y, gather, middle);
    }
    board(g, ink, gather, middle, Math.min(w - gather - 4, 260), h);
  }

  private static void slip(
      GraphicsContext g, Ink ink, Slip s, double x, double y, double w, double h) {
    g.setFill(s.must() ? ink.stick() : ink.sheet());
    g.fillRect(x, y, w, h);
    g.setStroke(s.must() ? ink.ink() : ink.ink2());
    g.setLineWidth(s.must() ? 1.4 : 0.8);
    if (!s.must()) {
      g.setLineDashes(4, 3);
    }
    g.strokeRect(x, y, w, h);
    g.setLineDashes();
    g.setFill(ink.ink());
    g.setFont(Type.bold(13));
    Type.write(g, s.title(), x + 9, y + h / 2 - 3);
    g.setFill(ink.ink2());
    g.setFont(Type.words(11));
    Type.write(g, Type.cut(Type.words(11), s.what(), w - 18), x + 9, y + h / 2 + 12);
  }

  /// What comes of it: a board in outline with the words of what happens on the way.
  private static void board(GraphicsContext g, Ink ink, double x, double y, double room, double h) {
    g.setFill(ink.ink());
    g.fillPolygon(new double[] {x, x - 9, x - 9}, new double[] {y, y - 5, y + 5}, 3);
    double w = Math.max(90, room - 16);
    double high = Math.min(h * 0.5, w * 0.6);
    double left = x + 12;
    double top = y - high / 2;
    g.setStroke(ink.ink());
    g.setLineWidth(1.4);
    g.strokeRoundRect(left, top, w, high, 10, 10);
    g.setStroke(ink.hair());
    g.setLineWidth(1);
    double[][] bodies = {
      {0.12, 0.2, 0.14, 0.3},
      {0.4, 0.25, 0.26, 0.42},
      {0.76, 0.16, 0.1, 0.2},
      {0.74, 0.55, 0.16, 0.24}
    };
    for (double[] b : bodies) {
      g.strokeRect(left + b[0] * w, top + b[1] * high, b[2] * w, b[3] * high);
    }
    g.setFill(ink.ink2());
    g.setFont(Type.words(11));
    g.setTextAlign(TextAlignment.CENTER);
    Type.write(g, "held against each other,", left + w / 2, top + high + 18);
    Type.write(g, "taken whole or not at all", left + w / 2, top + high + 33);
    g.setTextAlign(TextAlignment.LEFT);
  }
}
