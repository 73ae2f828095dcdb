package ell.desk.window;

import ell.core.rack.Stage;
import ell.desk.key.Command;
import ell.desk.word.Glass;
import ell.work.tape.Verb;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
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
      what.setWrapText(true);
      key.setMinWidth(USE_PREF_SIZE);
      g.addRow(g.getRowCount(), key, what);
    }
    HBox columns = new HBox(36);
    for (VBox column : columns(groups.values())) {
      HBox.setHgrow(column, Priority.ALWAYS);
      columns.getChildren().add(column);
    }
    Label tape =
        line("On the tape: " + String.join(" · ", verbs.stream().map(Verb::grammar).toList()));
    Glass.leave(tape); // what is typed is the same in every language
    ScrollPane scroll = new ScrollPane(new VBox(18, columns, tape));
    scroll.setId("key-scroll");
    scroll.setFitToWidth(true);
    scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    scroll.setMinHeight(0);
    focusedProperty()
        .addListener((_, _, yes) -> {
          if (yes) {
            scroll.requestFocus(); // so that arrows and pages move it
          }
        });
    VBox.setVgrow(scroll, Priority.ALWAYS);
    Label foot = line("Tab completes, Enter logs, Esc leaves. Help on what is selected: Ctrl+F1.");
    setSpacing(16);
    setMaxHeight(USE_PREF_SIZE);
    getChildren().addAll(head, scroll, foot);
  }

  private static Label line(String words) {
    Label l = new Label(words);
    l.setWrapText(true);
    l.setMinHeight(USE_PREF_SIZE);
    l.getStyleClass().add("note-line");
    return l;
  }

  /// Two columns of about the same height, the groups in their order.
  private static List<VBox> columns(Collection<GridPane> groups) {
    List<VBox> both = List.of(new VBox(18), new VBox(18));
    int[] rows = new int[2];
    for (GridPane g : groups) {
      int to = rows[0] <= rows[1] ? 0 : 1;
      rows[to] += g.getRowCount() + 1;
      both.get(to).getChildren().add(g);
    }
    both.forEach(c -> c.setPrefWidth(440));
    return both;
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
