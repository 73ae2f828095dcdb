package ell.desk.prove;

import java.util.function.BiConsumer;
import java.util.function.Consumer;
import javafx.application.Platform;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextArea;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/// The test plan as text, a step a line. What cannot be read stays, with every line that is wrong.
final class PlanEditor extends VBox {
  PlanEditor(String text, BiConsumer<String, Consumer<String>> keep, Runnable close) {
    getStyleClass().addAll("overlay", "ladder-editor");
    setId("plan-editor");
    Label head = new Label("Test plan");
    head.getStyleClass().add("sheet-title");
    Label how =
        new Label(
            "A step a line: ohms, power, volts, amps, set, wave, feel, talk, say, ask, wait, plug,"
                + " link, pattern, loop \u2026 end, off. Ctrl+Enter keeps it.");
    how.getStyleClass().add("sheet-line");
    how.setWrapText(true);
    TextArea area = new TextArea(text);
    area.setId("plan-text");
    area.setAccessibleText("the test plan, a step a line");
    area.getStyleClass().add("mono");
    VBox.setVgrow(area, Priority.ALWAYS);
    Label wrong = new Label();
    wrong.setId("plan-wrong");
    wrong.getStyleClass().add("problem");
    wrong.setWrapText(true);
    Runnable kept =
        () ->
            keep.accept(
                area.getText(),
                why -> {
                  wrong.setText(why);
                  if (why.isEmpty()) {
                    close.run();
                  }
                });
    area.setOnKeyPressed(e -> {
      if (e.getCode() == KeyCode.ENTER && e.isShortcutDown()) {
        kept.run();
        e.consume();
      }
    });
    Button yes = new Button("Keep it");
    yes.setId("plan-keep");
    yes.setOnAction(_ -> kept.run());
    Button leave = new Button("Leave it as it was");
    leave.setCancelButton(true);
    leave.setOnAction(_ -> close.run());
    setSpacing(10);
    getChildren().addAll(head, how, area, wrong, new HBox(12, yes, leave));
    Platform.runLater(area::requestFocus);
  }
}
