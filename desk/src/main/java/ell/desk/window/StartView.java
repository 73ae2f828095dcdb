package ell.desk.window;

import ell.desk.shell.Heads;
import javafx.beans.value.ObservableBooleanValue;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/// What is shown when no workspace is open.
public final class StartView extends VBox {
  /// A view with its acts.
  ///
  /// @param night whether the night palette is on
  public StartView(
      Runnable make, Runnable open, Runnable server, Runnable demo, ObservableBooleanValue night) {
    getStyleClass().addAll("stage", "setup");
    setId("start");
    Heads heads = new Heads();
    heads.show(
        "No workspace is open",
        "A workspace is one file, or a database that several benches share. It keeps your designs, revisions, builds, the shelf, and the book of every board.");
    Button first = button("new-workspace", "New workspace…", make);
    first.getStyleClass().add("main");
    FlowPane acts = new FlowPane(12, 8);
    acts.getChildren()
        .addAll(
            first,
            button("open-workspace", "Open a workspace…", open),
            button("open-server", "One on a server…", server),
            button("open-demo", "Look at the demo · Shift+D", demo));
    Label then =
        new Label(
            "Then drop the files of a fabricated revision into this window. Ell tells them apart by what is in them.");
    then.setWrapText(true);
    then.setMinHeight(USE_PREF_SIZE);
    then.getStyleClass().add("sheet-line");
    DropPicture drop = new DropPicture();
    drop.nightProperty().bind(night);
    VBox.setVgrow(drop, Priority.SOMETIMES);
    drop.setMaxHeight(330);
    setSpacing(18);
    getChildren().addAll(heads, acts, then, drop);
  }

  private static Button button(String id, String words, Runnable act) {
    Button b = new Button(words);
    b.setId(id);
    b.setOnAction(_ -> act.run());
    return b;
  }
}
