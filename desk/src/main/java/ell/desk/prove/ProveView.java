package ell.desk.prove;

import ell.core.prove.BuildProof;
import ell.core.quantity.Unit;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Heads;
import java.util.Locale;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/// The proof of a board: the one thing to do or see, large, above the rungs that are climbed; or
/// every test over the build, and when the lot is decided.
public final class ProveView extends VBox {
  private final ProveModel model;
  private final Heads heads = new Heads();
  private final Label word = new Label();
  private final Label what = new Label();
  private final Label detail = new Label();
  private final TextField number = new TextField();
  private final RungsPicture rungs = new RungsPicture();
  private final BuildPicture build = new BuildPicture();
  private final StopPicture stop = new StopPicture();
  private final Label decided = new Label();
  private final VBox every;
  private final VBox board;
  private Optional<RunningProof.Question> asked = Optional.empty();

  /// A view of a model.
  ///
  /// @param big whether it fills the window, for whoever stands further away
  public ProveView(DeskModel desk, ProveModel model, boolean big) {
    this.model = model;
    getStyleClass().add("stage");
    if (big) {
      getStyleClass().add("big");
    }
    for (var p : new ell.desk.mark.Picture[] {rungs, build, stop}) {
      p.nightProperty().bind(desk.nightProperty());
    }
    rungs.setId("prove-rungs");
    build.setId("prove-build");
    stop.setId("prove-stop");
    build.onRow(model::row);
    word.setId("prove-word");
    word.getStyleClass().add("told-word");
    word.setMinWidth(USE_PREF_SIZE);
    what.setId("prove-what");
    what.getStyleClass().add("prove-what");
    detail.getStyleClass().add("step-detail");
    for (Label l : new Label[] {what, detail}) {
      l.setWrapText(true);
      l.setMinHeight(Region.USE_PREF_SIZE);
    }
    number.setId("prove-number");
    number.setPrefColumnCount(10);
    number.setMaxWidth(180);
    number.setOnAction(_ -> {
      if (!number.getText().isBlank()) {
        model.number(number.getText().strip());
        number.clear();
        getScene().getRoot().requestFocus(); // keys are keys again
      }
    });
    number.managedProperty().bind(number.visibleProperty());
    VBox beside = new VBox(4, what, detail, number);
    beside.setAlignment(Pos.CENTER_LEFT);
    HBox.setHgrow(beside, Priority.ALWAYS);
    word.managedProperty().bind(word.visibleProperty());
    HBox hand = new HBox(18, word, beside);
    hand.setAlignment(Pos.CENTER_LEFT);
    hand.setMinHeight(big ? 260 : 112);
    hand.getStyleClass().add("told");
    VBox.setVgrow(rungs, Priority.ALWAYS);
    board = new VBox(6, hand, rungs);
    VBox.setVgrow(build, Priority.ALWAYS);
    stop.setMinHeight(104);
    stop.setPrefHeight(116);
    Label stopHead = new Label("When the lot is decided");
    stopHead.getStyleClass().add("small-head");
    decided.getStyleClass().add("sheet-line");
    decided.setId("prove-decided");
    HBox line = new HBox(12, stopHead, decided);
    line.setAlignment(Pos.BASELINE_LEFT);
    every = new VBox(6, build, line, stop);
    StackPane faces = new StackPane(board, every);
    VBox.setVgrow(faces, Priority.ALWAYS);
    getChildren().addAll(heads, faces);
    model.shownProperty().addListener((_, _, s) -> fill(s));
    fill(model.shownProperty().get());
  }

  private void fill(ProveModel.Shown s) {
    if (s == null) {
      return;
    }
    every.setVisible(s.every());
    board.setVisible(!s.every());
    if (s.every()) {
      build(s);
    } else {
      board(s);
    }
  }

