package ell.desk.shell;

import java.util.List;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import javafx.application.Platform;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/// One more line of what a maker says of a revision: what was said so far stands above it, examples
/// below. A line that cannot be understood stays, with the reason.
public final class SayEditor extends VBox {
  /// What is asked.
  ///
  /// @param id of the nodes: `ID-editor`, `ID-said`, `ID-line`, `ID-wrong`
  /// @param head what it is about
  /// @param said so far, a line each
  /// @param ask above the line
  /// @param begun what stands in the line at first
  /// @param examples lines that could be said
  public record Asks(
      String id, String head, List<String> said, String ask, String begun, List<String> examples) {}

  /// An editor.
  ///
  /// @param say takes a line, then tells why it could not be taken, or nothing
  /// @param close takes the editor away
  public SayEditor(Asks asks, BiConsumer<String, Consumer<String>> say, Runnable close) {
    getStyleClass().addAll("overlay", "ladder-editor");
    setId(asks.id() + "-editor");
    Label head = new Label(asks.head());
    head.getStyleClass().add("sheet-title");
    VBox said = new VBox(3);
    said.setId(asks.id() + "-said");
    (asks.said().isEmpty() ? List.of("nothing was said yet") : asks.said())
        .forEach(l -> said.getChildren().add(line(l)));
    ScrollPane list = new ScrollPane(said);
    list.setFitToWidth(true);
    list.setMaxHeight(200);
    list.setMinHeight(40);
    TextField answer = new TextField(asks.begun());
    answer.setId(asks.id() + "-line");
    answer.setAccessibleText(asks.ask());
    Label ask = new Label(asks.ask());
    ask.setLabelFor(answer);
    ask.getStyleClass().add("sheet-line");
    VBox examples = new VBox(2);
    asks.examples().forEach(e -> examples.getChildren().add(line(e)));
    Label wrong = new Label();
    wrong.setId(asks.id() + "-wrong");
    wrong.getStyleClass().add("problem");
    wrong.setWrapText(true);
    answer.setOnAction(_ -> {
      if (!answer.getText().isBlank()) {
        say.accept(
            answer.getText().strip(),
            why -> {
              wrong.setText(why);
              if (why.isEmpty()) {
                close.run();
              }
            });
      }
    });
    Button leave = new Button("Leave it as it was");
    leave.setCancelButton(true);
    leave.setOnAction(_ -> close.run());
    setSpacing(10);
    getChildren().addAll(head, list, ask, answer, examples, wrong, new HBox(12, leave));
    answer
        .focusedProperty()
        .addListener((_, _, now) -> {
          if (now) {
            // what is there already stays when somebody types on
            Platform.runLater(() -> {
              answer.deselect();
              answer.end();
            });
          }
        });
    Platform.runLater(answer::requestFocus);
  }

  private static Label line(String text) {
    Label l = new Label(text);
    l.getStyleClass().add("sheet-line");
    l.setWrapText(true);
    return l;
  }
}
