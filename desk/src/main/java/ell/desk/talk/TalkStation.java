package ell.desk.talk;

import ell.core.rack.Stage;
import ell.desk.key.Command;
import ell.desk.shell.DeskModel;
import ell.desk.shell.FileAsker;
import ell.desk.shell.Host;
import ell.desk.shell.Player;
import ell.desk.shell.StageModel;
import ell.desk.shell.Station;
import java.io.IOException;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;

/// The line in the window.
public final class TalkStation extends Station {
  private static final String SHOWN = "01";

  private final TalkModel model;
  private final FileAsker files;
  private final Host host;

  /// The line on a desk.
  public TalkStation(DeskModel desk, FileAsker files, Host host) {
    super(desk);
    this.files = files;
    this.host = host;
    this.model = new TalkModel(desk);
  }

  @Override
  public Stage stage() {
    return Stage.TALK;
  }

  @Override
  public StageModel model() {
    return model;
  }

  @Override
  protected Node makeView() {
    return new TalkView(desk, model);
  }

  @Override
  public List<Command> commands() {
    return TalkKeys.of(model, files, host, here());
  }

  @Override
  public void close() throws InterruptedException {
    model.close();
  }

  /// Runs the script in hand as a maker does, to its end.
  private void runs(Player p) {
    p.stage(stage());
    p.until(
        "scripts are there",
        () -> model.shownProperty().get() != null && model.shownProperty().get().scriptAt() >= 0);
    p.key(KeyCode.SPACE);
    p.until("the question is asked", model::asks);
    p.key(KeyCode.Y);
    p.until("the script is through", () -> !model.runs());
    p.until("its strip is read", () -> !model.shownProperty().get().rows().isEmpty());
  }

  @Override
  public List<Shot> shots() {
    return List.of(
        new Shot(
            "talk",
            p -> {
              p.board(SHOWN);
              runs(p);
            }),
        new Shot(
            "links",
            p -> {
              p.key(KeyCode.M);
              p.key(KeyCode.DOWN);
              p.key(KeyCode.DOWN);
            },
            p -> {
              p.key(KeyCode.M);
              p.key(KeyCode.M);
              p.key(KeyCode.M);
              p.board("07");
            }));
  }

  @Override
  public void perform(Player p) throws IOException {
    p.board(SHOWN);
    runs(p);
    p.tell(
        "Talk", p.on(() -> model.shownProperty().get().facts().firmware().orElse("no firmware")));
  }
}
