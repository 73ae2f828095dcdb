package ell.desk.beep;

import ell.core.beep.BeepFacts;
import ell.core.quantity.Verdict;
import ell.core.rack.Stage;
import ell.core.rack.Standing;
import ell.desk.key.Command;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Player;
import ell.desk.shell.StageModel;
import ell.desk.shell.Station;
import java.io.IOException;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;

/// The beeping in the window.
public final class BeepStation extends Station {
  private final BeepModel model;

  /// The beeping on a desk.
  public BeepStation(DeskModel desk) {
    super(desk);
    this.model = new BeepModel(desk);
  }

  @Override
  public Stage stage() {
    return Stage.BEEP;
  }

  @Override
  public StageModel model() {
    return model;
  }

  @Override
  protected Node makeView() {
    return new BeepView(desk, model);
  }

  @Override
  public List<Command> commands() {
    return BeepKeys.of(model, here());
  }

  @Override
  public void zoom(double factor) {
    ((BeepView) view()).zoom(factor);
  }

  @Override
  public List<Shot> shots() {
    return List.of(
        new Shot(
            "beep",
            p -> {
              p.board("03");
              p.stage(stage());
            }),
        new Shot(
            "beep-short",
            p -> {
              p.board("04");
              p.stage(stage());
              int back = p.work().plan().beep().checks().size();
              while (back-- > 0 && !outInHand()) {
                p.key(KeyCode.UP);
              }
              p.until(
                  "the places of the short", () -> !model.shownProperty().get().places().isEmpty());
            }));
  }

  private boolean outInHand() {
    return model
        .shownProperty()
        .get()
        .reading()
        .filter(r -> r.verdict() == Verdict.OUT)
        .isPresent();
  }

  /// The guards of a good board, then those of one with a bridge, which the beeper finds.
  @Override
  public void perform(Player p) throws IOException {
    String good = p.work().board();
    p.stage(stage());
    p.key(KeyCode.G);
    p.until(
        "the guards are beeped",
        () -> {
          var w = desk.work().orElseThrow();
          return BeepFacts.of(w.state()).open(w.plan().beep()).isEmpty();
        });
    p.picture("beep-" + good);
    var list = p.work().plan().beep();
    p.tell(
        "Beep " + good,
        list.guarding().size()
            + " checks of rails to ground are within; of "
            + list.checks().size()
            + " checks the list catches "
            + list.coverage().opens()
            + " of "
            + list.coverage().opensTotal()
            + " opens");
    p.board("04");
    p.key(KeyCode.G);
    p.until(
        "the bridge is found",
        () -> desk.work().orElseThrow().standings().get("04").mark() == Standing.Mark.OUT);
    p.tell("Beep 04", p.work().standings().get("04").phrase());
    p.board(good);
  }
}
