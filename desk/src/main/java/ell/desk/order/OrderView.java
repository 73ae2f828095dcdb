package ell.desk.order;

import ell.core.board.Side;
import ell.core.order.Step;
import ell.desk.mark.BoardDrawing;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Heads;
import java.util.Set;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.util.Duration;

/// The board in ink, the sequence with its gates, the step in hand.
public final class OrderView extends VBox {
  private final Heads heads = new Heads();
  private final BoardDrawing board = new BoardDrawing();
  private final SequencePicture sequence = new SequencePicture();
  private final StepCard card;
  private final OrderModel model;

  /// A view of a model.
  ///
  /// @param big whether the step card fills the window
  public OrderView(DeskModel desk, OrderModel model, boolean big) {
    this.model = model;
    getStyleClass().add("stage");
    setFillWidth(true);
    card = new StepCard(big);
    board.nightProperty().bind(desk.nightProperty());
    sequence.nightProperty().bind(desk.nightProperty());
    board.onPart(model::name);
    board.setId("board-drawing");
    VBox.setVgrow(board, Priority.ALWAYS);
    if (big) {
      getStyleClass().add("big");
      getChildren().addAll(card, board);
    } else {
      getChildren().addAll(heads, board, sequence, card);
      sequence.onStep(i -> model.move(i - (model.shownProperty().get().step().number() - 1)));
    }
    model.shownProperty().addListener((_, _, s) -> fill(s));
    fill(model.shownProperty().get());
    // the card's clock; it stands still while the view is not on screen
    Timeline clock =
        new Timeline(
            new KeyFrame(
                Duration.seconds(1),
                _ -> {
                  OrderModel.Shown now = model.shownProperty().get();
                  if (now != null && getScene() != null) {
                    card.time(model.elapsed(), now.expected());
                  }
                }));
    clock.setCycleCount(Animation.INDEFINITE);
    sceneProperty()
        .addListener((_, _, scene) -> {
          if (scene == null) {
            clock.stop();
          } else {
            clock.play();
          }
        });
  }

  /// Zooms the drawing by a factor.
  public void zoom(double factor) {
    board.zoom(factor);
  }

  private void fill(OrderModel.Shown s) {
    if (s == null) {
      return;
    }
    var order = s.work().plan().order();
    long parts = order.steps().stream().mapToLong(x -> x.parts().size()).sum();
    long gates = order.steps().stream().filter(x -> x.gate().isPresent()).count();
    heads.show(
        String.format(
            java.util.Locale.ROOT,
            "Order · %d parts, %d %s, %.0f min a board",
            parts,
            gates,
            gates == 1 ? "gate" : "gates",
            s.minutes()),
        (s.side() == Side.SECOND
                ? "Second side, drawn as one sees it when the board is turned. "
                : "First side. ")
            + s.doneSteps()
            + " of "
            + order.steps().size()
            + " steps are done on board "
            + s.work().board()
            + ".");
    board.show(
        s.work().plan().revision(),
        s.side(),
        s.placed(),
        s.step().action() == Step.Action.GATE ? Set.of() : s.inHand(),
        s.faulty());
    sequence.show(s);
    card.show(s);
    card.time(model.elapsed(), s.expected());
  }
}
