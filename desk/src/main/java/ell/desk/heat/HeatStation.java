package ell.desk.heat;

import ell.core.entry.EntryWords;
import ell.core.heat.HeatFacts;
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

/// The heat in the window.
public final class HeatStation extends Station {
  private final HeatModel model;
  private final FileAsker files;

  /// The heat on a desk.
  public HeatStation(DeskModel desk, FileAsker files) {
    super(desk);
    this.files = files;
    this.model = new HeatModel(desk);
  }

  @Override
  public Stage stage() {
    return Stage.HEAT;
  }

  @Override
  public StageModel model() {
    return model;
  }

  @Override
  protected Node makeView() {
    return new HeatView(desk, model);
  }

  @Override
  public List<Command> commands() {
    return HeatKeys.of(model, files, here());
  }

  @Override
  public void zoom(double factor) {
    ((HeatView) view()).zoom(factor);
  }

  @Override
  public void close() throws InterruptedException {
    model.close();
  }

  private boolean workedOut() {
    HeatModel.Shown s = model.shownProperty().get();
    return s != null && s.schedule().isPresent();
  }

  @Override
  public List<Shot> shots() {
    return List.of(
        new Shot(
            "heat",
            p -> {
              p.board("02");
              p.stage(stage());
              p.until("the plate is worked out", this::workedOut);
            }));
  }

  /// The simulated plate run once at a fast clock.
  @Override
  public void perform(Player p) throws IOException {
    desk.bench().plateSpeed(150);
    p.stage(stage());
    p.until("the plate is worked out", this::workedOut);
    p.key(KeyCode.SPACE);
    p.until(
        "the board is to be lifted off",
        () ->
            model
                .shownProperty()
                .get()
                .look()
                .filter(l -> l.next().equals("lift off now"))
                .isPresent());
    p.key(KeyCode.SPACE);
    // not before: while a picture is taken the fast plate would go on heating the board
    p.picture("heat");
    p.until(
        "the run is in the book",
        () -> !HeatFacts.of(desk.work().orElseThrow().state()).runs().isEmpty());
    p.until("the plate is off", () -> !model.live());
    p.tell(
        "Heat",
        p.on(() ->
            EntryWords.of(
                HeatFacts.of(desk.work().orElseThrow().state()).runs().getLast().entry())));
  }
}
