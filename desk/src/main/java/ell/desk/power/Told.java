package ell.desk.power;

import ell.work.power.HelperWords;
import java.util.Optional;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/// What a helper is told: one word that reads across the room, and beside it what to do. Nothing of
/// it is there while the maker is at the bench.
final class Told extends HBox {
  private static final int MOST = 5;

  private final Label word = new Label();
  private final Label todo = new Label();
  private final Label more = new Label();

  Told() {
    getStyleClass().add("told");
    word.getStyleClass().add("told-word");
    word.setId("told-word");
    word.setMinWidth(USE_PREF_SIZE);
    todo.getStyleClass().add("told-todo");
    todo.setWrapText(true);
    more.getStyleClass().add("sheet-line");
    more.setWrapText(true);
    VBox beside = new VBox(2, todo, more);
    beside.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
    getChildren().addAll(word, beside);
    managedProperty().bind(visibleProperty());
    setVisible(false);
  }

  void show(Optional<HelperWords> words) {
    setVisible(words.isPresent());
    words.ifPresent(w -> {
      word.setText(w.word());
      todo.setText(w.todo());
      int shown = Math.min(MOST, w.lines().size());
      int left = w.lines().size() - shown;
      more.setText(
          String.join("\n", w.lines().subList(0, shown))
              + (left > 0 ? "\nand " + left + " more" : ""));
      getStyleClass().removeAll("wrong", "alarmed");
      if (w.wrong()) {
        getStyleClass().add("wrong");
      }
      if (w.alarmed()) {
        getStyleClass().add("alarmed");
      }
      setAccessibleText(w.word() + ". " + w.todo());
    });
  }
}