  private void build(ProveModel.Shown s) {
    build.show(s);
    stop.show(s);
    decided.setText(s.build().isEmpty() ? "" : stop.words());
    heads.show(
        s.build()
            .flatMap(BuildProof::yield)
            .map(y ->
                String.format(
                    Locale.ROOT,
                    "Build %d · first-pass yield %.0f %%, %.0f to %.0f %%",
                    s.buildId(),
                    100 * y.value(),
                    100 * y.low(),
                    100 * y.high()))
            .orElse("Build " + s.buildId() + " · no board is tested yet"),
        s.build()
            .map(b ->
                b.passed()
                    + " of "
                    + b.tested()
                    + " passed at first"
                    + b.rolled()
                        .map(r ->
                            String.format(
                                Locale.ROOT, ", all tests together %.0f %%", 100 * r.value()))
                        .orElse("")
                    + ". A tick for each board; taller and named where it is in hand, out (crossed) or"
                    + " stands apart. M for the board.")
            .orElse("Being worked out."));
  }

  private void board(ProveModel.Shown s) {
    rungs.show(s);
    String plan =
        s.plan()
            .map(p ->
                String.format(
                    Locale.ROOT,
                    "%s, %d steps, %.1f min",
                    p.name(),
                    p.turns().size(),
                    p.minutes(false)))
            .orElse("being worked out");
    heads.show("Proof · board " + s.work().board(), "Plan: " + plan + "." + spent(s));
    word.setVisible(s.told().isPresent() && !s.runs());
    s.told()
        .ifPresent(t -> {
          word.setText(t.word());
          word.setAccessibleText(t.word() + ". " + t.todo());
        });
    hand(s);
  }

  private static String spent(ProveModel.Shown s) {
    return s.facts()
        .lastEnded()
        .flatMap(r -> r.ended())
        .map(l ->
            String.format(
                Locale.ROOT,
                " The last took %.2g min.",
                ((ell.core.entry.Entry.ProofEnded) l.entry()).minutes()))
        .orElse("");
  }

  private void hand(ProveModel.Shown s) {
    getStyleClass().removeAll("wrong");
    word.getStyleClass().removeAll("wrong");
    Optional<RunningProof.Question> q = s.question();
    number.setVisible(q.filter(x -> !x.yesOrNo()).isPresent());
    if (q.isPresent()) {
      what.setText(q.get().words());
      detail.setText(
          q.get().yesOrNo()
              ? "Space for yes, X for no, K leaves it out"
              : "type it, Enter" + (q.get().wants().isEmpty() ? "" : "; in " + q.get().wants()));
      number.setAccessibleText(q.get().words());
      if (number.isVisible() && !q.equals(asked)) {
        number.requestFocus();
      }
      asked = q;
      return;
    }
    asked = Optional.empty();
    if (s.runs()) {
      what.setText(s.now().map(n -> n.turn().step().act().words()).orElse("getting ready"));
      detail.setText(
          (s.paused() ? "Waits; Space goes on. " : "")
              + s.now()
                  .map(n ->
                      n.at()
                          + " of "
                          + n.of()
                          + n.expected()
                              .limits()
                              .map(l ->
                                  " · expect "
                                      + l.text(n.turn().step().act().reads().orElse(Unit.ONE), 4))
                              .orElse(""))
                  .orElse("")
              + (s.on() ? " · OUTPUT ON, O switches off" : ""));
      return;
    }
    if (s.told().isPresent()) {
      if (s.told().get().wrong()) {
        word.getStyleClass().add("wrong");
      }
      what.setText(s.told().get().todo());
      detail.setText(
          String.join(
              "\n",
              s.said().isEmpty()
                  ? s.told().get().ticket().stream().limit(3).toList()
                  : java.util.List.of(s.said())));
      return;
    }
    what.setText(
        s.blocks().isEmpty()
            ? "Space proves this board"
            : "The plan cannot run: " + s.blocks().getFirst());
    detail.setText(
        s.said().isEmpty()
            ? "One step after the other, each in the book before the next; output off at the first"
                + " surprise."
            : s.said());
  }
}
