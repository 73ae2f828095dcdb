package ell.desk.jig;

import ell.core.jig.JigPlan;
import ell.core.rack.Stage;
import ell.desk.key.Command;
import ell.desk.shell.DeskModel;
import ell.desk.shell.FileAsker;
import ell.desk.shell.Player;
import ell.desk.shell.StageModel;
import ell.desk.shell.Station;
import java.io.IOException;
import java.util.List;
import java.util.Locale;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;

/// Jigs in the window.
public final class JigStation extends Station {
  private final JigModel model;

  /// Jigs on a desk.
  public JigStation(DeskModel desk, FileAsker files) {
    super(desk);
    this.model = new JigModel(desk, files);
  }

  @Override
  public Stage stage() {
    return Stage.JIG;
  }

  @Override
  public StageModel model() {
    return model;
  }

  @Override
  protected Node makeView() {
    return new JigView(desk, model);
  }

  @Override
  public List<Command> commands() {
    return JigKeys.of(model, here());
  }

  @Override
  public void zoom(double factor) {
    ((JigView) view()).zoom(factor);
  }

  private void planned(Player p) {
    p.stage(stage());
    p.until("the jig", () -> model.shownProperty().get() != null && !model.busyProperty().get());
  }

  @Override
  public List<Shot> shots() {
    return List.of(
        new Shot(
            "jig",
            p -> {
              planned(p);
              p.on(() -> {
                model.across(1);
                return null;
              });
            }));
  }

  /// The jig of the demo's board: a finger is moved, and what that does to the strain is told.
  @Override
  public void perform(Player p) throws IOException {
    planned(p);
    JigPlan before = p.on(() -> model.shownProperty().get().plan());
    p.picture("jig");
    p.key(KeyCode.RIGHT);
    p.on(() -> {
      model.shift(-3, 0);
      return null;
    });
    p.until(
        "the board bent anew",
        () -> model.shownProperty().get().moved() && !model.busyProperty().get());
    JigPlan after = p.on(() -> model.shownProperty().get().plan());
    p.tell(
        "Jig",
        String.format(
            Locale.ROOT,
            "%d probes, %.1f N, %d fingers; strain %.0f millionths, and %.0f with the first finger"
                + " 3 mm to the left; %s",
            before.probes().size(),
            before.force(),
            before.bending().fingers().size(),
            1e6 * before.bending().strain(),
            1e6 * after.bending().strain(),
            before.worth().words()));
  }
}
