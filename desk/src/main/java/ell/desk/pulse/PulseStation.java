package ell.desk.pulse;

import ell.core.pulse.PulseFacts;
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

/// Clocks and edges in the window.
public final class PulseStation extends Station {
  private final PulseModel model;
  private final FileAsker files;
  private final Host host;

  /// The lines on a desk.
  public PulseStation(DeskModel desk, FileAsker files, Host host) {
    super(desk);
    this.files = files;
    this.host = host;
    this.model = new PulseModel(desk);
  }

  @Override
  public Stage stage() {
    return Stage.PULSE;
  }

  @Override
  public StageModel model() {
    return model;
  }

  @Override
  protected Node makeView() {
    return new PulseView(desk, model);
  }

  @Override
  public List<Command> commands() {
    return PulseKeys.of(model, files, host, here());
  }

  @Override
  public void zoom(double factor) {
    model.zoom(factor);
  }

  private boolean opened() {
    PulseModel.Shown s = model.shownProperty().get();
    return s != null && s.series().isPresent();
  }

  @Override
  public List<Shot> shots() {
    return List.of(
        new Shot(
            "pulse",
            p -> {
              p.board("S01");
              p.stage(stage());
              p.key(KeyCode.DOWN);
              p.key(KeyCode.DOWN);
              p.until("the capture is opened", this::opened);
            },
            _ -> {}),
        new Shot(
            "line",
            p -> {
              p.key(KeyCode.K);
              p.until(
                  "the line is worked out",
                  () -> model.line().shown() != null && model.line().shown().line().isPresent());
            },
            p -> {
              p.key(KeyCode.K);
              p.board("07");
            }));
  }

  @Override
  public void perform(Player p) throws IOException {
    p.stage(stage());
    p.tell(
        "Pulse",
        p.on(() ->
            PulseFacts.of(desk.work().orElseThrow().state()).latest().size()
                + " places captured of "
                + model.shownProperty().get().places().size()));
  }
}
