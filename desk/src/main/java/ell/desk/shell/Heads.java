package ell.desk.shell;

import java.util.List;
import javafx.scene.control.Label;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/// The head of a sheet: what it is about, and one line about how to read it.
public final class Heads extends VBox {
  private final Label title = new Label();
  private final Label line = new Label();

  /// An empty head.
  public Heads() {
    title.getStyleClass().add("sheet-title");
    line.getStyleClass().add("sheet-line");
    for (Label l : List.of(title, line)) {
      l.setWrapText(true);
      l.setMinHeight(Region.USE_PREF_SIZE);
    }
    getStyleClass().add("heads");
    getChildren().addAll(title, line);
  }

  /// Says something else.
  public void show(String head, String words) {
    title.setText(head);
    line.setText(words);
  }
}
