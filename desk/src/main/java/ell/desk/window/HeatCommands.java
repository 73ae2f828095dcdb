package ell.desk.window;

import ell.core.rack.Stage;
import ell.desk.heat.HeatModel;
import ell.desk.key.Command;
import ell.desk.shell.DeskModel;
import java.util.List;
import java.util.function.BooleanSupplier;



/// What can be done by key at the heat.
final class HeatCommands {
  private HeatCommands() {}

  static List<Command> of(DeskModel desk, HeatModel heat, FileAsker files) {
    BooleanSupplier here = () -> Commands.at(desk, Stage.HEAT);
    return List.of(
        Command.of("plate-off", "Heat", "plate off", "O or Esc", heat::off)
            .whileTypingToo()
            .when(() -> here.getAsBoolean() && heat.live()),
        Command.of("iron", "Heat", "iron, or plate", "I", heat::turn)
            .when(() -> here.getAsBoolean() && !heat.live()),
        Command.of(
                "take-log",
                "Heat",
                "take in a logged run",
                "L",
                () -> files.profileLog().ifPresent(heat::take))
            .when(() -> here.getAsBoolean() && !heat.live()),
        Command.of("heat-sheet", "Heat", "other sheet", "M", heat::nextSheet).when(here));
  }
}
