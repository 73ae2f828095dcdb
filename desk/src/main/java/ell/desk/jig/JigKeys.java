package ell.desk.jig;

import ell.desk.key.Command;
import java.util.List;
import java.util.function.BooleanSupplier;

/// What can be done by key at a jig.
final class JigKeys {
  private JigKeys() {}

  static List<Command> of(JigModel m, BooleanSupplier here) {
    BooleanSupplier there = () -> here.getAsBoolean() && m.shownProperty().get() != null;
    BooleanSupplier finger = () -> here.getAsBoolean() && m.atFinger();
    return List.of(
        Command.of("jig-keep", "Jig", "keep the fingers here", "K", m::keep)
            .inLine()
            .when(() -> here.getAsBoolean() && m.canKeep()),
        Command.of("jig-free", "Jig", "let the fingers be chosen", "L", m::letGo).when(there),
        Command.of("jig-top", "Jig", "probes from above, or none", "T", m::top)
            .inLine()
            .when(there),
        Command.of("jig-reach", "Jig", "reach tests, power or all", "A", m::reach)
            .inLine()
            .when(there),
        Command.of("jig-left", "Jig", "finger to the left", "Shift+Left", () -> m.shift(-1, 0))
            .when(finger),
        Command.of("jig-right", "Jig", "finger to the right", "Shift+Right", () -> m.shift(1, 0))
            .when(finger),
        Command.of("jig-up", "Jig", "finger up", "Shift+Up", () -> m.shift(0, 1)).when(finger),
        Command.of("jig-down", "Jig", "finger down", "Shift+Down", () -> m.shift(0, -1))
            .when(finger));
  }
}
