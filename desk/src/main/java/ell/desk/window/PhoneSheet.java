package ell.desk.window;

import ell.desk.mark.Picture;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Phone;
import java.util.Optional;
import javafx.beans.value.ChangeListener;
import javafx.scene.Node;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/// Boards on a phone or a tablet: which address, and while it listens, where and with which code.
final class PhoneSheet extends VBox {
  private static final int PORT = 8420;

  private final DeskModel desk;
  private final VBox body = new VBox(14);
  private final TextField address = new TextField();
  private final Label problem = new Label();

  /// What takes the keys when the sheet gets them.
  private Node first = address;

  /// A sheet over a desk.
  PhoneSheet(DeskModel desk) {
    this.desk = desk;
    getStyleClass().addAll("overlay", "phone-sheet");
    setId("phone-sheet");
    setAccessibleText("boards on a phone");
    Label title = new Label("Boards on a phone");
    title.getStyleClass().add("sheet-title");
    address.setId("phone-address");
    address.setAccessibleText("address");
    address.setPrefColumnCount(22);
    address.setText(Phone.addresses().stream().findFirst().map(a -> a + ":" + PORT).orElse(""));
    problem.setId("phone-problem");
    problem.getStyleClass().add("problem");
    problem.setWrapText(true);
    problem.setMinHeight(USE_PREF_SIZE);
    setSpacing(14);
    setMaxHeight(USE_PREF_SIZE);
    getChildren().addAll(title, body);
    ChangeListener<Phone.State> shown = (_, _, s) -> show(s);
    desk.phone().stateProperty().addListener(shown);
    sceneProperty()
        .addListener((_, _, s) -> {
          if (s == null) {
            desk.phone().stateProperty().removeListener(shown);
          }
        });
    focusedProperty()
        .addListener((_, _, yes) -> {
          if (yes) {
            first.requestFocus();
          }
        });
    show(desk.phone().stateProperty().get());
  }

  private void show(Phone.State s) {
    switch (s) {
      case Phone.Off off -> off(off);
      case Phone.On on -> on(on);
    }
  }

  private void off(Phone.Off off) {
    problem.setText(off.problem());
    first = address;
    Label how =
        line(
            "Step, beep list and record, to be looked at only, for whoever types the code. Nothing"
                + " listens until you say so, and then on this address alone.");
    Label where = new Label("address");
    where.setLabelFor(address);
    Button all = new Button("Show all boards");
    all.setId("phone-all");
    all.getStyleClass().add("main");
    all.setOnAction(_ -> begin(Optional.empty()));
    HBox acts = new HBox(12, all);
    String board = desk.navigation().boardProperty().get();
    if (board != null && !board.isEmpty()) {
      Button one = new Button("Show board " + board + " only");
      one.setId("phone-one");
      one.setOnAction(_ -> begin(Optional.of(board)));
      acts.getChildren().add(one);
    }
    address.setOnAction(_ -> begin(Optional.empty()));
    HBox row = new HBox(12, where, address);
    row.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
    body.getChildren().setAll(how, row, problem, acts);
  }

  private void begin(Optional<String> board) {
    problem.setText("");
    desk.phone().begin(address.getText().strip(), board);
  }

  private void on(Phone.On on) {
    Label where = new Label(on.where());
    where.setId("phone-where");
    where.getStyleClass().add("step-what");
    Label code = new Label(on.code());
    code.setId("phone-code");
    code.getStyleClass().add("step-number");
    code.setAccessibleText("code " + on.code());
    Button end = new Button("End it");
    end.setId("phone-end");
    end.getStyleClass().add("main");
    end.setOnAction(_ -> desk.phone().stop());
    VBox words =
        new VBox(
            10,
            line(
                on.board()
                    .map(b -> "Board " + b + " is shown, to be looked at only.")
                    .orElse("All boards are shown, to be looked at only.")),
            where,
            line("The code that is typed there:"),
            code,
            line(
                "What is sent is not hidden from others in the same network. It ends with the"
                    + " workspace; Esc closes this sheet alone."),
            end);
    body.getChildren().setAll(new HBox(28, new Square(on), words));
    first = end;
    end.requestFocus();
  }

  private static Label line(String words) {
    Label l = new Label(words);
    l.setWrapText(true);
    l.setMinHeight(USE_PREF_SIZE);
    l.setMaxWidth(560);
    l.getStyleClass().add("sheet-line");
    return l;
  }

  /// The address as a code for a camera: always dark on light, or cameras do not read it.
  private static final class Square extends Picture {
    private static final double SIZE = 230;
    private final boolean[][] rows;

    Square(Phone.On on) {
      super("the address " + on.where() + " as a QR code");
      this.rows = on.square();
      setMinSize(SIZE, SIZE);
      setPrefSize(SIZE, SIZE);
      setMaxSize(SIZE, SIZE);
    }

    @Override
    protected void draw(GraphicsContext g, double w, double h) {
      g.setFill(javafx.scene.paint.Color.WHITE);
      g.fillRect(0, 0, w, h);
      g.setFill(javafx.scene.paint.Color.BLACK);
      double m = Math.floor(w / rows.length);
      double from = (w - m * rows.length) / 2;
      for (int r = 0; r < rows.length; r++) {
        for (int c = 0; c < rows.length; c++) {
          if (rows[r][c]) {
            g.fillRect(from + c * m, from + r * m, m, m);
          }
        }
      }
    }
  }
}
