package ell.desk.power;

import ell.desk.key.Command;
import ell.desk.shell.Host;
import java.util.List;
import java.util.function.BooleanSupplier;

/// What can be done by key at power.
final class PowerKeys {
  private PowerKeys() {}

  static List<Command> of(PowerModel power, Host host, BooleanSupplier here) {
    return List.of(
        Command.of(
                "off", "Power", "output off", "O or Esc", () -> power.off("switched off by hand"))
            .inLine()
            .when(() ->
                here.getAsBoolean() && (power.live() || !power.alarmProperty().get().isEmpty())),
        Command.of("so", "Power", "what must be so first, is so", "Y", power::allSo)
            .when(() -> here.getAsBoolean() && power.asksBefore()),
        Command.of(
                "ladder",
                "Power",
                "edit the power ladder",
                "L",
                () -> host.lay(new LadderEditor(power, host::clear)))
            .when(here),
        Command.of(
                "every-board",
                "Power",
                "the rails of every board, or the ladder",
                "M",
                power.everyBoard()::turn)
            .when(here));
  }
}
