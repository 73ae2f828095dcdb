package ell.core.prove;

import ell.core.jig.Patterns;
import ell.core.quantity.Unit;
import java.util.List;
import java.util.Optional;

/// What a step of a test plan does.
public sealed interface TestAct {
  /// Reads ohms between two places of a board without power.
  record Ohms(String a, String b) implements TestAct {}

  /// First power, by the ladder and its rules; the output stays on.
  record Power() implements TestAct {}

  /// The output goes off.
  record Off() implements TestAct {}

  /// Sets a source to other volts, within what it may give.
  record Level(String rail, double volts) implements TestAct {}

  /// Reads volts at a place.
  record Volts(String place) implements TestAct {}

  /// Reads what a source gives.
  ///
  /// @param state of the board while it is read, as the ladder names them
  record Amps(String rail, String state) implements TestAct {}

  /// Takes a capture.
  ///
  /// @param measure that is judged, empty for the signature and everything that is wanted there
  record Wave(String place, String measure) implements TestAct {}

  /// Feels how warm a part is.
  record Feel(String part) implements TestAct {}

  /// Runs a script that is kept with the revision.
  record Talk(String script) implements TestAct {}

  /// Sends a line and waits for an answer.
  ///
  /// @param text to send, empty to listen only
  /// @param expect a pattern that must be heard
  /// @param within seconds
  record Say(String text, String expect, double within) implements TestAct {}

  /// Asks the person.
  ///
  /// @param wants `yes` or `no`, empty when a number is asked for
  /// @param unit of the number
  record Ask(String question, String wants, Unit unit) implements TestAct {}

  /// Waits.
  record Pause(double seconds) implements TestAct {}

  /// Something is plugged in or out, a link is opened or closed.
  ///
  /// @param stand `in`, `out`, `open` or `closed`
  record Stand(String place, String stand) implements TestAct {}

  /// Puts patterns on outputs and reads every one of them back.
  ///
  /// @param send what is said to the board for a vector, with `{vector}` in it; empty where the
  ///   person sets it
  record Vectors(Patterns.Kind kind, List<String> nets, String send) implements TestAct {
    public Vectors {
      nets = List.copyOf(nets);
    }
  }

  /// Whether the board needs power for it.
  default boolean powered() {
    return switch (this) {
      case Volts _, Amps _, Wave _, Feel _, Talk _, Say _, Level _, Vectors _ -> true;
      default -> false;
    };
  }

  /// The kind of instrument that it cannot do without, as a bench names it.
  default Optional<String> instrument() {
    return switch (this) {
      case Ohms _, Volts _, Vectors _ -> Optional.of("meter");
      case Power _, Level _, Amps _ -> Optional.of("supply");
      case Wave _ -> Optional.of("scope");
      case Talk _, Say _ -> Optional.of("line");
      default -> Optional.empty();
    };
  }

  /// Whether it tells something of the board: what only prepares a test is no test.
  default boolean tests() {
    return switch (this) {
      case Off _, Level _, Pause _, Stand _ -> false;
      default -> true;
    };
  }

  /// The unit of what is read; empty for what is not a number.
  default Optional<Unit> reads() {
    return switch (this) {
      case Ohms _ -> Optional.of(Unit.OHM);
      case Volts _ -> Optional.of(Unit.VOLT);
      case Amps _ -> Optional.of(Unit.AMPERE);
      case Feel _ -> Optional.of(Unit.CELSIUS);
      case Wave w -> w.measure().isEmpty() ? Optional.empty() : measure(w.measure());
      case Ask a -> a.wants().isEmpty() ? Optional.of(a.unit()) : Optional.empty();
      default -> Optional.empty();
    };
  }

  /// Measures of a capture that can be judged alone, and their units.
  static Optional<Unit> measure(String name) {
    return Optional.ofNullable(ell.core.pulse.Measures.NAMES.get(name));
  }

  /// Minutes that it takes, where nobody said how long: by hand, typical, no source.
  ///
  /// @param inJig whether probes touch, not hands
  default double minutes(boolean inJig) {
    return switch (this) {
      case Ohms _, Volts _ -> inJig ? 0.02 : 0.15;
      case Power _ -> 0.2;
      case Off _ -> 0.02;
      case Level _, Amps _ -> 0.05;
      case Wave _ -> inJig ? 0.1 : 0.5;
      case Feel _ -> 0.1;
      case Talk _ -> 0.5;
      case Say _ -> 0.05;
      case Ask _ -> 0.1;
      case Pause p -> p.seconds() / 60;
      case Stand _ -> 0.3;
      case Vectors v ->
          (inJig ? 0.02 : 0.15)
              * v.nets().size()
              * Patterns.of(v.kind(), v.nets().size()).vectors().size();
    };
  }

  /// The name of the test where the plan gives none.
  default String usualName() {
    return switch (this) {
      case Ohms o -> o.a() + " to " + o.b();
      case Power _ -> "power";
      case Off _ -> "off";
      case Level l -> "set " + l.rail();
      case Volts v -> v.place();
      case Amps a -> a.rail() + " current " + a.state();
      case Wave w -> w.place() + (w.measure().isEmpty() ? " signal" : " " + w.measure());
      case Feel f -> f.part() + " warmth";
      case Talk t -> t.script();
      case Say s -> s.text().isBlank() ? "listen" : s.text().strip();
      case Ask a -> a.question();
      case Pause _ -> "wait";
      case Stand s -> s.place() + " " + s.stand();
      case Vectors v -> v.kind().key() + " pattern";
    };
  }

  /// What it does, for the one who stands at the bench.
  default String words() {
    return switch (this) {
      case Ohms o -> "ohms from " + o.a() + " to " + o.b() + ", no power";
      case Power _ -> "power on, by the ladder";
      case Off _ -> "power off";
      case Level l ->
          l.rail() + " to " + ell.core.quantity.EngineeringNumber.print(l.volts(), Unit.VOLT, 4);
      case Volts v -> "volts at " + v.place();
      case Amps a -> "current of " + a.rail() + ", " + a.state();
      case Wave w -> "capture " + w.place() + (w.measure().isEmpty() ? "" : ", " + w.measure());
      case Feel f -> "how warm is " + f.part();
      case Talk t -> "talk: " + t.script();
      case Say s -> "say " + usualName() + ", expect " + s.expect();
      case Ask a -> a.question();
      case Pause p -> String.format(java.util.Locale.ROOT, "wait %.3g s", p.seconds());
      case Stand s ->
          switch (s.stand()) {
            case "in" -> "plug in " + s.place();
            case "out" -> "take out " + s.place();
            default -> "link " + s.place() + " " + s.stand();
          };
      case Vectors v -> v.kind().key() + " pattern over " + String.join(", ", v.nets());
    };
  }
}
