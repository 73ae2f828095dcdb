package ell.desk.window;

import ell.core.rack.Stage;
import ell.desk.key.Command;
import ell.work.tape.Verb;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javafx.geometry.Orientation;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/// The sheet of the keys that serve at a stage and everywhere, made from the commands.
final class KeySheet extends VBox {
  /// @param at the stage whose keys are shown; those of the others stand on their own sheets
  /// @param verbs of the tape
  /// @param stages all of them
  KeySheet(List<Command> commands, List<Verb> verbs, Stage at, List<Stage> stages) {
    getStyleClass().addAll("overlay", "key-sheet");
    setId("key-sheet");
    setAccessibleText("all keys");
    Label head = new Label("Keys · " + at.title());
    head.getStyleClass().add("sheet-title");
    Map<String, GridPane> groups = new LinkedHashMap<>();
    List<String> elsewhere = stages.stream().filter(s -> !s.equals(at)).map(Stage::title).toList();
    for (Command c : commands) {
      if (elsewhere.contains(c.group())) {
        continue;
      }
      GridPane g = groups.computeIfAbsent(c.group(), KeySheet::group);
      Label key = new Label(c.keyText());
      key.getStyleClass().add("key");
      String words = c.words().get();
      Label what =
          new Label(words.isEmpty() ? "what the stage is at: done, measure, switch on" : words);
      what.getStyleClass().add("note-line");
      g.addRow(g.getRowCount(), key, what);
    }
    FlowPane columns = new FlowPane(Orientation.VERTICAL, 36, 18);
    columns.setPrefWrapLength(470);
    columns.getChildren().addAll(groups.values());
    ScrollPane scroll = new ScrollPane(columns);
    scroll.setFitToWidth(true);
    scroll.setMinHeight(0);
    scroll.setFocusTraversable(false);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    Label tape =
        new Label(
            "On the tape: "
                + String.join(" · ", verbs.stream().map(Verb::grammar).toList())
                + ". Tab completes, Enter logs, Esc leaves. Help on what is selected: Ctrl+F1.");
    tape.setWrapText(true);
    tape.setMinHeight(USE_PREF_SIZE);
    tape.getStyleClass().add("note-line");
    setSpacing(16);
    setMaxHeight(USE_PREF_SIZE);
    getChildren().addAll(head, scroll, tape);
  }

  private static GridPane group(String name) {
    GridPane g = new GridPane();
    g.setHgap(14);
    g.setVgap(4);
    Label head = new Label(name);
    head.getStyleClass().add("small-head");
    g.add(head, 0, 0, 2, 1);
    return g;
  }
}
