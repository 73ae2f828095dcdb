package ell.desk.window;

import ell.core.order.Wish;
import ell.core.rack.Stage;
import ell.desk.key.Command;
import ell.desk.order.OrderModel;
import ell.desk.shell.DeskModel;
import java.util.List;
import java.util.function.BooleanSupplier;



/// What can be done by key at the order.
final class OrderCommands {
  private OrderCommands() {}

  static List<Command> of(DeskModel desk, OrderModel order) {
    BooleanSupplier here = () -> Commands.at(desk, Stage.ORDER);
    BooleanSupplier placing = () -> here.getAsBoolean() && order.placing();
    return List.of(
        Command.of("all-boards", "Order", "done on all boards", "A", order::doneOnAll)
            .when(() -> here.getAsBoolean() && order.canBeDone()),
        Command.of("turn", "Order", "look at the other side", "T", order::turnOver).when(here),
        Command.of("sheet", "Order", "other sheet", "M", order::nextSheet).when(here),
        Command.of("sooner", "Order", "sooner", "Shift+Left", () -> order.reorder(-1))
            .when(placing),
        Command.of("later", "Order", "later", "Shift+Right", () -> order.reorder(1)).when(placing),
        Command.of(
                "pin-first",
                "Order",
                "first of its side or block",
                "Shift+Up",
                () -> order.wish(Wish.Kind.FIRST))
            .when(placing),
        Command.of(
                "pin-last",
                "Order",
                "last of its side or block",
                "Shift+Down",
                () -> order.wish(Wish.Kind.LAST))
            .when(placing),
        Command.of(
                "by-hand",
                "Order",
                "by hand, never in paste",
                "H",
                () -> order.wish(Wish.Kind.BY_HAND))
            .when(placing),
        Command.of(
                "forget-wishes",
                "Order",
                "forget every wish",
                "Shift+Backspace",
                order::forgetWishes)
            .when(() -> here.getAsBoolean() && order.hasWishes()));
  }
}
