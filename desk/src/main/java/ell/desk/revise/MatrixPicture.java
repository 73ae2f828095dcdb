package ell.desk.revise;

import ell.core.revise.BodgeMatrix;
import ell.core.revise.Erratum;
import ell.core.revise.Stand;
import ell.desk.mark.Ink;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/// Errata down, boards across, each crossing a mark: a column is read to mend a board, a row to
/// close a mistake. Shapes say it before colours do.
final class MatrixPicture extends Picture {
  private static final double HEAD = 26;
  private static final double FOOT = 24;
  private static final double ROW = 56;
  private static final double LEAST = 30;
  private static final double MOST = 64;

  /// The mark of a crossing.
  private static final double R = 8;

  private ReviseModel.Shown shown;
  private int firstRow;
  private int firstColumn;
  private double left = 260;
  private double wide = LEAST;
  private Turn turn = (_, _) -> {};

  /// Is told the crossing that is clicked.
  interface Turn {
    /// Turns to it.
    void to(int row, int column);
  }

  MatrixPicture() {
    super("errata against boards");
    setOnMouseClicked(e -> {
      int r = firstRow + (int) Math.floor((e.getY() - HEAD) / ROW);
      int c = firstColumn + (int) Math.floor((e.getX() - left) / wide);
      if (shown != null
          && e.getY() >= HEAD
          && r >= 0
          && r < shown.answer().mistakes().errata().size()) {
        boolean at = e.getX() >= left && c < shown.answer().mistakes().boards().size();
        turn.to(r, at ? c : shown.column());
      }
    });
  }

  void onCrossing(Turn listener) {
    turn = listener;
  }

  void show(ReviseModel.Shown s) {
    shown = s;
    if (s != null) {
      setAccessibleText(
          "errata against boards. " + String.join(". ", words(s.answer().mistakes())));
    }
    redraw();
  }

  /// A sentence for each erratum, for screen readers.
  static List<String> words(BodgeMatrix m) {
    return m.errata().stream()
        .map(e -> {
          StringBuilder s = new StringBuilder(e.id() + " " + e.title());
          for (Stand.State x : Stand.State.values()) {
            List<String> on =
                m.boards().stream()
                    .filter(b -> b.stands().get(e.id()).state() == x)
                    .map(BodgeMatrix.Row::board)
                    .toList();
            if (!on.isEmpty()) {
              s.append(", ").append(x.words()).append(" on ").append(String.join(" ", on));
            }
          }
          return s.toString();
        })
        .toList();
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    Ink ink = ink();
    if (shown == null) {
      return;
    }
    BodgeMatrix m = shown.answer().mistakes();
    if (m.errata().isEmpty()) {
      g.setFont(Type.words(13));
      g.setFill(ink.ink2());
      Type.write(g, "No mistake of this design is written down and open.", 8, 24);
      Type.write(g, "Shift+E writes one down from what was found last.", 8, 44);
      return;
    }
    left = Math.clamp(w * 0.4, 150, 330);
    wide = Math.clamp((w - left - 8) / Math.max(1, m.boards().size()), LEAST, MOST);
    int across = Math.max(1, (int) Math.floor((w - left - 6) / wide));
    int down = Math.max(1, (int) Math.floor((h - HEAD - FOOT) / ROW));
    firstColumn =
        Math.clamp(shown.column() - across / 2L, 0, Math.max(0, m.boards().size() - across));
    firstRow = Math.clamp(shown.row() - down / 2L, 0, Math.max(0, m.errata().size() - down));
    int lastColumn = Math.min(m.boards().size(), firstColumn + across);
    int lastRow = Math.min(m.errata().size(), firstRow + down);
    bands(g, ink, w, lastColumn, lastRow);
    heads(g, ink, m, lastColumn, lastRow);
    for (int r = firstRow; r < lastRow; r++) {
      row(g, ink, m, m.errata().get(r), HEAD + (r - firstRow) * ROW, r, lastColumn);
    }
    legend(g, ink, m, w, h);
  }

