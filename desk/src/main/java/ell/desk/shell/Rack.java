package ell.desk.shell;

import ell.core.rack.Standing;
import ell.desk.mark.Hairline;
import ell.desk.mark.Ink;
import ell.desk.mark.MarkDot;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.List;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import javafx.geometry.Pos;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.OverrunStyle;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/// The rack, left: the boards of the build as slats; the one in hand is pulled out.
public final class Rack extends VBox {
  private final ObservableList<String> serials = FXCollections.observableArrayList();
  private final ListView<String> slats = new ListView<>(serials);
  private final Label count = new Label();
  private boolean filling;

  /// A rack for a desk.
  public Rack(DeskModel desk) {
    getStyleClass().add("rack");
    Label head = new Label("Rack");
    head.getStyleClass().add("small-head");
    count.getStyleClass().add("sheet-line");
    BorderPane top = new BorderPane(null, null, count, null, head);
    BorderPane.setAlignment(count, Pos.CENTER_RIGHT);
    top.getStyleClass().add("rack-head");
    slats.setId("rack");
    slats.setAccessibleText("boards of the build");
    slats.setCellFactory(_ -> new Slat(desk));
    VBox.setVgrow(slats, Priority.ALWAYS);
    getChildren().addAll(top, slats);
    slats
        .getSelectionModel()
        .selectedItemProperty()
        .addListener((_, _, serial) -> {
          if (serial != null && !filling) {
            desk.select(serial);
          }
        });
    desk.snapshotProperty().addListener((_, _, s) -> fill(s));
    fill(desk.snapshotProperty().get());
  }

  private void fill(Snapshot s) {
    filling = true;
    List<String> boards = s.bench().map(w -> w.build().boards()).orElse(List.of());
    if (!boards.equals(serials)) {
      serials.setAll(boards);
    }
    count.setText(
        boards.isEmpty() ? "" : boards.size() + (boards.size() == 1 ? " board" : " boards"));
    s.bench()
        .ifPresent(w -> {
          slats.getSelectionModel().select(w.board());
          int at = boards.indexOf(w.board());
          if (at < slats.getItems().size() && boards.size() > 12) {
            slats.scrollTo(Math.max(0, at - 3));
          }
        });
    slats.refresh();
    filling = false;
  }

  private static final double MOST_SERIAL = 78;

  private static final class Slat extends ListCell<String> {
    private final DeskModel desk;
    private final Label serial = new Label();
    private final Label phrase = new Label();
    private final MarkDot dot = new MarkDot();
    private final Progress progress = new Progress();
    private final VBox body;

    Slat(DeskModel desk) {
      this.desk = desk;
      serial.getStyleClass().add("serial");
      phrase.getStyleClass().add("phrase");
      phrase.setTextOverrun(OverrunStyle.ELLIPSIS);
      serial.setMinWidth(24);
      serial.setMaxWidth(MOST_SERIAL);
      serial.setTextOverrun(OverrunStyle.LEADING_ELLIPSIS);
      dot.nightProperty().bind(desk.nightProperty());
      progress.nightProperty().bind(desk.nightProperty());
      HBox first = new HBox(8, serial, phrase);
      first.setAlignment(Pos.CENTER_LEFT);
      HBox second = new HBox(9, dot, progress);
      second.setAlignment(Pos.CENTER_LEFT);
      HBox.setHgrow(progress, Priority.ALWAYS);
      body = new VBox(3, first, second);
      body.getStyleClass().add("slat");
      setPrefWidth(0);
    }

    @Override
    protected void updateItem(String item, boolean empty) {
      super.updateItem(item, empty);
      Standing s =
          empty || item == null ? null : desk.work().map(w -> w.standings().get(item)).orElse(null);
      if (s == null) {
        setGraphic(null);
        setAccessibleText("");
        return;
      }
      serial.setText(item);
      serial.setMinWidth(Math.min(MOST_SERIAL, Type.width(Type.bold(13), item) + 2));
      String elsewhere =
          desk.snapshotProperty()
              .get()
              .benches()
              .flatMap(b -> b.elsewhere(item))
              .map(h -> "at " + h.bench())
              .orElse("");
      phrase.setText(elsewhere.isEmpty() ? s.phrase() : elsewhere);
      phrase.getStyleClass().removeAll("out", "close");
      if (s.mark() == Standing.Mark.OUT || s.mark() == Standing.Mark.CLOSE) {
        phrase.getStyleClass().add(s.mark() == Standing.Mark.OUT ? "out" : "close");
      }
      dot.show(s.mark());
      progress.show(s);
      setGraphic(body);
      setAccessibleText(
          "board "
              + item
              + ", "
              + s.stage().title()
              + ", "
              + s.phrase()
              + (elsewhere.isEmpty() ? "" : ", in hand " + elsewhere));
    }
  }

  /// A tiny rule of progress.
  private static final class Progress extends Picture {
    private Standing standing;

    Progress() {
      super("progress");
      setMinHeight(14);
      setPrefSize(100, 14);
    }

    void show(Standing s) {
      standing = s;
      redraw();
    }

    @Override
    protected void draw(GraphicsContext g, double w, double h) {
      if (standing == null) {
        return;
      }
      Ink ink = ink();
      double y = h / 2;
      Hairline.level(g, ink.hair(), 0, w - 2, y, 1);
      for (int i = 0; i <= 10; i++) {
        double half = i % 5 == 0 ? 4 : 2.5;
        Hairline.upright(g, ink.hair(), i * (w - 3) / 10, y - half, y + half, 1);
      }
      Hairline.level(
          g, ink.of(standing.mark()), 0, Math.max(2, standing.progress() * (w - 2)), y, 3);
    }
  }
}
