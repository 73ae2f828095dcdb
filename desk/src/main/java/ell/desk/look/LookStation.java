package ell.desk.look;

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

/// The walk of the joints in the window.
public final class LookStation extends Station {
  private final LookModel model;
  private final FileAsker files;

  /// The walk on a desk.
  public LookStation(DeskModel desk, FileAsker files) {
    super(desk);
    this.files = files;
    this.model = new LookModel(desk);
  }

  @Override
  public Stage stage() {
    return Stage.LOOK;
  }

  @Override
  public StageModel model() {
    return model;
  }

  @Override
  protected Node makeView() {
    return new LookView(desk, model);
  }

  @Override
  public List<Command> commands() {
    return LookKeys.of(model, files, here());
  }

  @Override
  public void zoom(double factor) {
    ((LookView) view()).zoom(factor);
  }

  @Override
  public List<Shot> shots() {
    return List.of(
        new Shot(
            "look",
            p -> {
              p.board("05");
              p.stage(stage());
              p.until("the walk is planned", model::hasStop);
              p.key(KeyCode.DOWN);
              p.key(KeyCode.RIGHT);
              p.logs("a bridge is logged", KeyCode.J);
              p.key(KeyCode.LEFT);
              p.key(KeyCode.RIGHT);
            }));
  }

  /// Three joints looked at, and the rest of the board.
  @Override
  public void perform(Player p) throws IOException {
    p.stage(stage());
    p.until("the walk is planned", model::hasStop);
    for (int i = 0; i < 3; i++) {
      p.logs("a joint is seen", KeyCode.SPACE);
    }
    p.picture("look");
    p.tape("rest good");
    p.tell(
        "Look",
        p.on(() -> {
          LookModel.Shown s = model.shownProperty().get();
          return s.stops().size() + " joints walked, " + s.hidden().size() + " of them hidden";
        }));
  }
}
