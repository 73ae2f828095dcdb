package ell.desk.revise;

import ell.desk.key.Command;
import ell.desk.shell.Host;
import ell.desk.shell.SayEditor;
import java.util.List;
import java.util.function.BooleanSupplier;

/// What can be done by key at errata.
final class ReviseKeys {
  private ReviseKeys() {}

  static List<Command> of(ReviseModel m, Host host, BooleanSupplier here, BooleanSupplier board) {
    BooleanSupplier there = () -> here.getAsBoolean() && m.shownProperty().get() != null;
    BooleanSupplier erratum = () -> here.getAsBoolean() && m.atErratum();
    return List.of(
        Command.of(
                "erratum", "Revise", "an erratum from what was found last", "Shift+E", m::fromLast)
            .when(board),
        Command.of("revise-page", "Revise", "boards, list, or what was learned", "L", m::turn)
            .inLine()
            .when(there),
        Command.of("revise-bodge", "Revise", "how it is mended", "M", () -> m.begin("bodge"))
            .inLine()
            .when(erratum),
        Command.of("revise-proof", "Revise", "what shows it", "P", () -> m.begin("proof"))
            .when(erratum),
        Command.of(
                "revise-fix",
                "Revise",
                "what the next drawing should have",
                "G",
                () -> m.begin("fix"))
            .when(erratum),
        Command.of("revise-severity", "Revise", "how bad it is", "S", () -> m.begin("severity"))
            .when(erratum),
        Command.of("revise-not", "Revise", "not needed here, or undone", "X", m::notNeeded)
            .inLine()
            .when(erratum),
        Command.of("revise-close", "Revise", "close it", "K", () -> m.begin("closed"))
            .when(erratum),
        Command.of("revise-say", "Revise", "prices and times", "V", () -> say(m, host)).when(there),
        Command.of("revise-decide", "Revise", "decide", "D", m::decide).inLine().when(there),
        Command.of("revise-print", "Revise", "print the list and the cards", "W", m::print)
            .when(there));
  }

  private static void say(ReviseModel m, Host host) {
    host.lay(
        new SayEditor(
            new SayEditor.Asks(
                "revise-say",
                "What boards, work and delay cost",
                m.said(),
                "One more, nothing behind the = takes it back",
                "",
                List.of(
                    "board-cost=9",
                    "lead-days=14",
                    "delay-per-day=25",
                    "success-chance=90%",
                    "hour-rate=40")),
            m::say,
            host::clear));
  }
}
