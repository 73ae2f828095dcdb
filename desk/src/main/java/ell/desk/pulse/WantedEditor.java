package ell.desk.pulse;

import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/// What should be seen at a place, put right in a line: what was said so far stands above it.
final class WantedEditor extends VBox {
  WantedEditor(PulseModel model, Runnable close) {
    getStyleClass().addAll("overlay", "ladder-editor");
    setId("wanted-editor");
    Label head = new Label("What should be seen on the lines of this revision");
    head.getStyleClass().add("sheet-title");
    VBox said = new VBox(3);
    said.setId("wanted-said");
    List<String> lines = model.said();
    (lines.isEmpty() ? List.of("nothing was said yet") : lines)
        .forEach(l -> said.getChildren().add(line(l)));
    ScrollPane list = new ScrollPane(said);
    list.setFitToWidth(true);
    list.setMaxHeight(200);
    list.setMinHeight(40);
    TextField answer =
        new TextField(model.placeInHand().isEmpty() ? "" : model.placeInHand() + " ");
    answer.setId("wanted-line");
    answer.setAccessibleText("one place and what should be there");
    Label ask = new Label("One place, then what should be there, and Enter:");
    ask.setLabelFor(answer);
    ask.getStyleClass().add("sheet-line");
    VBox examples = new VBox(2);
    for (String e :
        List.of(
            "CLK clock=2MHz within=100ppm family=cmos3.3",
            "CLK rise=..5ns overshoot=..0.2",
            "CLK from=U1.3 driver=25ohm edge=3ns length=0.48m z0=120ohm velocity=0.61",
            "signature U1.7 period=45us..55us bad: restarts, alive, no program",
            "stack height=0.2mm er=4.3",
            "CLK none",
            "families: " + String.join(", ", model.families()))) {
      examples.getChildren().add(line(e));
    }
    Label wrong = new Label();
    wrong.setId("wanted-wrong");
    wrong.getStyleClass().add("problem");
    wrong.setWrapText(true);
    answer.setOnAction(_ -> {
      if (!answer.getText().isBlank()) {
        model.say(
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
            javafx.application.Platform.runLater(() -> {
              answer.deselect();
              answer.end();
            });
          }
        });
    javafx.application.Platform.runLater(answer::requestFocus);
  }

  private static Label line(String text) {
    Label l = new Label(text);
    l.getStyleClass().add("sheet-line");
    l.setWrapText(true);
    return l;
  }
}
