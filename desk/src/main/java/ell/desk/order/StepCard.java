package ell.desk.order;

import ell.desk.mark.Type;
import java.time.Duration;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/// The step in hand, readable at arm's length: number, parts, value, bin, caution.
final class StepCard extends HBox {
  private final Label number = new Label();
  private final Label what = new Label();
  private final Label detail = new Label();
  private final Label why = new Label();
  private final Label care = new Label();
  private final Label how = new Label();
  private final Label broken = new Label();
  private final Label timer = new Label();
  private final boolean big;

  StepCard(boolean big) {
    this.big = big;
    getStyleClass().addAll("step-card", big ? "big" : "normal");
    number.getStyleClass().add("step-number");
    what.getStyleClass().add("step-what");
    detail.getStyleClass().add("step-detail");
    why.getStyleClass().add("step-why");
    care.getStyleClass().add("step-care");
    how.getStyleClass().add("step-why");
    broken.getStyleClass().add("step-broken");
    timer.getStyleClass().add("step-timer");
    timer.setMinWidth(Region.USE_PREF_SIZE);
    for (Label l : List.of(what, detail, why, care, how, broken)) {
      l.setWrapText(true);
      l.setMinHeight(Region.USE_PREF_SIZE);
    }
    VBox words = new VBox(big ? 10 : 3, care, what, detail, broken, how, why);
    HBox.setHgrow(words, Priority.ALWAYS);
    setSpacing(big ? 30 : 18);
    setAlignment(Pos.TOP_LEFT);
    getChildren().addAll(number, words, timer);
  }

  private static void words(Label l, String text) {
    l.setText(text);
    l.setVisible(!text.isEmpty());
    l.setManaged(l.isVisible());
  }

  /// Says how long the step has been in hand, and about how long it takes here.
  void time(Optional<Duration> elapsed, double expected) {
    timer.setText(
        elapsed
            .map(e -> clock(e.toSeconds()) + " of about " + clock(Math.round(expected)))
            .orElse("about " + clock(Math.round(expected))));
  }

  private static String clock(long seconds) {
    return String.format(Locale.ROOT, "%d:%02d", seconds / 60, seconds % 60);
  }

  void show(OrderModel.Shown s) {
    number.setText(String.valueOf(s.step().number()));
    what.setText(big ? s.what() : Type.cut(Type.bold(18), s.what(), 1400));
    detail.setText(s.detail() + (s.stepDone() ? " · done" : ""));
    why.setText("why now: " + String.join("; ", s.step().reasons()));
    care.setText(
        s.step().cautions().isEmpty() ? "" : "take care: " + String.join(" ", s.step().cautions()));
    care.setVisible(!s.step().cautions().isEmpty());
    care.setManaged(care.isVisible());
    why.setVisible(!big);
    why.setManaged(!big);
    words(how, String.join(" ", s.step().how()));
    words(broken, s.broken().isEmpty() ? "" : "× " + String.join("; ", s.broken()));
    setAccessibleText(
        "step " + s.step().number() + ", " + s.what() + ", " + s.detail() + ". " + care.getText());
  }
}
