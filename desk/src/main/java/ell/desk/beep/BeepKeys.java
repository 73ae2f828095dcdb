package ell.desk.beep;

import ell.desk.key.Command;
import java.util.List;
import java.util.function.BooleanSupplier;

/// What can be done by key at the beeping.
final class BeepKeys {
  private BeepKeys() {}

  static List<Command> of(BeepModel beep, BooleanSupplier here) {
    return List.of(
        Command.of("open-loop", "Beep", "open loop", "O", beep::openLoop).inLine().when(here),
        Command.of("listen", "Beep", "listen", "V", beep::listen).inLine().when(here),
        Command.of("guards", "Beep", "all guards", "G", beep::measureGuards).inLine().when(here));
  }
}
