package ell.desk.shell;

import javafx.scene.control.Label;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/// The card below a picture: a line of detail, and what it says, large.
public final class StepCard extends VBox {
  private final Label detail = new Label();
  private final Label what = new Label();

  /// An empty card.
  ///
  /// @param id of what it says
  public StepCard(String id) {
    super(3);
    what.getStyleClass().add("step-what");
    what.setId(id);
    detail.getStyleClass().add("step-detail");
    for (Label l : new Label[] {what, detail}) {
      l.setWrapText(true);
      l.setMinHeight(Region.USE_PREF_SIZE);
    }
    getStyleClass().add("step-card");
    getChildren().addAll(detail, what);
  }

  /// Says something else.
  public void what(String words) {
    what.setText(words);
  }

  /// Another line of detail.
  public void detail(String words) {
    detail.setText(words);
  }
}