  private void bands(GraphicsContext g, Ink ink, double w, int lastColumn, int lastRow) {
    double y = HEAD + (shown.row() - firstRow) * ROW;
    g.setFill(ink.stick());
    g.fillRect(0, y + 1, left + (lastColumn - firstColumn) * wide, ROW - 2);
    double x = left + (shown.column() - firstColumn) * wide;
    g.fillRect(x + 1, 0, wide - 2, HEAD + (lastRow - firstRow) * ROW);
    g.setFill(ink.brass());
    g.fillRect(0, y + 1, 3, ROW - 2);
  }

  private void heads(GraphicsContext g, Ink ink, BodgeMatrix m, int lastColumn, int lastRow) {
    g.setTextAlign(TextAlignment.CENTER);
    String revision = "";
    for (int c = firstColumn; c < lastColumn; c++) {
      BodgeMatrix.Row b = m.boards().get(c);
      double x = left + (c - firstColumn) * wide + wide / 2;
      boolean own = b.board().equals(shown.answer().work().board());
      g.setFont(own ? Type.numbersBold(12) : Type.numbers(12));
      g.setFill(ink.ink());
      Type.write(g, Type.cut(Type.numbers(12), b.board(), wide - 2), x, 18);
      if (own) {
        g.setFill(ink.brass());
        g.fillRect(x - 9, 21, 18, 2);
      }
      if (!b.revision().name().equals(revision)) {
        revision = b.revision().name();
        g.setFont(Type.words(11));
        g.setFill(ink.ink2());
        if (c > firstColumn) {
          g.setStroke(ink.hair());
          g.setLineWidth(1);
          g.strokeLine(x - wide / 2, 4, x - wide / 2, HEAD + 4);
        }
      }
    }
    g.setTextAlign(TextAlignment.LEFT);
    g.setFont(Type.words(11));
    g.setFill(ink.ink2());
    List<String> more = new ArrayList<>();
    if (lastRow < m.errata().size()) {
      more.add(m.errata().size() - lastRow + " below");
    }
    if (firstColumn > 0) {
      more.add(firstColumn + " left");
    }
    if (lastColumn < m.boards().size()) {
      more.add(m.boards().size() - lastColumn + " right");
    }
    String said = more.isEmpty() ? "" : "more: " + String.join(", ", more);
    Type.write(g, Type.cut(Type.words(11), said, left - 14), 9, 17);
  }

  private void row(
      GraphicsContext g, Ink ink, BodgeMatrix m, Erratum e, double top, int r, int lastColumn) {
    double y = top + ROW / 2;
    g.setStroke(ink.hair());
    g.setLineWidth(1);
    g.strokeLine(0, top + ROW - 0.5, left + (lastColumn - firstColumn) * wide, top + ROW - 0.5);
    g.setFont(Type.numbersBold(13));
    g.setFill(ink.ink());
    Type.write(g, e.id(), 10, y - 10 + (one(e) ? 8 : 0));
    double at = 10 + Math.max(30, Type.width(Type.numbersBold(13), e.id()) + 10);
    List<String> title = lines(e.title(), left - at - 10);
    g.setFont(Type.bold(13));
    for (int i = 0; i < title.size(); i++) {
      Type.write(g, title.get(i), at, y - 10 + 16 * i + (title.size() == 1 ? 8 : 0));
    }
    g.setFont(Type.words(11));
    g.setFill(ReviseMargin.loud(e.severity()) ? ink.madder() : ink.ink2());
    int need = m.count(e, Stand.State.NEEDED) + m.count(e, Stand.State.CANNOT);
    int done = m.count(e, Stand.State.DONE);
    Type.write(
        g,
        Type.cut(
            Type.words(11),
            e.severity().key()
                + " \u00b7 "
                + (need > 0
                    ? need + " to mend"
                    : done > 0 ? done + " to prove" : "closed on all boards")
                + (e.bodge().isEmpty() ? " \u00b7 no bodge yet" : ""),
            left - at - 10),
        at,
        y + (title.size() == 1 ? 14 : 22));
    for (int c = firstColumn; c < lastColumn; c++) {
      double x = left + (c - firstColumn) * wide + wide / 2;
      mark(g, ink, m.boards().get(c).stands().get(e.id()).state(), x, y, R);
      if (r == shown.row() && c == shown.column()) {
        brackets(g, ink, x, y, R + 6, R + 6);
      }
    }
  }

