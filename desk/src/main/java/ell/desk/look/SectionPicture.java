package ell.desk.look;

import ell.core.board.PackageShape;
import ell.core.look.Walk;
import ell.desk.mark.Ink;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.Locale;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/// What a good joint of this kind looks like, cut through: the board, the metal, the concave
/// solder, and the least that is accepted as a tick with its dimension. Least fillets: IPC-A-610
/// class 2, from memory.
final class SectionPicture extends Picture {
  private LookModel.Shown shown;

  SectionPicture() {
    super("a good joint, cut through");
    setMinSize(150, 120);
  }

  void show(LookModel.Shown s) {
    shown = s;
    setAccessibleText(
        s.stop().map(x -> "a good joint of this kind: " + words(x)).orElse("no joint in hand"));
    redraw();
  }

  private enum Kind {
    CHIP,
    WING,
    HOLE
  }

  private Kind kind(Walk.Stop s) {
    if (s.joint().hole()) {
      return Kind.HOLE;
    }
    return shown.work().plan().revision().shape(s.part()).family() == PackageShape.Family.CHIP
        ? Kind.CHIP
        : Kind.WING;
  }

  private String words(Walk.Stop s) {
    double h = shown.work().plan().revision().shape(s.part()).heightMm();
    return switch (kind(s)) {
      case CHIP ->
          String.format(
              Locale.ROOT, "end fillet at least %.2f mm up, a quarter of the height", h / 4);
      case WING -> "heel filled at least as high as the lead is thick";
      case HOLE -> "hole filled at least 75 %, wetted all round";
    };
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    if (shown == null || shown.stop().isEmpty()) {
      return;
    }
    Ink ink = ink();
    Walk.Stop s = shown.stop().get();
    double base = h * 0.6;
    g.setFont(Type.bold(13));
    g.setFill(ink.ink());
    Type.write(
        g,
        switch (kind(s)) {
          case CHIP -> "good: end of a chip";
          case WING -> "good: lead on a pad";
          case HOLE -> "good: lead in a hole";
        },
        0,
        12);
    board(g, ink, w, base, kind(s) == Kind.HOLE);
    switch (kind(s)) {
      case CHIP -> chip(g, ink, w, base);
      case WING -> wing(g, ink, w, base);
      case HOLE -> hole(g, ink, w, base);
    }
    g.setFont(Type.words(11));
    g.setFill(ink.ink2());
    g.setTextAlign(TextAlignment.LEFT);
    String[] lines = wrap(words(s), w);
    for (int i = 0; i < lines.length; i++) {
      Type.write(g, lines[i], 0, h - 4 - 12 * (lines.length - 1 - i));
    }
  }

  private static String[] wrap(String text, double w) {
    StringBuilder out = new StringBuilder();
    StringBuilder line = new StringBuilder();
    for (String word : text.split(" ")) {
      if (Type.width(Type.words(11), line + " " + word) > w && !line.isEmpty()) {
        out.append(line).append('\n');
        line = new StringBuilder();
      }
      line.append(line.isEmpty() ? "" : " ").append(word);
    }
    return out.append(line).toString().split("\n");
  }

  private static void board(GraphicsContext g, Ink ink, double w, double base, boolean pierced) {
    double t = 16;
    g.setFill(ink.stick());
    if (pierced) {
      g.fillRect(6, base, w / 2 - 18, t);
      g.fillRect(w / 2 + 12, base, w / 2 - 18, t);
    } else {
      g.fillRect(6, base, w - 12, t);
    }
  }

  private static void solder(GraphicsContext g, Ink ink) {
    g.setFill(Ink.thin(ink.slate(), 0.38));
    g.fill();
    g.setStroke(ink.slate());
    g.setLineWidth(1.6);
    g.stroke();
  }

