package ell.desk.practice;

import java.util.Locale;
import javafx.beans.value.ChangeListener;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/// How the practice goes: what is known, what was measured, and when it is over, what each
/// measurement told and what would have told more.
public final class PracticeSheet extends VBox {
  private final Label title = new Label("Practice");
  private final Label words = line();
  private final Label state = line();
  private final Label best = line();
  private final GridPane looks = new GridPane();
  private final GridPane steps = new GridPane();
  private final Label foot = line();
  private final VBox remarks = new VBox(3);
  private final Button giveUp = new Button("Give up, and be told");

  /// A sheet over a model.
  public PracticeSheet(PracticeModel model) {
    getStyleClass().addAll("overlay", "practice-sheet");
    setId("practice-sheet");
    setAccessibleText("how the practice goes");
    title.getStyleClass().add("sheet-title");
    state.setId("practice-state");
    best.setId("practice-best");
    for (GridPane g : new GridPane[] {looks, steps}) {
      g.setHgap(18);
      g.setVgap(3);
    }
    giveUp.setId("give-up");
    giveUp.setOnAction(_ -> {
      state.setText("weighing what was measured …");
      model.giveUp();
    });
    ScrollPane scroll = new ScrollPane(new VBox(12, looks, best, steps, remarks));
    scroll.setFitToWidth(true);
    scroll.setMinHeight(0);
    scroll.setFocusTraversable(false);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    setSpacing(12);
    setMaxHeight(USE_PREF_SIZE);
    getChildren().addAll(title, words, state, scroll, giveUp, foot);
    ChangeListener<Object> shown = (_, _, _) -> show(model);
    model.toldProperty().addListener(shown);
    sceneProperty()
        .addListener((_, _, s) -> {
          if (s == null) {
            model.toldProperty().removeListener(shown);
          }
        });
    giveUp.setVisible(false); // until it is known that it is not over
    state.setText("weighing what was measured …");
    model.look();
  }

  private static Label line() {
    Label l = new Label();
    l.setWrapText(true);
    l.setMinHeight(USE_PREF_SIZE);
    l.getStyleClass().add("sheet-line");
    return l;
  }

  private void show(PracticeModel model) {
    model.toldProperty().get().ifPresent(this::show);
  }

  private void show(PracticeModel.Told t) {
    title.setText(t.title());
    words.setText(t.words());
    state.setText(t.state());
    best.setText(t.best());
    giveUp.setVisible(!t.over());
    giveUp.setManaged(!t.over());
    foot.setText(
        t.over() ? "Esc closes." : "Say what it is on the tape: found open PART.PIN. Esc closes.");
    steps.getChildren().clear();
    for (PracticeModel.Row r : t.steps()) {
      steps.addRow(
          steps.getRowCount(),
          cell(r.words()),
          cell(r.better()),
          cell(String.format(Locale.ROOT, "%.1f min", r.minutes())),
          cell(String.format(Locale.ROOT, "%+.2f bit", r.bits())));
    }
    looks.getChildren().clear();
    if (!t.looks().isEmpty()) {
      looks.addRow(
          0,
          head("entry"),
          head("measured"),
          head("minutes"),
          head(t.over() ? "told" : ""),
          head(t.over() ? "would have told most" : ""));
    }
    for (PracticeModel.Row r : t.looks()) {
      looks.addRow(
          looks.getRowCount(),
          cell(String.valueOf(r.entry())),
          cell(r.words()),
          cell(String.format(Locale.ROOT, "%.1f", r.minutes())),
          cell(Double.isNaN(r.bits()) ? "" : String.format(Locale.ROOT, "%+.2f bit", r.bits())),
          cell(r.better()));
    }
    remarks.getChildren().clear();
    for (String s : t.remarks()) {
      Label l = line();
      l.setText(s);
      remarks.getChildren().add(l);
    }
  }

  private static Label head(String words) {
    Label l = new Label(words);
    l.getStyleClass().add("small-head");
    return l;
  }

  private static Label cell(String words) {
    Label l = new Label(words);
    l.getStyleClass().add("sheet-line");
    return l;
  }
}
