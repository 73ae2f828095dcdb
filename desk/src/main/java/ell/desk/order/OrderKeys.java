package ell.desk.order;

import ell.core.order.Wish;
import ell.desk.key.Command;
import java.util.List;
import java.util.function.BooleanSupplier;

/// What can be done by key at the order.
final class OrderKeys {
  private OrderKeys() {}

  static List<Command> of(OrderModel order, BooleanSupplier here) {
    BooleanSupplier placing = () -> here.getAsBoolean() && order.placing();
    return List.of(
        Command.of("all-boards", "Order", "done on all boards", "A", order::doneOnAll)
            .inLine()
            .when(() -> here.getAsBoolean() && order.canBeDone()),
        Command.of("whole", "Order", "the whole step, all its rows", "W", order::wholeStep)
            .inLine()
            .when(() -> here.getAsBoolean() && order.byRows()),
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
        Command.of("by-house", "Order", "the assembly house fits it", "Shift+H", order::byHouse)
            .when(placing),
        Command.of(
                "other-side",
                "Order",
                "melt the other side first",
                "Shift+T",
                order::otherSideFirst)
            .when(() -> here.getAsBoolean() && order.twoPasted()),
        Command.of(
                "forget-wishes",
                "Order",
                "forget every wish",
                "Shift+Backspace",
                order::forgetWishes)
            .when(() -> here.getAsBoolean() && order.hasWishes()));
  }
}
