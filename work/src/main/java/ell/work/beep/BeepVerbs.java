package ell.work.beep;

import ell.core.beep.BeepCheck;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.rack.Stage;
import ell.work.tape.Meaning;
import ell.work.tape.Said;
import ell.work.tape.Verb;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/// Words of the tape about the checks before power.
public final class BeepVerbs {
  /// The verbs.
  public static final List<Verb> ALL =
      List.of(
          Verb.first(
                  "beep",
                  "beep N OHMS or open",
                  "a check of the beep list by its number",
                  BeepVerbs::beep,
                  "beep 7 2.3",
                  "beep 1 open")
              .of(Stage.BEEP),
          Verb.form(
                  "PLACE PLACE OHMS or open",
                  "a check of the beep list by its two places",
                  BeepVerbs::between,
                  "3V3 GND open")
              .of(Stage.BEEP));

  private BeepVerbs() {}

  private static Meaning beep(Said said) {
    String[] words = said.two();
    int most = said.plan().beep().checks().size();
    if (!words[0].matches("\\d{1,7}")) {
      return Meaning.unfinished("beep, the number of the check (1 to " + most + "), the reading");
    }
    int number = Integer.parseInt(words[0]);
    if (number < 1 || number > most) {
      return Meaning.wrong("checks go from 1 to " + most + ", found " + number);
    }
    BeepCheck c = said.plan().beep().checks().get(number - 1);
    return words[1].isEmpty()
        ? Meaning.unfinished(
            "the reading in ohms, or open; expect " + c.expected().text(Unit.OHM, 3))
        : checked(c, words[1]);
  }

  private static Meaning checked(BeepCheck c, String reading) {
    if (reading.toLowerCase(Locale.ROOT).matches("open|ol|inf|infinite|no beep|∞")) {
      return Meaning.ready(c.read(Double.POSITIVE_INFINITY));
    }
    try {
      double ohms = EngineeringNumber.parse(reading, Unit.OHM);
      return ohms < 0
          ? Meaning.wrong("ohms are not below 0, found '" + reading + "'")
          : Meaning.ready(c.read(ohms));
    } catch (NumberFormatException e) {
      return Meaning.wrong(e.getMessage() + ", or open");
    }
  }

  /// Two places and ohms: a check of the beep list between their nets.
  private static Optional<Meaning> between(Said said) {
    String second = said.two()[0];
    String reading = said.two()[1];
    String place = said.place();
    Optional<String> other = said.places().find(second);
    Optional<String> a = said.places().netAt(place);
    Optional<String> b = other.flatMap(said.places()::netAt);
    if (b.isEmpty() || a.isEmpty() || looksLikeNumber(second) && reading.isEmpty()) {
      return Optional.empty();
    }
    Optional<BeepCheck> c =
        said.plan().beep().checks().stream()
            .filter(x ->
                same(x.a().place(), x.b().place(), place, other.get())
                    || x.kind() == BeepCheck.Kind.ISOLATION
                        && same(x.netA(), x.netB(), a.get(), b.get()))
            .findFirst();
    return c.map(x ->
        reading.isEmpty()
            ? Meaning.unfinished("ohms, or open; expect " + x.expected().text(Unit.OHM, 3))
            : checked(x, reading));
  }

  private static boolean same(String a, String b, String c, String d) {
    return a.equals(c) && b.equals(d) || a.equals(d) && b.equals(c);
  }

  private static boolean looksLikeNumber(String word) {
    return word.matches("[+-−]?[\\d.,].*");
  }
}
