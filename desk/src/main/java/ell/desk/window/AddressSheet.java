package ell.desk.window;

import ell.desk.shell.DeskModel;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.PasswordField;
import javafx.scene.control.TextField;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/// Asks for the address of a workspace on a server, and for a password where the server wants one.
/// The password is kept in memory alone.
final class AddressSheet extends VBox {
  private final TextField address = new TextField();
  private final PasswordField password = new PasswordField();
  private final Label said = new Label();
  private final Button open = new Button("Open it");
  private final Button make = new Button("Make it there");

  /// A sheet over a desk.
  ///
  /// @param last the address that was opened last, may be empty
  /// @param done closes the sheet
  AddressSheet(DeskModel desk, String last, Runnable done) {
    getStyleClass().addAll("overlay", "address-sheet");
    setId("address-sheet");
    setAccessibleText("a workspace on a server");
    Label title = new Label("A workspace on a server");
    title.getStyleClass().add("sheet-title");
    Label how =
        new Label(
            "Several benches can share one workspace in a PostgreSQL database: each board is in one"
                + " hand at a time, and what one bench writes the others see. Bring a file there"
                + " with: ell move FILE.ell ADDRESS");
    how.setWrapText(true);
    how.setMinHeight(USE_PREF_SIZE);
    how.getStyleClass().add("sheet-line");
    address.setId("address");
    address.setText(last);
    address.setPromptText("postgresql://NAME@HOST/DATABASE");
    address.setAccessibleText("address");
    address.setPrefColumnCount(44);
    password.setId("password");
    password.setAccessibleText("password");
    password.setPromptText("where the server asks for one; kept in memory alone");
    GridPane fields = new GridPane();
    fields.setHgap(14);
    fields.setVgap(10);
    Label a = new Label("address");
    a.setLabelFor(address);
    Label p = new Label("password");
    p.setLabelFor(password);
    fields.addRow(0, a, address);
    fields.addRow(1, p, password);
    said.setId("address-said");
    said.setWrapText(true);
    said.setMinHeight(USE_PREF_SIZE);
    said.getStyleClass().add("problem");
    open.setId("address-open");
    open.getStyleClass().add("main");
    open.setOnAction(_ -> go(desk, done, false));
    make.setId("address-make");
    make.setOnAction(_ -> go(desk, done, true));
    address.setOnAction(_ -> go(desk, done, false));
    password.setOnAction(_ -> go(desk, done, false));
    HBox acts = new HBox(12, open, make);
    acts.setAlignment(Pos.CENTER_LEFT);
    setSpacing(16);
    setMaxHeight(USE_PREF_SIZE);
    getChildren().addAll(title, how, fields, said, acts);
    focusedProperty()
        .addListener((_, _, yes) -> {
          if (yes) {
            address.requestFocus();
          }
        });
  }

  private void go(DeskModel desk, Runnable done, boolean anew) {
    said.setText("asking the server …");
    open.setDisable(true);
    make.setDisable(true);
    desk.openAt(
        address.getText().strip(),
        password.getText(),
        anew,
        problem -> {
          open.setDisable(false);
          make.setDisable(false);
          said.setText(problem);
          if (problem.isEmpty()) {
            done.run();
          }
        });
  }
}
