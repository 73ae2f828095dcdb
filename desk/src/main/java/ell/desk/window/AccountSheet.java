package ell.desk.window;

import ell.core.rack.Standing.Mark;
import ell.desk.mark.MarkDot;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Importing;
import ell.files.Account;
import ell.files.Guess;
import ell.work.bring.BodyGuess;
import ell.work.bring.FileAccount;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.OverrunStyle;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/// What the files of a revision said and did not say, after they were taken in: found, guessed, to
/// be minded, passed over. A guess that can be answered is answered here.
final class AccountSheet extends VBox {
  private final DeskModel desk;
  private final Importing.Report report;
  private final VBox rows = new VBox(4);

  /// A sheet over a report.
  AccountSheet(DeskModel desk, Importing.Report report) {
    this.desk = desk;
    this.report = report;
    getStyleClass().addAll("overlay", "account-sheet");
    setId("account-sheet");
    setAccessibleText("what the files said");
    Label head =
        new Label(report.design() + " rev " + report.revision() + " · what the files said");
    head.getStyleClass().add("sheet-title");
    head.setTextOverrun(OverrunStyle.CENTER_ELLIPSIS);
    for (FileAccount f : report.files()) {
      file(f);
    }
    ScrollPane scroll = new ScrollPane(rows);
    scroll.setFitToWidth(true);
    scroll.setMinHeight(0);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    Label foot =
        new Label(
            "Guessed heights are put right here: type millimetres, Enter keeps it. Esc closes, Shift+I shows this again.");
    foot.setWrapText(true);
    foot.setMinHeight(USE_PREF_SIZE);
    foot.getStyleClass().add("note-line");
    setSpacing(14);
    setMaxHeight(USE_PREF_SIZE);
    getChildren().addAll(head, scroll, foot);
  }

  private void file(FileAccount f) {
    Label name = new Label(f.file() + (f.kind().isEmpty() ? "" : " · " + f.kind()));
    name.getStyleClass().add("small-head");
    rows.getChildren().add(name);
    Account a = f.account();
    a.found().forEach(x -> row(Mark.WITHIN, "found", x));
    a.guesses().forEach(this::guess);
    Account.grouped(a.warnings()).forEach(g -> row(Mark.CLOSE, "mind", g.toString()));
    a.grouped().forEach(g -> row(Mark.NOT_YET, "passed over", g.toString()));
  }

  private HBox row(Mark mark, String kind, String words, Node... more) {
    MarkDot dot = new MarkDot();
    dot.nightProperty().bind(desk.nightProperty());
    dot.show(mark);
    dot.setAccessibleText(kind);
    Label l = new Label(words);
    l.setWrapText(true);
    l.setMinHeight(USE_PREF_SIZE);
    HBox.setHgrow(l, Priority.ALWAYS);
    l.setMaxWidth(Double.MAX_VALUE);
    HBox box = new HBox(10, dot, l);
    box.setAlignment(Pos.CENTER_LEFT);
    box.getChildren().addAll(more);
    box.setAccessibleText(kind + ": " + words);
    rows.getChildren().add(box);
    return box;
  }

  private void guess(Guess g) {
    Optional<String> packageName = BodyGuess.packageOf(g);
    if (packageName.isEmpty()) {
      row(Mark.CLOSE, "guessed", g.words());
      return;
    }
    TextField height = new TextField();
    height.setPromptText("height, mm");
    height.setPrefColumnCount(7);
    height.setMinWidth(USE_PREF_SIZE);
    height.setAccessibleText("height of " + packageName.get() + " in millimetre");
    height.getStyleClass().add("answer");
    HBox box = row(Mark.CLOSE, "guessed", g.what() + ": " + g.taken(), height);
    height.setOnAction(_ ->
        desk.importing()
            .stands(
                report,
                packageName.get(),
                height.getText().strip(),
                () -> {
                  ((MarkDot) box.getChildren().getFirst()).show(Mark.WITHIN);
                  String said = height.getText().strip();
                  boolean bare = Character.isDigit(said.charAt(said.length() - 1));
                  ((Label) box.getChildren().get(1))
                      .setText(
                          packageName.get()
                              + " stands "
                              + said
                              + (bare ? " mm" : "")
                              + " tall, as you say");
                }));
  }
}