  private static void tick(
      GraphicsContext g, Ink ink, double x, double y0, double y1, String text) {
    g.setStroke(ink.madder());
    g.setLineWidth(1.3);
    g.strokeLine(x, y0, x, y1);
    g.strokeLine(x - 4, y0, x + 4, y0);
    g.strokeLine(x - 4, y1, x + 4, y1);
    g.setFont(Type.numbers(11));
    g.setFill(ink.madder());
    Type.write(g, text, x + 7, (y0 + y1) / 2 + 3);
  }

  private static void chip(GraphicsContext g, Ink ink, double w, double base) {
    double top = base - 52;
    double end = w * 0.52;
    g.setFill(ink.brass());
    g.fillRect(w * 0.36, base - 4, w * 0.42, 4);
    g.setFill(ink.stone());
    g.setStroke(ink.ink());
    g.setLineWidth(1.2);
    g.fillRect(8, top, end - 8, 48);
    g.strokeRect(8, top, end - 8, 48);
    g.setFill(ink.hair());
    g.fillRect(end - 16, top, 16, 48);
    g.strokeRect(end - 16, top, 16, 48);
    g.beginPath();
    g.moveTo(end, top + 14);
    g.quadraticCurveTo(end + 4, base - 6, w * 0.78, base - 4);
    g.lineTo(end, base - 4);
    g.closePath();
    solder(g, ink);
    tick(g, ink, w * 0.82, base - 4, base - 4 - 12, "¼ h");
  }

  private static void wing(GraphicsContext g, Ink ink, double w, double base) {
    g.setFill(ink.brass());
    g.fillRect(w * 0.24, base - 4, w * 0.56, 4);
    g.setStroke(ink.ink());
    g.setFill(ink.hair());
    g.setLineWidth(1.2);
    double x = w * 0.34;
    g.beginPath();
    g.moveTo(x - 34, base - 56);
    g.lineTo(x - 4, base - 56);
    g.lineTo(x + 12, base - 18);
    g.lineTo(w * 0.7, base - 18);
    g.lineTo(w * 0.7, base - 8);
    g.lineTo(x + 4, base - 8);
    g.lineTo(x - 12, base - 46);
    g.lineTo(x - 34, base - 46);
    g.closePath();
    g.fill();
    g.stroke();
    g.beginPath();
    g.moveTo(w * 0.26, base - 4);
    g.quadraticCurveTo(x - 2, base - 8, x - 4, base - 28);
    g.lineTo(x + 4, base - 8);
    g.lineTo(w * 0.7, base - 8);
    g.lineTo(w * 0.7, base - 17);
    g.quadraticCurveTo(w * 0.72, base - 6, w * 0.79, base - 4);
    g.closePath();
    solder(g, ink);
    tick(g, ink, w * 0.16, base - 4, base - 18, "t");
  }

  private static void hole(GraphicsContext g, Ink ink, double w, double base) {
    double x = w / 2 - 3;
    double t = 16;
    g.setFill(ink.brass());
    g.fillRect(x - 30, base - 3, 21, 3);
    g.fillRect(x + 15, base - 3, 21, 3);
    g.fillRect(x - 30, base + t, 21, 3);
    g.fillRect(x + 15, base + t, 21, 3);
    g.fillRect(x - 10, base - 3, 2, t + 6);
    g.fillRect(x + 14, base - 3, 2, t + 6);
    g.beginPath();
    g.moveTo(x - 28, base - 3);
    g.quadraticCurveTo(x - 4, base - 6, x - 2, base - 34);
    g.lineTo(x + 8, base - 34);
    g.quadraticCurveTo(x + 10, base - 6, x + 34, base - 3);
    g.lineTo(x + 14, base - 3);
    g.lineTo(x + 14, base + t - 1);
    g.lineTo(x - 8, base + t - 1);
    g.lineTo(x - 8, base - 3);
    g.closePath();
    solder(g, ink);
    g.setFill(ink.hair());
    g.setStroke(ink.ink());
    g.setLineWidth(1.2);
    g.fillRect(x - 2, base - 52, 10, 52 + t + 10);
    g.strokeRect(x - 2, base - 52, 10, 52 + t + 10);
    tick(g, ink, w * 0.76, base, base + t * 0.75, "75 %");
  }
}
