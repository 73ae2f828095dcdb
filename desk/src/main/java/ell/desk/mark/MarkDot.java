package ell.desk.mark;

import ell.core.rack.Standing.Mark;
import javafx.scene.canvas.GraphicsContext;

/// One mark as a node.
public final class MarkDot extends Picture {
  private Mark mark = Mark.NOT_YET;

  /// A mark that says that nothing is known.
  public MarkDot() {
    super("not yet");
    setMinSize(14, 14);
    setPrefSize(14, 14);
    setMaxSize(14, 14);
  }

  /// Shows another mark.
  public void show(Mark m) {
    mark = m;
    setAccessibleText(
        switch (m) {
          case WITHIN -> "within";
          case CLOSE -> "too close to call";
          case OUT -> "out";
          case NOT_YET -> "not yet";
          case NEXT -> "next";
        });
    redraw();
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    Marks.paint(g, ink(), mark, w / 2, h / 2, 4.2);
  }
}
