package ell.desk.mark;

import ell.core.board.Outline;
import ell.core.board.Revision;
import ell.core.board.Side;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;

/// A picture of one side of a board: fits it, zooms with the wheel or the keys, follows what is in
/// hand until it is dragged elsewhere.
public abstract class BoardPicture extends Picture {
  /// Largest zoom over the whole board.
  private static final double MOST = 24;

  private Revision revision;
  private Side side = Side.FIRST;
  private double zoom = 1;
  private double panX;
  private double panY;
  private boolean aimed = true;
  private double dragX;
  private double dragY;
  private BiConsumer<Double, Double> clicked = (_, _) -> {};

  /// A picture without a board.
  protected BoardPicture(String accessibleText) {
    super(accessibleText);
    setMinSize(200, 120);
    addEventHandler(ScrollEvent.SCROLL, e -> zoom(e.getDeltaY() > 0 ? 1.25 : 0.8));
    addEventHandler(
        MouseEvent.MOUSE_PRESSED,
        e -> {
          dragX = e.getX() - panX;
          dragY = e.getY() - panY;
        });
    addEventHandler(
        MouseEvent.MOUSE_DRAGGED,
        e -> {
          if (zoom > 1) {
            aimed = false;
            panX = e.getX() - dragX;
            panY = e.getY() - dragY;
            redraw();
          }
        });
    addEventHandler(
        MouseEvent.MOUSE_CLICKED,
        e -> {
          if (e.isStillSincePress() && revision != null) {
            clicked.accept(e.getX(), e.getY());
          }
        });
  }

  /// Is told the pixel of a click.
  protected final void onClick(BiConsumer<Double, Double> listener) {
    clicked = listener;
  }

  /// Takes another board or side; does not draw.
  protected final void board(Revision which, Side seen) {
    revision = which;
    side = seen;
  }

  /// The board; null before there is one.
  protected final Revision revision() {
    return revision;
  }

  /// The side that is seen.
  protected final Side side() {
    return side;
  }

  /// Follows what is in hand again.
  protected final void aim() {
    aimed = true;
  }

  /// Where to look when zoomed in, millimetre; empty for the middle.
  protected Optional<double[]> inHandMm() {
    return Optional.empty();
  }

  /// Zooms by a factor; at 1 the whole board fits.
  public void zoom(double factor) {
    zoom = Math.clamp(zoom * factor, 1, MOST);
    if (zoom == 1) {
      panX = 0;
      panY = 0;
    }
    redraw();
  }

  /// Sets the zoom so that so many millimetre are seen across; follows what is in hand.
  protected final void across(double mm, double w, double h) {
    double[] box = revision.boxMm();
    double fit = fit(box, w, h);
    zoom = Math.clamp(Math.min(w, h) / mm / fit, 1, 400);
    aimed = true;
  }

  private static double fit(double[] box, double w, double h) {
    double room = 10;
    return Math.min(
        (w - 2 * room) / Math.max(box[2] - box[0], 1),
        (h - 2 * room) / Math.max(box[3] - box[1], 1));
  }

  /// The frame for a size.
  protected final BoardFrame frame(double w, double h) {
    double[] box = revision.boxMm();
    double bw = Math.max(box[2] - box[0], 1);
    double bh = Math.max(box[3] - box[1], 1);
    double scale = fit(box, w, h) * zoom;
    if (zoom > 1 && aimed) {
      inHandMm()
          .ifPresent(at -> {
            double dx = (box[0] + box[2]) / 2 - at[0];
            double dy = (box[1] + box[3]) / 2 - at[1];
            panX = (side == Side.SECOND ? -dx : dx) * scale;
            panY = -dy * scale;
          });
    }
    double cx = w / 2 + panX;
    double cy = h / 2 + panY;
    return new BoardFrame(
        scale,
        box[0],
        box[1],
        cx - bw * scale / 2,
        cy + bh * scale / 2,
        cx + bw * scale / 2,
        side == Side.SECOND);
  }

  /// Keeps the drawing inside the picture.
  protected static void clip(GraphicsContext g, double w, double h) {
    g.beginPath();
    g.rect(0, 0, w, h);
    g.clip();
  }

  /// Draws the board's edge and cut-outs, its box in dashes where the edge is not known.
  protected final void edge(GraphicsContext g, BoardFrame f, Ink ink) {
    g.setStroke(ink.ink());
    g.setLineWidth(1.8);
    g.setFill(Ink.thin(ink.stick(), 0.35));
    List<List<Outline.Point>> loops = revision.outline().loops();
    if (loops.isEmpty()) {
      double[] b = revision.boxMm();
      double x = Math.min(f.x(b[0]), f.x(b[2]));
      g.setLineDashes(5, 4);
      g.strokeRect(x, f.y(b[3]), (b[2] - b[0]) * f.scale(), (b[3] - b[1]) * f.scale());
      g.setLineDashes();
      return;
    }
    for (int i = 0; i < loops.size(); i++) {
      double[] xs = loops.get(i).stream().mapToDouble(p -> f.x(p.xMm())).toArray();
      double[] ys = loops.get(i).stream().mapToDouble(p -> f.y(p.yMm())).toArray();
      if (i > 0) {
        g.setFill(ink.sheet());
        g.setLineWidth(1.2);
      }
      g.fillPolygon(xs, ys, xs.length);
      g.strokePolygon(xs, ys, xs.length);
    }
  }

  /// Corner brackets about what is in hand.
  protected static void brackets(
      GraphicsContext g, Ink ink, double cx, double cy, double hw, double hh) {
    g.setStroke(ink.brass());
    g.setLineWidth(2.6);
    double l = Math.min(8, Math.min(hw, hh));
    for (int sx = -1; sx <= 1; sx += 2) {
      for (int sy = -1; sy <= 1; sy += 2) {
        double x = cx + sx * hw;
        double y = cy + sy * hh;
        g.strokeLine(x, y, x - sx * l, y);
        g.strokeLine(x, y, x, y - sy * l);
      }
    }
  }
}
