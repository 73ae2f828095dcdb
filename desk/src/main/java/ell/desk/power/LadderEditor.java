package ell.desk.power;

import ell.core.power.LadderSaid;
import java.util.Arrays;
import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/// The power ladder, to be corrected by the maker: one thing at a time in a line, with what is
/// taken for granted above it, or the whole of it as JSON.
final class LadderEditor extends VBox {
  LadderEditor(PowerModel model, Runnable close) {
    getStyleClass().addAll("overlay", "ladder-editor");
    setId("ladder-editor");
    Label head = new Label("Power ladder");
    head.getStyleClass().add("sheet-title");
    VBox granted = new VBox(3);
    granted.setId("ladder-granted");
    fill(granted, model);
    ScrollPane list = new ScrollPane(granted);
    list.setFitToWidth(true);
    list.setMaxHeight(150);
    list.setMinHeight(40);
    TextField answer = new TextField();
    answer.setId("ladder-answer");
    answer.setAccessibleText("one thing about the ladder");
    answer.setPromptText(
        String.join(
            "   ",
            Arrays.stream(LadderSaid.About.values())
                .map(a -> a.word() + " " + a.example())
                .toList()));
    Label said = new Label("Put one thing right and press Enter:");
    said.setLabelFor(answer);
    said.getStyleClass().add("sheet-line");
    Label line = new Label("Or all of it, in SI units:");
    line.getStyleClass().add("sheet-line");
    TextArea text = new TextArea(model.ladderJson());
    text.setId("ladder-json");
    text.setAccessibleText("power ladder as JSON");
    VBox.setVgrow(text, Priority.ALWAYS);
    Label wrong = new Label();
    wrong.setId("ladder-wrong");
    wrong.getStyleClass().add("problem");
    wrong.setWrapText(true);
    answer.setOnAction(_ -> {
      if (!answer.getText().isBlank()) {
        model.say(
            answer.getText().strip(),
            why -> {
              wrong.setText(why);
              if (why.isEmpty()) {
                answer.clear();
                close.run();
              }
            });
      }
    });
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
    getChildren().addAll(head, list, said, answer, line, text, wrong, new HBox(12, keep, leave));
  }

  private static void fill(VBox granted, PowerModel model) {
    List<String> all = model.assumptions();
    if (all.isEmpty()) {
      granted.getChildren().add(line("nothing is taken for granted"));
    }
    all.forEach(a -> granted.getChildren().add(line("? " + a)));
  }

  private static Label line(String text) {
    Label l = new Label(text);
    l.getStyleClass().add("sheet-line");
    l.setWrapText(true);
    return l;
  }
}
