package ell.work.power;

import ell.core.board.PartKind;
import ell.core.entry.Entry;
import ell.core.power.BeforePower;
import ell.core.power.Ladder;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Quantity;
import ell.core.quantity.Unit;
import ell.core.rack.Stage;
import ell.work.tape.Meaning;
import ell.work.tape.Said;
import ell.work.tape.Verb;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Words of the tape about readings. It is asked last: what is no reading either is free words.
public final class PowerVerbs {
  private static final Pattern IN_JIG = Pattern.compile("(.*\\S)\\s+in\\s+jig\\s+(\\S+)");

  /// The verbs.
  public static final List<Verb> ALL =
      List.of(
          Verb.first(
                  "off",
                  "off [WORDS]",
                  "the supply's output is off, as you have seen yourself: ends the warning that it"
                      + " may be on",
                  s ->
                      Meaning.ready(
                          Entry.Supply.off(s.rest().isEmpty() ? "seen to be off" : s.rest())),
                  "off",
                  "off at the wall")
              .of(Stage.POWER),
          Verb.at(
                  "out|in|alone",
                  "PLACE out, in or alone",
                  "how a cell, a module or a cable stands; alone: nothing but the supply feeds a rail",
                  s -> Meaning.ready(new Entry.Stands(s.place(), s.word(), s.rest())),
                  "M1 out",
                  "VIN alone")
              .of(Stage.POWER),
          Verb.at(
                  "ripple",
                  "RAIL ripple VOLTS",
                  "what a scope shows on a rail, peak to peak, judged by what the rail has left to its"
                      + " limits",
                  PowerVerbs::ripple,
                  "3V3 ripple 24mV")
              .of(Stage.POWER),
          Verb.first(
                  "so",
                  "so",
                  "all of what must be so before first power is so: you looked",
                  PowerVerbs::so,
                  "so")
              .of(Stage.POWER),
          Verb.form(
                  "PLACE READING",
                  "a reading, judged where the place is a rail; without a unit it is in the usual one"
                      + " of the place; the current of a source may name the state it was read in, volts"
                      + " the jig",
                  s -> Optional.of(reading(s)),
                  "3V3 3.287",
                  "TP4 3287mV",
                  "U2.5 3,29",
                  "VIN 45mA",
                  "VIN_RAW 13mA boot",
                  "3V3 3.281 in jig J1",
                  "R5 9.98k",
                  "U1 61 °C")
              .of(Stage.POWER));

  private PowerVerbs() {}

  private static Meaning ripple(Said s) {
    if (s.places().railAt(s.place()).isEmpty()) {
      return Meaning.wrong(s.place() + " is no rail of the ladder, nor read at one");
    }
    if (s.rest().isEmpty()) {
      return Meaning.unfinished("volts, peak to peak");
    }
    try {
      double v = EngineeringNumber.parse(s.rest(), Unit.VOLT);
      return v >= 0
          ? Meaning.ready(Readings.ripple(s.places(), s.state(), s.place(), v))
          : Meaning.wrong("ripple is peak to peak, and not below 0 V");
    } catch (NumberFormatException e) {
      return Meaning.wrong(e.getMessage());
    }
  }

  private static Meaning so(Said s) {
    List<Entry> all =
        List.copyOf(BeforePower.allSo(s.plan().revision(), s.plan().ladder(), s.state()));
    return all.isEmpty()
        ? Meaning.wrong("nothing must be so that the book does not have")
        : Meaning.ready(all);
  }

  private static Meaning reading(Said said) {
    String rest = said.rest();
    String place = said.place();
    Matcher jig = IN_JIG.matcher(rest);
    String with = "";
    if (jig.matches()) {
      rest = jig.group(1).strip();
      with = "jig " + jig.group(2);
    }
    String state = rest.substring(rest.lastIndexOf(' ') + 1);
    boolean stated = rest.contains(" ") && Ladder.STATES.contains(state);
    if (stated) {
      rest = rest.substring(0, rest.lastIndexOf(' ')).strip();
    }
    Quantity q;
    try {
      q = EngineeringNumber.read(rest, unitAt(said));
    } catch (NumberFormatException e) {
      return rest.matches("[+-−]?[\\d.,].*") && rest.split("\\s+").length <= 2
          ? Meaning.wrong(e.getMessage())
          : Meaning.ready(new Entry.Note(place + " " + rest));
    }
    if (q.unit() == Unit.ONE) {
      return Meaning.wrong(
          "'"
              + rest
              + "' has no unit, and "
              + place
              + " does not tell which: say V, A, Ω, °C or Hz");
    }
    if (stated) {
      return q.unit() == Unit.AMPERE
              && said.plan().ladder().sources().stream().anyMatch(s -> s.rail().equals(place))
          ? Meaning.ready(Readings.inState(said.places(), place, q, state))
          : Meaning.wrong("in a state the current of a source is read, such as VIN 1.38mA idle");
    }
    return Meaning.ready(Readings.of(said.places(), place, q, with));
  }

  private static Unit unitAt(Said said) {
    Optional<PartKind> kind = said.places().kindAt(said.place());
    boolean pin = said.place().contains(".") && said.plan().revision().part(said.place()).isEmpty();
    if (kind.isEmpty() || pin || kind.get() == PartKind.TEST_POINT) {
      return Unit.VOLT;
    }
    return switch (kind.get()) {
      case RESISTOR -> Unit.OHM;
      case CAPACITOR -> Unit.FARAD;
      case INDUCTOR, FERRITE -> Unit.HENRY;
      case CRYSTAL -> Unit.HERTZ;
      default -> Unit.ONE;
    };
  }
}
