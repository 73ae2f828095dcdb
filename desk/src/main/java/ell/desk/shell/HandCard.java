package ell.desk.shell;

import java.util.List;
import java.util.function.IntFunction;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/// What is in hand, below a picture: its number, what it is, how and why; to the right those that
/// come before and after it.
public final class HandCard extends HBox {
  private static final int AROUND = 5;

  private final Label number = new Label();
  private final Label what = new Label();
  private final Label how = new Label();
  private final Label why = new Label();
  private final VBox around = new VBox(2);

  /// An empty card.
  public HandCard() {
    super(14);
    number.getStyleClass().add("step-number");
    what.getStyleClass().add("step-what");
    how.getStyleClass().add("step-detail");
    why.getStyleClass().add("step-why");
    for (Label l : List.of(what, how, why)) {
      l.setWrapText(true);
      l.setMinHeight(Region.USE_PREF_SIZE);
    }
    VBox card = new VBox(3, what, how, why);
    HBox.setHgrow(card, Priority.ALWAYS);
    around.getStyleClass().add("around");
    around.setMinWidth(210);
    around.setMaxWidth(270);
    setAlignment(Pos.TOP_LEFT);
    getStyleClass().add("step-card");
    getChildren().addAll(number, card, around);
  }

  /// Says what is in hand.
  ///
  /// @param no its number, empty for none
  public void show(String no, String what, String how, String why) {
    number.setText(no);
    this.what.setText(what);
    this.how.setText(how);
    this.why.setText(why);
  }

  /// Nothing is in hand, and why.
  public void nothing(String words) {
    show("", words, "", "");
    around.getChildren().clear();
  }

  /// Lists those around the one in hand.
  ///
  /// @param at the one in hand, 0...count − 1
  /// @param name of one
  public void around(int at, int count, IntFunction<String> name) {
    around.getChildren().clear();
    int from = Math.clamp(at - 2L, 0, Math.max(0, count - AROUND));
    for (int i = from; i < Math.min(count, from + AROUND); i++) {
      Label line = new Label(name.apply(i));
      line.getStyleClass().add(i == at ? "around-now" : "around-line");
      around.getChildren().add(line);
    }
  }
}
