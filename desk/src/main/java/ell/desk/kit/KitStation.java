package ell.desk.kit;

import ell.core.kit.KitCheck;
import ell.core.rack.Stage;
import ell.desk.key.Command;
import ell.desk.shell.DeskModel;
import ell.desk.shell.FileAsker;
import ell.desk.shell.Player;
import ell.desk.shell.StageModel;
import ell.desk.shell.Station;
import ell.work.kit.Buying;
import java.io.IOException;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;

/// The kit in the window.
public final class KitStation extends Station {
  private final KitModel model;
  private final FileAsker files;

  /// The kit on a desk.
  public KitStation(DeskModel desk, FileAsker files) {
    super(desk);
    this.files = files;
    this.model = new KitModel(desk);
  }

  @Override
  public Stage stage() {
    return Stage.KIT;
  }

  @Override
  public StageModel model() {
    return model;
  }

  @Override
  protected Node makeView() {
    return new KitView(desk, model);
  }

  @Override
  public List<Command> commands() {
    return KitKeys.of(desk, model, files, here());
  }

  private boolean priced() {
    KitModel.Shown s = model.shownProperty().get();
    return s != null && !s.costs().isEmpty();
  }

  @Override
  public List<Shot> shots() {
    return List.of(
        new Shot(
            "kit",
            p -> {
              p.stage(stage());
              p.until("costs are worked out", this::priced);
            }));
  }

  /// The offers are taken in, and the rule of the paste is set aside where it would hold.
  @Override
  public void perform(Player p) throws IOException {
    p.stage(stage());
    p.offers();
    p.key(KeyCode.E, true);
    p.until("costs are worked out", () -> priced() && !model.pricing());
    p.picture("kit");
    KitCheck k = p.on(() -> model.shownProperty().get().kit());
    p.tell(
        "Kit",
        k.verdict().key()
            + k.date().map(d -> " until " + d).orElse("")
            + "; "
            + k.reasons().getFirst()
            + "; the shelf makes "
            + k.boardsNow()
            + " boards now"
            + p.on(() ->
                model.shownProperty().get().costs().stream()
                    .filter(c -> c.unmet().isEmpty())
                    .findFirst()
                    .map(c -> "; everything by " + c.by() + " costs " + Buying.money(c.total()))
                    .orElse("")));
    p.board("01");
    if (k.pasteStaysClosed()) {
      p.tape("override paste the first five boards are built with what is there");
    }
  }
}
