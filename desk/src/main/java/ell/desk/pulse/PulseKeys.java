package ell.desk.pulse;

import ell.desk.key.Command;
import ell.desk.shell.FileAsker;
import ell.desk.shell.Host;
import java.util.List;
import java.util.function.BooleanSupplier;

/// What can be done by key at the lines.
final class PulseKeys {
  private PulseKeys() {}

  static List<Command> of(PulseModel pulse, FileAsker files, Host host, BooleanSupplier here) {
    return List.of(
        Command.of(
                "take-capture",
                "Pulse",
                "a capture from a file",
                "L",
                () -> files.capture().ifPresent(pulse::take))
            .inLine()
            .when(here),
        Command.of("stop-reading", "Pulse", "stop reading", "X", pulse::stopReading)
            .inLine()
            .when(() -> here.getAsBoolean() && pulse.reads()),
        Command.of("cursor", "Pulse", "the other cursor", "C", pulse::otherCursor).when(here),
        Command.of(
                "every-board",
                "Pulse",
                "this place of every board, or of the one in hand",
                "M",
                pulse::turn)
            .inLine()
            .when(here),
        Command.of("line", "Pulse", "the net as a line, or the capture", "K", pulse::turnLine)
            .inLine()
            .when(here),
        Command.of(
                "say-line",
                "Pulse",
                "say what should be there",
                "W",
                () -> host.lay(WantedEditor.of(pulse, host::clear)))
            .inLine()
            .when(here));
  }
}
