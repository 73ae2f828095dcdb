package ell.desk.mark;

import javafx.beans.property.BooleanProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.layout.Region;

/// A region that is drawn: redraws itself when its size, its palette or what it shows changes.
public abstract class Picture extends Region {
  private final Canvas canvas = new Canvas();
  private final BooleanProperty night = new SimpleBooleanProperty(this, "night");

  /// A picture that describes itself to screen readers.
  protected Picture(String accessibleText) {
    setAccessibleText(accessibleText);
    getChildren().add(canvas);
    night.addListener((_, _, _) -> redraw());
  }

  /// Whether the night palette is on.
  public final BooleanProperty nightProperty() {
    return night;
  }

  /// The colours to draw with.
  protected final Ink ink() {
    return Ink.of(night.get());
  }

  @Override
  protected void layoutChildren() {
    if (canvas.getWidth() != getWidth() || canvas.getHeight() != getHeight()) {
      canvas.setWidth(getWidth());
      canvas.setHeight(getHeight());
      redraw();
    }
  }

  /// Draws again.
  protected final void redraw() {
    double w = canvas.getWidth();
    double h = canvas.getHeight();
    GraphicsContext g = canvas.getGraphicsContext2D();
    g.clearRect(0, 0, w, h);
    if (w > 0 && h > 0) {
      g.save();
      draw(g, w, h);
      g.restore();
    }
  }

  /// Draws into a clear canvas of this size.
  protected abstract void draw(GraphicsContext g, double w, double h);
}
