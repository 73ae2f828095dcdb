package ell.desk.window;

import javafx.beans.property.DoubleProperty;
import javafx.beans.property.SimpleDoubleProperty;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.transform.Scale;

/// Shows the whole interface larger: what is inside is laid out on a smaller page and magnified.
final class Magnified extends Pane {
  private final Region inside;
  private final DoubleProperty factor = new SimpleDoubleProperty(this, "factor", 1);
  private final Scale scale = new Scale(1, 1);

  Magnified(Region inside) {
    this.inside = inside;
    inside.getTransforms().add(scale);
    getChildren().add(inside);
    factor.addListener((_, _, f) -> {
      scale.setX(f.doubleValue());
      scale.setY(f.doubleValue());
      requestLayout();
    });
  }

  /// How many times as large, 1...1.5.
  DoubleProperty factorProperty() {
    return factor;
  }

  @Override
  protected void layoutChildren() {
    inside.resizeRelocate(0, 0, getWidth() / factor.get(), getHeight() / factor.get());
  }
}
