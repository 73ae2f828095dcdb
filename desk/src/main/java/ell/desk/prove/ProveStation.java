package ell.desk.prove;

import ell.core.prove.BuildProof;
import ell.core.prove.ProveFacts;
import ell.core.rack.Stage;
import ell.desk.key.Command;
import ell.desk.shell.DeskModel;
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

/// Proof in the window.
public final class ProveStation extends Station {
  private final ProveModel model;
  private final Host host;

  /// Proof on a desk.
  public ProveStation(DeskModel desk, Host host) {
    super(desk);
    this.host = host;
    this.model = new ProveModel(desk);
  }

  @Override
  public Stage stage() {
    return Stage.PROVE;
  }

  @Override
  public StageModel model() {
    return model;
  }

  @Override
  protected Node makeView() {
    return new ProveView(desk, model, false);
  }

  @Override
  public Optional<Node> bigView() {
    return Optional.of(new ProveView(desk, model, true));
  }

  @Override
  public List<Command> commands() {
    return ProveKeys.of(model, host, here());
  }

  @Override
  public void close() throws InterruptedException {
    model.close();
  }

  private ProveModel.Shown shown(Player p) throws IOException {
    return p.on(() -> model.shownProperty().get());
  }

  private void every(Player p) {
    p.stage(stage());
    p.key(KeyCode.M);
    p.until(
        "what the build says",
        () ->
            model.shownProperty().get().every() && model.shownProperty().get().build().isPresent());
  }

  @Override
  public List<Shot> shots() {
    return List.of(
        new Shot(
            "prove",
            p -> {
              p.board("A05");
              every(p);
              p.on(() -> {
                model.row(3);
                return null;
              });
            },
            p -> {
              p.key(KeyCode.M);
              p.board("01");
            }));
  }

  /// A board is proved as far as it goes without a person, then the build is looked at.
  @Override
  public void perform(Player p) throws IOException {
    p.stage(stage());
    p.until("the plan", () -> !model.primaryWords().isEmpty());
    p.key(KeyCode.SPACE);
    p.until("it runs", () -> model.shownProperty().get().runs());
    p.until(
        "it asks, or it is over",
        () ->
            model.shownProperty().get().question().isPresent()
                || !model.shownProperty().get().runs());
    while (shown(p).runs()) {
      p.until(
          "it asks, or it is over",
          () ->
              model.shownProperty().get().question().isPresent()
                  || !model.shownProperty().get().runs());
      if (shown(p).question().isPresent()) {
        var q = shown(p).question().get();
        p.key(KeyCode.SPACE);
        p.until(
            "the answer is taken",
            () ->
                !model.shownProperty().get().runs()
                    || model.shownProperty().get().question().filter(q::equals).isEmpty());
      }
    }
    p.until(
        "its end is in the book",
        () ->
            ProveFacts.of(desk.work().orElseThrow().state())
                .last()
                .flatMap(ProveFacts.Run::ended)
                .isPresent());
    ProveFacts.Run r = ProveFacts.of(desk.work().orElseThrow().state()).last().orElseThrow();
    p.picture("prove-board");
    every(p);
    BuildProof b = shown(p).build().orElseThrow();
    p.picture("prove");
    p.tell(
        "Prove",
        String.format(
            Locale.ROOT,
            "%d steps, %s; first-pass yield %s",
            r.steps().size(),
            r.verdict().map(ell.core.prove.ProveSection::word).orElse("not ended"),
            b.yield()
                .map(y ->
                    String.format(
                        Locale.ROOT,
                        "%.0f %% (%.0f to %.0f %%)",
                        100 * y.value(),
                        100 * y.low(),
                        100 * y.high()))
                .orElse("not known")));
    p.key(KeyCode.M);
  }
}
