package ell.desk.power;

import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextArea;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/// The power ladder as JSON, to be corrected by the maker.
final class LadderEditor extends VBox {
  LadderEditor(PowerModel model, Runnable close) {
    getStyleClass().addAll("overlay", "ladder-editor");
    setId("ladder-editor");
    Label head = new Label("Power ladder");
    head.getStyleClass().add("sheet-title");
    Label line =
        new Label(
            "Rails, sources, steps and loads in SI units. What was proposed is listed under assumptions.");
    line.getStyleClass().add("sheet-line");
    TextArea text = new TextArea(model.ladderJson());
    text.setId("ladder-json");
    text.setAccessibleText("power ladder as JSON");
    VBox.setVgrow(text, Priority.ALWAYS);
    Label wrong = new Label();
    wrong.setId("ladder-wrong");
    wrong.getStyleClass().add("problem");
    wrong.setWrapText(true);
    Button keep = new Button("Keep this ladder");
    keep.setId("ladder-keep");
    keep.getStyleClass().add("main");
    keep.setOnAction(_ ->
        model.keepLadder(
            text.getText(),
            why -> {
              wrong.setText(why);
              if (why.isEmpty()) {
                close.run();
              }
            }));
    Button leave = new Button("Leave it as it was");
    leave.setCancelButton(true);
    leave.setOnAction(_ -> close.run());
    setSpacing(10);
    getChildren().addAll(head, line, text, wrong, new HBox(12, keep, leave));
  }
}