  private boolean one(Erratum e) {
    return lines(e.title(), left - 20 - Math.max(30, Type.width(Type.numbersBold(13), e.id()) + 10))
            .size()
        == 1;
  }

  /// A title on two lines at most.
  private static List<String> lines(String title, double wide) {
    if (Type.width(Type.bold(13), title) <= wide) {
      return List.of(title);
    }
    StringBuilder first = new StringBuilder();
    String[] words = title.split(" ");
    int i = 0;
    while (i < words.length
        && (first.isEmpty() || Type.width(Type.bold(13), first + " " + words[i]) <= wide)) {
      first.append(first.isEmpty() ? "" : " ").append(words[i++]);
    }
    String rest = String.join(" ", List.of(words).subList(i, words.length));
    return List.of(
        Type.cut(Type.bold(13), first.toString(), wide), Type.cut(Type.bold(13), rest, wide));
  }

  /// A mark: needed an open square, done one that is half filled, proved a full one, not needed a
  /// dash, cannot a square crossed out.
  static void mark(GraphicsContext g, Ink ink, Stand.State s, double x, double y, double r) {
    g.setLineWidth(1.8);
    switch (s) {
      case NEEDED -> {
        g.setStroke(ink.ink());
        g.strokeRect(x - r, y - r, 2 * r, 2 * r);
      }
      case DONE -> {
        g.setFill(ink.slate());
        g.fillPolygon(new double[] {x - r, x + r, x - r}, new double[] {y + r, y + r, y - r}, 3);
        g.setStroke(ink.slate());
        g.strokeRect(x - r, y - r, 2 * r, 2 * r);
      }
      case PROVED -> {
        g.setFill(ink.verdigris());
        g.fillRect(x - r - 0.9, y - r - 0.9, 2 * r + 1.8, 2 * r + 1.8);
      }
      case NOT_NEEDED -> {
        g.setStroke(ink.ink2());
        g.strokeLine(x - r * 0.6, y, x + r * 0.6, y);
      }
      case CANNOT -> {
        g.setStroke(ink.madder());
        g.strokeRect(x - r, y - r, 2 * r, 2 * r);
        g.strokeLine(x - r, y - r, x + r, y + r);
        g.strokeLine(x - r, y + r, x + r, y - r);
      }
    }
  }

  private static void brackets(
      GraphicsContext g, Ink ink, double x, double y, double dx, double dy) {
    g.setStroke(ink.brass());
    g.setLineWidth(2.2);
    double k = 5;
    for (int sx = -1; sx <= 1; sx += 2) {
      for (int sy = -1; sy <= 1; sy += 2) {
        g.strokeLine(x + sx * dx, y + sy * dy, x + sx * (dx - k), y + sy * dy);
        g.strokeLine(x + sx * dx, y + sy * dy, x + sx * dx, y + sy * (dy - k));
      }
    }
  }

  private static void legend(GraphicsContext g, Ink ink, BodgeMatrix m, double w, double h) {
    double x = 12;
    double y = h - 9;
    g.setFont(Type.words(11));
    for (Stand.State s : Stand.State.values()) {
      if (m.errata().stream().noneMatch(e -> m.count(e, s) > 0)) {
        continue;
      }
      if (x + 20 + Type.width(Type.words(11), s.words()) > w) {
        break; // its shape says it
      }
      mark(g, ink, s, x, y, 5);
      g.setFill(ink.ink());
      Type.write(g, s.words(), x + 11, y + 4);
      x += 30 + Type.width(Type.words(11), s.words());
    }
  }
}
