package ell.desk.heat;

import ell.desk.key.Command;
import ell.desk.shell.FileAsker;
import java.util.List;
import java.util.function.BooleanSupplier;

/// What can be done by key at the heat.
final class HeatKeys {
  private HeatKeys() {}

  static List<Command> of(HeatModel heat, FileAsker files, BooleanSupplier here) {
    return List.of(
        Command.of("plate-off", "Heat", "plate off", "O or Esc", heat::off)
            .inLine()
            .whileTypingToo()
            .when(() -> here.getAsBoolean() && heat.live()),
        Command.of("iron", "Heat", "iron, or plate", "I", heat::turn)
            .inLine()
            .when(() -> here.getAsBoolean() && !heat.live()),
        Command.of(
                "take-log",
                "Heat",
                "logged run",
                "L",
                () -> files.profileLog().ifPresent(heat::take))
            .inLine()
            .when(() -> here.getAsBoolean() && !heat.live()),
        Command.of("heat-sheet", "Heat", "other sheet", "M", heat::nextSheet).when(here));
  }
}
