package ell.desk.mark;

import ell.desk.word.Tongue;
import ell.work.word.Words;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.value.ChangeListener;
import javafx.beans.value.WeakChangeListener;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.layout.Region;
import javafx.scene.transform.Scale;

/// A region that is drawn: redraws itself when its size, its palette, its magnification, the
/// language or what it shows changes. Where the window is magnified, the canvas has as many more
/// dots, so that lines and letters stay sharp.
public abstract class Picture extends Region {
  private final Canvas canvas = new Canvas();
  private final BooleanProperty night = new SimpleBooleanProperty(this, "night");

  /// Held here as long as the picture is there, for the language only knows it weakly.
  private final ChangeListener<Words> spoken = (_, _, _) -> redraw();

  private double scale = 1;

  /// A picture that describes itself to screen readers.
  protected Picture(String accessibleText) {
    setAccessibleText(accessibleText);
    getChildren().add(canvas);
    night.addListener((_, _, _) -> redraw());
    Tongue.wordsProperty().addListener(new WeakChangeListener<>(spoken));
    localToSceneTransformProperty()
        .addListener((_, _, t) -> {
          if (t.getMxx() != scale) {
            requestLayout();
          }
        });
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
    double now = Math.clamp(getLocalToSceneTransform().getMxx(), 0.5, 4);
    // whole dots: half of one at the edge would not be wiped away
    double wide = Math.ceil(getWidth() * now);
    double high = Math.ceil(getHeight() * now);
    if (canvas.getWidth() != wide || canvas.getHeight() != high || scale != now) {
      scale = now;
      canvas.setWidth(wide);
      canvas.setHeight(high);
      canvas.getTransforms().setAll(new Scale(1 / scale, 1 / scale));
      redraw();
    }
  }

  /// Draws again.
  protected final void redraw() {
    double w = canvas.getWidth() / scale;
    double h = canvas.getHeight() / scale;
    GraphicsContext g = canvas.getGraphicsContext2D();
    g.clearRect(0, 0, canvas.getWidth(), canvas.getHeight());
    if (w > 0 && h > 0) {
      g.save();
      g.scale(scale, scale);
      draw(g, w, h);
      g.restore();
    }
  }

  /// Draws into a clear canvas of this size.
  protected abstract void draw(GraphicsContext g, double w, double h);
}
