package ell.desk.order;

import ell.core.board.Block;
import ell.core.order.Step;
import ell.core.rack.Stage;
import ell.desk.key.Command;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Player;
import ell.desk.shell.StageModel;
import ell.desk.shell.Station;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;

/// The order in the window.
public final class OrderStation extends Station {
  private final OrderModel model;
  private OrderView big;

  /// The order on a desk.
  public OrderStation(DeskModel desk) {
    super(desk);
    this.model = new OrderModel(desk);
  }

  @Override
  public Stage stage() {
    return Stage.ORDER;
  }

  @Override
  public StageModel model() {
    return model;
  }

  @Override
  protected Node makeView() {
    return new OrderView(desk, model, false);
  }

  @Override
  public List<Command> commands() {
    return OrderKeys.of(model, here());
  }

  @Override
  public Optional<Node> bigView() {
    big = new OrderView(desk, model, true);
    return Optional.of(big);
  }

  @Override
  public void zoom(double factor) {
    if (desk.navigation().bigProperty().get() && big != null) {
      big.zoom(factor);
    } else {
      ((OrderView) view()).zoom(factor);
    }
  }

  @Override
  public List<Shot> shots() {
    return List.of(
        new Shot(
            "order",
            p -> {
              p.board("08");
              p.stage(stage());
            }),
        new Shot("step-card", p -> p.key(KeyCode.B), p -> p.key(KeyCode.B)));
  }

  /// The first steps by key, the rest up to the first gate as a line.
  @Override
  public void perform(Player p) throws IOException {
    p.stage(stage());
    for (int i = 0; i < 3; i++) {
      p.logs("the step is logged", KeyCode.SPACE);
    }
    p.picture("order");
    List<Step> steps = p.work().plan().order().steps();
    int last =
        steps.stream().filter(s -> s.gate().isPresent()).findFirst().orElseThrow().number() - 1;
    p.tape("steps 4-" + last);
    Block block = p.work().plan().blocks().getFirst();
    p.tell(
        "Order",
        steps.size()
            + " steps, "
            + Math.round(p.work().plan().order().minutes())
            + " min a board; board "
            + p.work().board()
            + " is built up to gate "
            + block.gate());
  }
}
