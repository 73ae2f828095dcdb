package ell.desk.power;

import ell.core.beep.BeepFacts;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.PowerFacts;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Verdict;
import ell.core.rack.Stage;
import ell.desk.key.Command;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Host;
import ell.desk.shell.Player;
import ell.desk.shell.Snapshot;
import ell.desk.shell.StageModel;
import ell.desk.shell.Station;
import java.io.IOException;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;

/// First power in the window.
public final class PowerStation extends Station {
  private final PowerModel model;
  private final Host host;

  /// Power on a desk.
  ///
  /// @param sampleMillis pause between two looks at the supply
  public PowerStation(DeskModel desk, Host host, long sampleMillis) {
    super(desk);
    this.host = host;
    this.model = new PowerModel(desk, sampleMillis);
  }

  @Override
  public Stage stage() {
    return Stage.POWER;
  }

  @Override
  public StageModel model() {
    return model;
  }

  @Override
  protected Node makeView() {
    return new PowerView(desk, model);
  }

  @Override
  public List<Command> commands() {
    return PowerKeys.of(model, host, here());
  }

  /// Whatever else happens, the output goes off first.
  @Override
  public void close() {
    model.close();
  }

  private PowerModel.Phase phase() {
    return model.shownProperty().get().phase();
  }

  private void switchOn(Player p) {
    p.stage(stage());
    p.until("first power is worked out", () -> !model.primaryWords().isEmpty());
    p.key(KeyCode.SPACE);
    p.until("board " + p.work().board() + " is on", () -> phase() == PowerModel.Phase.ON);
  }

  private void switchOff(Player p) {
    p.key(KeyCode.O);
    p.until("the output is off", () -> phase() == PowerModel.Phase.OFF);
    p.until(
        "the end is in the book",
        () ->
            PowerFacts.of(desk.work().orElseThrow().state())
                .supply()
                .filter(s -> !s.on())
                .isPresent());
  }

  @Override
  public List<Shot> shots() {
    return List.of(
        new Shot(
            "power",
            p -> {
              p.board("07");
              switchOn(p);
              for (int i = 0; i < 5; i++) {
                p.logs("a rail is read", KeyCode.SPACE);
              }
            }),
        new Shot(
            "power-night",
            p -> {
              switchOff(p);
              p.on(() -> {
                desk.nightProperty().set(true);
                return null;
              });
            },
            p ->
                p.on(() -> {
                  desk.nightProperty().set(false);
                  return null;
                })));
  }

  /// First power of a good board, of one with a weak rail, and of one that is refused.
  @Override
  public void perform(Player p) throws IOException {
    String good = p.work().board();
    power(p);
    p.board("06");
    p.stage(Stage.BEEP);
    p.key(KeyCode.G);
    p.until(
        "the guards of 06 are beeped",
        () -> {
          var w = desk.work().orElseThrow();
          return BeepFacts.of(w.state()).open(w.plan().beep()).isEmpty();
        });
    power(p);
    p.board("04");
    p.stage(stage());
    p.until("the rules were asked", () -> model.shownProperty().get().asked());
    p.tell(
        "Power 04",
        p.on(() ->
            model
                .shownProperty()
                .get()
                .refusal()
                .map(r -> "refused: " + r.text())
                .orElse("it was not refused")));
    p.board(good);
  }

  private void power(Player p) throws IOException {
    String board = p.work().board();
    switchOn(p);
    int rails = p.work().plan().ladder().raised().size();
    for (int i = 0; i < rails; i++) {
      p.logs("a rail is read", KeyCode.SPACE);
    }
    p.picture("power-" + board);
    switchOff(p);
    Snapshot.Work after = p.work();
    PowerFacts facts = PowerFacts.of(after.state());
    StringBuilder s = new StringBuilder();
    for (RailSpec r : after.plan().ladder().raised()) {
      facts
          .reading(r)
          .ifPresent(x ->
              s.append(s.isEmpty() ? "" : ", ")
                  .append(r.net())
                  .append(' ')
                  .append(EngineeringNumber.print(x.value(), x.unit(), 4))
                  .append(
                      x.verdict()
                          .filter(v -> v != Verdict.WITHIN)
                          .map(v -> " " + v.words())
                          .orElse("")));
    }
    p.tell("Power " + board, s + "; " + after.standings().get(board).phrase());
  }
}
