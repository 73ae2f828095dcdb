package ell.desk.shell;

import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.quantity.Verdict;
import ell.desk.mark.Hairline;
import ell.desk.mark.Ink;
import ell.desk.mark.Picture;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Label;
import javafx.scene.control.OverrunStyle;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/// The tape, bottom: the book of the board in hand as it runs, and the line to type into.
public final class TapePane extends VBox {
  private static final int LINES = 4;
  private static final DateTimeFormatter TIME =
      DateTimeFormatter.ofPattern("dd MMM HH:mm:ss", Locale.ENGLISH);

  private final VBox lines = new VBox(2);
  private final TextField field = new TextField();

  /// A tape for a desk.
  ///
  /// @param keys what the keys do now, in words
  public TapePane(DeskModel desk, Label keys) {
    getStyleClass().add("tape");
    Holes holes = new Holes();
    holes.nightProperty().bind(desk.nightProperty());
    lines.getStyleClass().add("tape-lines");
    lines.setMinWidth(0);
    HBox.setHgrow(lines, Priority.ALWAYS);
    Label head = new Label("Tape");
    head.getStyleClass().add("small-head");
    head.setMinWidth(Region.USE_PREF_SIZE);
    Label how = new Label("/ to type · a place, and what was seen there");
    how.getStyleClass().add("sheet-line");
    how.setMinWidth(0);
    Region gap = new Region();
    HBox.setHgrow(gap, Priority.ALWAYS);
    keys.getStyleClass().addAll("sheet-line", "keys-line");
    keys.setTextOverrun(OverrunStyle.ELLIPSIS);
    keys.setMinWidth(0);
    keys.setWrapText(true);
    keys.setMinHeight(Region.USE_PREF_SIZE);
    HBox top = new HBox(12, head, how, gap);
    top.setAlignment(Pos.BASELINE_LEFT);
    TapeModel tape = desk.tape();
    field.setId("tape");
    field.setAccessibleText("tape: a place and what was seen there");
    field.setPromptText("3V3 3.287");
    field.textProperty().bindBidirectional(tape.textProperty());
    Label hint = new Label();
    hint.setId("tape-hint");
    hint.getStyleClass().add("tape-hint");
    hint.setText(tape.hintProperty().get());
    tape.hintProperty().addListener((_, _, h) -> hint.setText(h));
    tape.wrongProperty().addListener((_, _, wrong) -> flag(hint, "wrong", wrong));
    tape.readyProperty().addListener((_, _, ready) -> flag(hint, "ready", ready));
    Label notice = new Label();
    notice.setId("notice");
    notice.getStyleClass().add("notice");
    notice.setText(desk.noticeProperty().get());
    desk.noticeProperty().addListener((_, _, n) -> notice.setText(n));
    HBox under = new HBox(hint, new Region(), notice);
    HBox.setHgrow(under.getChildren().get(1), Priority.ALWAYS);
    notice.visibleProperty().bind(tape.textProperty().isEmpty());
    notice.managedProperty().bind(notice.visibleProperty());
    hint.visibleProperty().bind(tape.textProperty().isNotEmpty());
    hint.managedProperty().bind(hint.visibleProperty());
    VBox right = new VBox(2, top, field, under, keys);
    right.setMinWidth(430);
    right.setPrefWidth(620);
    HBox row = new HBox(20, lines, right);
    row.getStyleClass().add("tape-row");
    getChildren().addAll(holes, row);
    field.addEventFilter(KeyEvent.KEY_PRESSED, e -> pressed(tape, e));
    tape.focusAskedProperty()
        .addListener((_, _, _) -> {
          field.requestFocus();
          field.end();
        });
    desk.snapshotProperty().addListener((_, _, s) -> fill(s));
    fill(desk.snapshotProperty().get());
  }

  private static void flag(Node n, String style, boolean on) {
    n.getStyleClass().remove(style);
    if (on) {
      n.getStyleClass().add(style);
    }
  }

  private void pressed(TapeModel tape, KeyEvent e) {
    if (e.getCode() == KeyCode.ENTER) {
      tape.enter();
      e.consume();
    } else if (e.getCode() == KeyCode.TAB
        && !e.isShiftDown()
        && !tape.textProperty().get().isEmpty()) {
      tape.complete();
      field.end();
      e.consume();
    } else if (e.getCode() == KeyCode.ESCAPE) {
      tape.leave();
      e.consume();
    }
  }

  private void fill(Snapshot s) {
    lines.getChildren().clear();
    if (s.bench().isEmpty()) {
      return;
    }
    Snapshot.Work w = s.bench().get();
    List<Logged> log = w.log();
    Set<Long> struck = w.state().struck();
    for (Logged l : log.subList(Math.max(0, log.size() - LINES), log.size())) {
      Label at = new Label(l.at().format(TIME));
      at.getStyleClass().add("tape-time");
      at.setMinWidth(Region.USE_PREF_SIZE);
      Label number = new Label(String.valueOf(l.number()));
      number.getStyleClass().add("tape-number");
      number.setMinWidth(38);
      boolean gone = struck.contains(l.number());
      Label words = new Label((gone ? "struck: " : "") + EntryWords.of(l.entry()));
      words.getStyleClass().add("tape-words");
      words.setTextOverrun(OverrunStyle.ELLIPSIS);
      words.setMinWidth(0);
      if (gone) {
        words.getStyleClass().add("struck");
      } else {
        verdict(l.entry()).ifPresent(v -> words.getStyleClass().add(v.key()));
      }
      HBox line = new HBox(12, at, number, words);
      HBox.setHgrow(words, Priority.ALWAYS);
      lines.getChildren().add(line);
    }
    if (log.isEmpty()) {
      Label none = new Label("nothing in the book for board " + w.board() + " yet");
      none.getStyleClass().add("sheet-line");
      lines.getChildren().add(none);
    }
  }

  private static Optional<Verdict> verdict(Entry e) {
    return switch (e) {
      case Entry.Reading r -> r.verdict();
      case Entry.Check c -> Optional.of(c.verdict());
      case Entry.Supply x -> x.verdict();
      case Entry.Defect _ -> Optional.of(Verdict.OUT);
      default -> Optional.empty();
    };
  }

  /// The holes along the tape's edge.
  private static final class Holes extends Picture {
    Holes() {
      super("");
      setMinHeight(12);
      setPrefHeight(12);
      setMaxHeight(12);
    }

    @Override
    protected void draw(GraphicsContext g, double w, double h) {
      Ink ink = ink();
      Hairline.level(g, ink.ink2(), 0, w, 0.5, 1);
      g.setFill(ink.hair());
      for (double x = 10; x < w; x += 28) {
        g.fillRect(x, 4, 5, 4);
      }
    }
  }
}
