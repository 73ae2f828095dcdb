package ell.desk.shell;

import ell.core.rack.Stage;
import ell.core.sheet.Worked;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.beans.value.ChangeListener;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/// The margin, right: the worked sheet of what is selected, cautions, where to look. The one place
/// that shows worked sheets on screen.
public final class MarginPane extends ScrollPane {
  private final VBox content = new VBox(6);
  private StageModel following;
  private String standing = "";
  private final ChangeListener<Margin> listener = (_, _, m) -> fill(m);

  /// A margin for a desk.
  public MarginPane(DeskModel desk) {
    getStyleClass().add("margin");
    setId("margin");
    setAccessibleText("why: the worked sheet and notes on what is selected");
    setFitToWidth(true);
    setHbarPolicy(ScrollBarPolicy.NEVER);
    content.getStyleClass().add("margin-content");
    setContent(content);
    desk.navigation().stageProperty().addListener((_, _, _) -> follow(desk));
    desk.snapshotProperty().addListener((_, _, _) -> follow(desk));
    desk.busyProperty()
        .addListener((_, _, _) -> {
          if (following == null) {
            follow(desk);
          }
        });
    follow(desk);
  }

  private void follow(DeskModel desk) {
    StageModel now = desk.current().orElse(null);
    if (now != following) {
      if (following != null) {
        following.marginProperty().removeListener(listener);
      }
      following = now;
      if (now != null) {
        now.marginProperty().addListener(listener);
      }
    }
    standing =
        desk.work()
            .map(w -> "board " + w.board() + " · " + w.standings().get(w.board()).phrase())
            .orElse("");
    fill(now == null ? empty(desk) : now.marginProperty().get());
  }

  private static Margin empty(DeskModel desk) {
    return desk.busyProperty().get().isEmpty() ? questions(desk) : Margin.EMPTY;
  }

  /// With no board in hand the margin says what there is to be answered, stage by stage.
  private static Margin questions(DeskModel desk) {
    List<Margin.Note> notes = new ArrayList<>();
    notes.add(
        Margin.Note.plain(
            "What Ell answers",
            List.of("One stage after the other, in the order of the work; Ctrl+Right walks on.")));
    for (Stage s : desk.navigation().stages()) {
      notes.add(
          Margin.Note.plain(
              s.title() + (desk.navigation().isBuilt(s) ? "" : " · to come"),
              List.of(s.question())));
    }
    return new Margin(Optional.empty(), notes);
  }

  private void fill(Margin m) {
    content.getChildren().clear();
    if (!standing.isEmpty()) {
      // whole, for the slat on the rack may be too narrow for it
      content.getChildren().add(label(standing, "sheet-line"));
    }
    // cautions stand before everything else: they belong to the step
    m.notes().stream().filter(n -> n.kind() == Margin.Kind.CARE).forEach(this::note);
    m.sheet().ifPresent(this::sheet);
    m.notes().stream().filter(n -> n.kind() != Margin.Kind.CARE).forEach(this::note);
  }

  private void sheet(Worked w) {
    content.getChildren().add(label(w.title(), "margin-head"));
    for (Worked.Line l : w.lines()) {
      Label value = label(l.symbol() + " = " + l.display(), "sheet-value");
      if (l.symbol().matches(".*[\\[\\]()].*")) {
        value.getStyleClass().add("bracketed");
      }
      content.getChildren().add(new VBox(value, label(l.formula(), "sheet-formula")));
    }
    w.verdict()
        .ifPresent(v -> {
          Label words = label("verdict: " + v.words(), "sheet-value");
          words.getStyleClass().add(v.key());
          content.getChildren().add(words);
        });
    if (!w.assumptions().isEmpty()) {
      content
          .getChildren()
          .add(label("assumed: " + String.join("; ", w.assumptions()), "sheet-source"));
    }
    if (!w.sources().isEmpty()) {
      content.getChildren().add(label("source: " + String.join("; ", w.sources()), "sheet-source"));
    }
    w.cautions().forEach(c -> content.getChildren().add(label(c, "sheet-source")));
    content.getChildren().add(line());
  }

  private void note(Margin.Note n) {
    VBox box = new VBox(3);
    box.getStyleClass().add(n.kind() == Margin.Kind.CARE ? "care" : "note");
    Label head = label((n.kind() == Margin.Kind.CARE ? "△ " : "") + n.title(), "margin-head");
    box.getChildren().add(head);
    for (String l : n.lines()) {
      box.getChildren()
          .add(
              label(
                  (n.kind() == Margin.Kind.WRONG ? "→ " : "") + l,
                  n.kind() == Margin.Kind.WRONG ? "wrong-line" : "note-line"));
    }
    content.getChildren().add(box);
  }

  private static Label label(String text, String style) {
    Label l = new Label(text);
    l.getStyleClass().add(style);
    l.setWrapText(true);
    l.setMinHeight(Region.USE_PREF_SIZE);
    return l;
  }

  private static Node line() {
    Region r = new Region();
    r.getStyleClass().add("hair");
    return r;
  }
}
