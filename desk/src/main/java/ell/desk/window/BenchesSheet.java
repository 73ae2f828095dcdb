package ell.desk.window;

import ell.desk.shell.Benches;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Sharing;
import javafx.beans.value.ChangeListener;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/// The benches that share the workspace: which board is where, what waits here, and how to settle
/// it. What is said goes into the book of the board.
final class BenchesSheet extends VBox {
  private final DeskModel desk;
  private final Label state = new Label();
  private final GridPane held = new GridPane();
  private final GridPane waits = new GridPane();
  private final Label waitsHead = head("Waits here");
  private final TextField why = new TextField();
  private final TextField to = new TextField();
  private final HBox words = new HBox(10);
  private final FlowPane acts = new FlowPane(10, 8);

  /// A sheet over a desk whose workspace is shared.
  BenchesSheet(DeskModel desk) {
    this.desk = desk;
    getStyleClass().addAll("overlay", "benches-sheet");
    setId("benches-sheet");
    setAccessibleText("the benches that share this workspace");
    Label title = new Label("Several benches");
    title.getStyleClass().add("sheet-title");
    state.setWrapText(true);
    state.setMinHeight(USE_PREF_SIZE);
    state.setId("benches-state");
    state.getStyleClass().add("sheet-line");
    for (GridPane g : new GridPane[] {held, waits}) {
      g.setHgap(18);
      g.setVgap(4);
    }
    why.setId("why");
    why.setPromptText("why; it goes into the book");
    why.setAccessibleText("why");
    HBox.setHgrow(why, Priority.ALWAYS);
    to.setId("to-bench");
    to.setPromptText("bench");
    to.setAccessibleText("the bench that it is handed over to");
    to.setPrefColumnCount(10);
    Label whyLabel = new Label("why");
    whyLabel.setLabelFor(why);
    words.getChildren().addAll(whyLabel, why);
    words.setAlignment(Pos.CENTER_LEFT);
    VBox inner = new VBox(8, head("In hand"), held, waitsHead, waits);
    ScrollPane scroll = new ScrollPane(inner);
    scroll.setFitToWidth(true);
    scroll.setMinHeight(0);
    scroll.setFocusTraversable(false);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    acts.setAlignment(Pos.CENTER_LEFT);
    setSpacing(14);
    setMaxHeight(USE_PREF_SIZE);
    getChildren().addAll(title, state, scroll, words, acts);
    ChangeListener<Object> again = (_, _, _) -> fill();
    desk.snapshotProperty().addListener(again);
    sceneProperty()
        .addListener((_, _, s) -> {
          if (s == null) {
            desk.snapshotProperty().removeListener(again);
          }
        });
    fill();
  }

  private static Label head(String words) {
    Label l = new Label(words);
    l.getStyleClass().add("small-head");
    return l;
  }

  private void fill() {
    Benches b = desk.snapshotProperty().get().benches().orElse(null);
    if (b == null) {
      return;
    }
    String board = desk.navigation().boardProperty().get();
    state.setText(
        "This is bench "
            + b.bench()
            + " of "
            + b.place()
            + (b.role().isEmpty() ? ". " : ", and you are its " + b.role() + ". ")
            + (b.since().isEmpty()
                ? "The server answers; what others write appears here by itself."
                : "The server does not answer since "
                    + b.since()
                    + ": you go on with what this bench has seen, and what you log waits here."));
    held.getChildren().clear();
    if (b.held().isEmpty()) {
      held.addRow(
          0,
          line(
              b.since().isEmpty()
                  ? "No board is in hand. Who writes on one has it for a quarter of an hour."
                  : "Not known while the server does not answer."));
    }
    for (Benches.Held h : b.held()) {
      Label serial = serial(h.board());
      held.addRow(
          held.getRowCount(),
          serial,
          line(h.bench().equals(b.bench()) ? "here" : "at " + h.bench()),
          line(h.person()),
          line("until " + h.until()),
          line(h.words()));
    }
    waits.getChildren().clear();
    for (Node n : new Node[] {waitsHead, waits}) {
      n.setVisible(!b.waits().isEmpty());
      n.setManaged(!b.waits().isEmpty());
    }
    for (Benches.Waits w : b.waits()) {
      Label serial = serial(w.board().isEmpty() ? "no board" : w.board());
      Label what = line(w.words());
      Label against = line(w.conflict().isEmpty() ? "for the server" : w.conflict());
      if (!w.conflict().isEmpty()) {
        against.getStyleClass().add("problem");
      }
      waits.addRow(waits.getRowCount(), serial, what, against);
    }
    acts(b, board);
  }

  private static Label serial(String words) {
    Label l = new Label(words);
    l.setMinWidth(USE_PREF_SIZE);
    l.getStyleClass().add("serial");
    return l;
  }

  private static Label line(String words) {
    Label l = new Label(words);
    l.getStyleClass().add("sheet-line");
    l.setWrapText(true);
    return l;
  }

  private void acts(Benches b, String board) {
    acts.getChildren().clear();
    boolean any = !board.isEmpty() && b.since().isEmpty();
    words.setVisible(any);
    words.setManaged(any);
    Sharing s = desk.sharing();
    boolean conflict =
        b.waits().stream().anyMatch(w -> w.board().equals(board) && !w.conflict().isEmpty());
    if (any) {
      boolean here =
          b.held().stream().anyMatch(h -> h.board().equals(board) && h.bench().equals(b.bench()));
      if (conflict) {
        acts.getChildren()
            .addAll(
                button(
                    "keep-mine",
                    "Keep mine of " + board + ", behind theirs",
                    () -> s.keep(board, why.getText())),
                button(
                    "lay-aside",
                    "Lay mine of " + board + " aside",
                    () -> s.layAside(board, why.getText())));
      }
      acts.getChildren()
          .add(
              here
                  ? button("lay-down", "Lay " + board + " down", () -> s.layDown(board))
                  : button(
                      "take", "Take " + board + " in hand", () -> s.take(board, why.getText())));
      acts.getChildren()
          .addAll(
              button(
                  "hand-over",
                  "Hand " + board + " over to",
                  () -> s.handOver(board, to.getText().strip(), why.getText())),
              to);
    }
    Label foot = new Label("Tab walks, Space does it, Esc closes.");
    foot.getStyleClass().add("note-line");
    acts.getChildren().add(foot);
  }

  private static Button button(String id, String words, Runnable act) {
    Button b = new Button(words);
    b.setId(id);
    b.setOnAction(_ -> act.run());
    return b;
  }
}
