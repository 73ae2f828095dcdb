package ell.desk.print;

import ell.core.print.PrintFacts;
import ell.core.rack.Stage;
import ell.desk.key.Command;
import ell.desk.shell.DeskModel;
import ell.desk.shell.FileAsker;
import ell.desk.shell.Player;
import ell.desk.shell.StageModel;
import ell.desk.shell.Station;
import java.io.IOException;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;

/// The print in the window.
public final class PrintStation extends Station {
  private final PrintModel model;
  private final FileAsker files;

  /// The print on a desk.
  public PrintStation(DeskModel desk, FileAsker files) {
    super(desk);
    this.files = files;
    this.model = new PrintModel(desk);
  }

  @Override
  public Stage stage() {
    return Stage.PRINT;
  }

  @Override
  public StageModel model() {
    return model;
  }

  @Override
  protected Node makeView() {
    return new PrintView(desk, model);
  }

  @Override
  public List<Command> commands() {
    return PrintKeys.of(desk, model, files, here());
  }

  @Override
  public void zoom(double factor) {
    ((PrintView) view()).zoom(factor);
  }

  private boolean read() {
    PrintModel.Shown s = model.shownProperty().get();
    return s != null && s.check().isPresent();
  }

  @Override
  public List<Shot> shots() {
    return List.of(
        new Shot(
            "print",
            p -> {
              p.board("07");
              p.stage(stage());
              p.until("the paste layer is read", this::read);
            }));
  }

  /// One pad of a side that was printed is told.
  @Override
  public void perform(Player p) throws IOException {
    p.stage(stage());
    p.until("the paste layer is read", this::read);
    p.until("pads can be told", model::canTell);
    p.key(KeyCode.T);
    p.until(
        "a pad is told", () -> !PrintFacts.of(desk.work().orElseThrow().state()).paste().isEmpty());
    p.picture("print");
    p.tell(
        "Print",
        p.on(() -> {
          var c = model.shownProperty().get().check().orElseThrow();
          return c.lines().size()
              + " openings, "
              + c.bad()
              + " do not release from the foil; one pad came out thin";
        }));
  }
}
