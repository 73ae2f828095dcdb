package ell.desk.revise;

import ell.core.rack.Stage;
import ell.core.revise.Stand;
import ell.core.revise.WayOut;
import ell.desk.key.Command;
import ell.desk.shell.DeskModel;
import ell.desk.shell.FileAsker;
import ell.desk.shell.Host;
import ell.desk.shell.Player;
import ell.desk.shell.StageModel;
import ell.desk.shell.Station;
import java.io.IOException;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;

/// Errata in the window.
public final class ReviseStation extends Station {
  private final ReviseModel model;
  private final Host host;

  /// Errata on a desk.
  public ReviseStation(DeskModel desk, FileAsker files, Host host) {
    super(desk);
    this.host = host;
    this.model = new ReviseModel(desk, files);
  }

  @Override
  public Stage stage() {
    return Stage.REVISE;
  }

  @Override
  public StageModel model() {
    return model;
  }

  @Override
  protected Node makeView() {
    return new ReviseView(desk, model, false);
  }

  @Override
  public Optional<Node> bigView() {
    return Optional.of(new ReviseView(desk, model, true));
  }

  @Override
  public List<Command> commands() {
    return ReviseKeys.of(model, host, here(), () -> desk.work().isPresent());
  }

  @Override
  public void zoom(double factor) {
    ((ReviseView) view()).zoom(factor);
  }

  private void known(Player p, String board) {
    p.board(board);
    p.stage(stage());
    p.until(
        "errata and boards",
        () ->
            model.shownProperty().get() != null
                && !model.busyProperty().get()
                && model.shownProperty().get().answer().work().board().equals(board));
  }

  @Override
  public List<Shot> shots() {
    return List.of(
        new Shot(
            "revise",
            p -> {
              known(p, "A04");
              p.on(() -> {
                model.turnTo(0, 3);
                return null;
              });
            },
            p -> p.board("01")));
  }

  /// A pin that is drawn to nothing is written down, one board is mended, and the rest is worked
  /// out.
  @Override
  public void perform(Player p) throws IOException {
    String board = p.on(() -> desk.work().orElseThrow().board());
    p.tape("erratum loose U4.7");
    known(p, board);
    p.until(
        "the erratum", () -> !model.shownProperty().get().answer().mistakes().errata().isEmpty());
    p.key(KeyCode.SPACE);
    p.until(
        "it is mended",
        () ->
            model
                .shownProperty()
                .get()
                .stand()
                .filter(s -> s.state() == Stand.State.DONE)
                .isPresent());
    p.picture("revise");
    ReviseModel.Shown s = p.on(() -> model.shownProperty().get());
    p.key(KeyCode.L);
    p.picture("revise-changes");
    p.key(KeyCode.L);
    p.picture("revise-learned");
    p.key(KeyCode.L);
    WayOut way = s.answer().way().orElseThrow();
    p.tell(
        "Revise",
        String.format(
            Locale.ROOT,
            "%s on %d boards, %.0f min left; %s, %s",
            s.erratum().orElseThrow().title(),
            s.answer().mistakes().boards().size(),
            s.answer().order().minutes(),
            way.choice().name(),
            way.turns()));
  }
}
