package ell.desk.window;

import ell.core.heat.Alloy;
import ell.core.order.Method;
import ell.core.rack.Standing.Mark;
import ell.desk.mark.MarkDot;
import ell.desk.shell.DeskModel;
import ell.desk.shell.FileAsker;
import ell.desk.shell.Heads;
import ell.work.bring.FileKind;
import java.io.File;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import javafx.collections.FXCollections;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.input.DragEvent;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/// What an empty workspace shows: which files to drop, what they were taken for, and the build to
/// make.
public final class SetupView extends VBox {
  private static final Map<FileKind, String> WHAT =
      new EnumMap<>(
          Map.of(
              FileKind.BOM, "CSV with a column of references: which part goes where",
              FileKind.PLACEMENT, "CSV with reference, x, y, rotation, side",
              FileKind.NETLIST, "IPC-D-356A: which joint is on which net",
              FileKind.OUTLINE, "CSV with x, y of each corner, or Gerber; may be left out",
              FileKind.SHELF, "CSV with code, quantity, bin; may be left out",
              FileKind.LADDER, "JSON, corrected by you; proposed when left out",
              FileKind.PASTE_FIRST, "Gerber; may be left out, and added later",
              FileKind.PASTE_SECOND, "Gerber; may be left out",
              FileKind.LEGEND, "Gerber; may be left out",
              FileKind.DRILL, "XNC or Excellon; may be left out"));

  private final SetupModel model;
  private final GridPane table = new GridPane();
  private final VBox problems = new VBox(4);

  /// A view of a model.
  public SetupView(DeskModel desk, SetupModel model, FileAsker files) {
    this.model = model;
    getStyleClass().addAll("stage", "setup");
    setId("setup");
    Heads heads = new Heads();
    heads.show(
        "A revision to build",
        "Drop the files of a fabricated revision here, or choose them. Ell tells them apart by what is in them.");
    table.setHgap(14);
    table.setVgap(7);
    table.getStyleClass().add("drop");
    Button choose = new Button("Choose files…");
    choose.setId("choose-files");
    choose.setOnAction(_ -> model.take(files.revisionFiles()));
    HBox names =
        new HBox(
            12,
            field("design", "Design", model.designProperty(), 10),
            field("revision", "Revision", model.revisionProperty(), 5),
            field("boards", "Boards", model.boardsProperty(), 4),
            field("panel", "Panel of", model.panelProperty(), 4),
            field("variant", "Variant, if any", model.variantProperty(), 7),
            pick(
                "method",
                "Method",
                model.methodProperty(),
                Arrays.stream(Method.values()).map(Method::key).toList()),
            pick("alloy", "Alloy", model.alloyProperty(), Alloy.keys()));
    names.setAlignment(Pos.BOTTOM_LEFT);
    Button go = new Button("Import and make the build");
    go.setId("import");
    go.getStyleClass().add("main");
    go.setDefaultButton(true);
    go.setOnAction(_ -> model.run());
    Button stop = new Button("Stop");
    stop.setOnAction(_ -> model.cancel());
    stop.visibleProperty().bind(desk.busyProperty().isNotEmpty());
    Label busy = new Label();
    busy.setText(desk.busyProperty().get());
    desk.busyProperty().addListener((_, _, b) -> busy.setText(b));
    FlowPane acts = new FlowPane(12, 8, choose, go, stop, busy);
    acts.setAlignment(Pos.CENTER_LEFT);
    ScrollPane list = new ScrollPane(problems);
    list.setFitToWidth(true);
    list.setAccessibleText("problems with the files");
    list.setFocusTraversable(false);
    problems.setId("problems");
    VBox.setVgrow(list, Priority.ALWAYS);
    VBox columns =
        field(
            "columns",
            "Columns that the headings do not name, such as value=Name, side=Layer",
            model.columnsProperty(),
            36);
    columns.setMaxWidth(USE_PREF_SIZE);
    setSpacing(14);
    getChildren().addAll(heads, table, names, columns, acts, list);
    addEventHandler(
        DragEvent.DRAG_OVER,
        e -> {
          if (e.getDragboard().hasFiles()) {
            e.acceptTransferModes(TransferMode.COPY);
          }
          e.consume();
        });
    addEventHandler(
        DragEvent.DRAG_DROPPED,
        e -> {
          model.take(e.getDragboard().getFiles().stream().map(File::toPath).toList());
          e.setDropCompleted(true);
          e.consume();
        });
    model.chosenProperty().addListener((_, _, _) -> fill(desk));
    model.problemsProperty().addListener((_, _, p) -> say(p));
    fill(desk);
  }

  private void fill(DeskModel desk) {
    table.getChildren().clear();
    Map<FileKind, String> chosen = model.chosenProperty().get();
    int row = 0;
    for (FileKind k : FileKind.values()) {
      MarkDot dot = new MarkDot();
      dot.nightProperty().bind(desk.nightProperty());
      boolean needed = k == FileKind.BOM || k == FileKind.PLACEMENT || k == FileKind.NETLIST;
      dot.show(chosen.containsKey(k) ? Mark.WITHIN : needed ? Mark.NEXT : Mark.NOT_YET);
      Label name = new Label(k.words());
      name.getStyleClass().add("drop-name");
      Label what = new Label(chosen.containsKey(k) ? chosen.get(k) : WHAT.get(k));
      what.getStyleClass().add(chosen.containsKey(k) ? "drop-file" : "sheet-line");
      table.addRow(row++, dot, name, what);
    }
  }

  private void say(List<String> what) {
    problems.getChildren().clear();
    for (String s : what) {
      Label l = new Label("× " + s);
      l.getStyleClass().add("problem");
      l.setWrapText(true);
      l.setMinHeight(Region.USE_PREF_SIZE);
      problems.getChildren().add(l);
    }
  }

  private static VBox field(
      String id, String name, javafx.beans.property.StringProperty value, int columns) {
    TextField f = new TextField();
    f.setId(id);
    f.setPrefColumnCount(columns);
    f.textProperty().bindBidirectional(value);
    f.setAccessibleText(name);
    Label l = new Label(name);
    l.setLabelFor(f);
    l.getStyleClass().add("sheet-line");
    return new VBox(3, l, f);
  }

  private static VBox pick(
      String id, String name, javafx.beans.property.StringProperty value, List<String> choices) {
    ComboBox<String> c = new ComboBox<>(FXCollections.observableArrayList(choices));
    c.setId(id);
    c.valueProperty().bindBidirectional(value);
    c.setAccessibleText(name);
    Label l = new Label(name);
    l.setLabelFor(c);
    l.getStyleClass().add("sheet-line");
    return new VBox(3, l, c);
  }
}
