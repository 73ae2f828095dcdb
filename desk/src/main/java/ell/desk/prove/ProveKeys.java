package ell.desk.prove;

import ell.desk.key.Command;
import ell.desk.shell.Host;
import ell.desk.shell.SayEditor;
import java.util.List;
import java.util.function.BooleanSupplier;

/// What can be done by key at a proof.
final class ProveKeys {
  private ProveKeys() {}

  static List<Command> of(ProveModel m, Host host, BooleanSupplier here) {
    BooleanSupplier live = () -> here.getAsBoolean() && m.live();
    BooleanSupplier still =
        () -> here.getAsBoolean() && m.shownProperty().get() != null && !m.live();
    return List.of(
        Command.of("prove-no", "Prove", "no", "X", m::no)
            .inLine()
            .when(() -> here.getAsBoolean() && m.asked()),
        Command.of("prove-stop", "Prove", "stop, output off", "O or Esc", m::stop)
            .inLine()
            .when(live),
        Command.of("prove-pause", "Prove", "wait, or go on", "P", m::pause).inLine().when(live),
        Command.of("prove-again", "Prove", "the last step again", "A", m::repeat).when(live),
        Command.of("prove-skip", "Prove", "leave this step out", "K", () -> skip(m, host))
            .inLine()
            .when(live),
        Command.of("prove-every", "Prove", "every board, or this one", "M", m::turn)
            .inLine()
            .when(here),
        Command.of("prove-plan", "Prove", "edit the test plan", "L", () -> plan(m, host))
            .when(still),
        Command.of("prove-use", "Prove", "what its use asks for", "U", () -> use(m, host))
            .when(still),
        Command.of("prove-release", "Prove", "it leaves the bench", "E", m::release).when(still));
  }

  private static void skip(ProveModel m, Host host) {
    host.lay(
        new SayEditor(
            new SayEditor.Asks(
                "prove-skip",
                "Leave this step out",
                List.of("It is in the book as left out, and the board is not settled by it."),
                "Why?",
                "",
                List.of("the probe is broken", "this board has no radio")),
            m::skip,
            host::clear));
  }

  private static void use(ProveModel m, Host host) {
    List<String> said = m.shownProperty().get().rules().text().lines().toList();
    host.lay(
        new SayEditor(
            new SayEditor.Asks(
                "prove-use",
                "What must be so before a board is used",
                said,
                "One more, nothing behind the = takes it back",
                "",
                List.of(
                    "use=charges", "use=flies,moves", "heats=2", "confidence=0.99", "proofs=3")),
            m::say,
            host::clear));
  }

  private static void plan(ProveModel m, Host host) {
    m.planText().ifPresent(t -> host.lay(new PlanEditor(t, m::keepPlan, host::clear)));
  }
}
