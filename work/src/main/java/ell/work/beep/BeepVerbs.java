package ell.work.beep;

import ell.core.beep.BeepCheck;
import ell.core.beep.BeepList;
import ell.core.board.PartKind;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.rack.Stage;
import ell.work.tape.Meaning;
import ell.work.tape.Said;
import ell.work.tape.Verb;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.regex.Pattern;

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
                  "a check between two places, of the beep list or not",
                  BeepVerbs::between,
                  "3V3 GND open",
                  "3V3 GND short")
              .of(Stage.BEEP));

  private static final Pattern OPEN =
      Pattern.compile("(?i)open|ol|inf|infinite|no beep|no|silent|∞");
  private static final Pattern SHORT = Pattern.compile("(?i)shorts?|shorted|dead short|beeps?|yes");

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

  private static Meaning checked(BeepCheck c, String typed) {
    String reading = bare(typed);
    if (OPEN.matcher(reading).matches()) {
      return Meaning.ready(c.read(Double.POSITIVE_INFINITY));
    }
    if (SHORT.matcher(reading).matches()) {
      return Meaning.ready(c.read(0));
    }
    try {
      double ohms = EngineeringNumber.parse(reading, Unit.OHM);
      return ohms < 0
          ? Meaning.wrong("ohms are not below 0, found '" + reading + "'")
          : Meaning.ready(c.read(ohms));
    } catch (NumberFormatException e) {
      return Meaning.wrong(e.getMessage() + ", or open, or short");
    }
  }

  /// Two places and ohms: a check between their nets, as the beep list has it or worked out.
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
    List<BeepCheck> list = said.plan().beep().checks();
    Optional<BeepCheck> c =
        first(list, x -> same(x.a().place(), x.b().place(), place, other.get()))
            // one that joins what the drawing has apart, as a bodge does
            .or(() -> first(list, x -> bodged(x, place, a.get(), other.get(), b.get())))
            .or(() ->
                first(
                    list,
                    x ->
                        x.kind() == BeepCheck.Kind.ISOLATION
                            && same(x.netA(), x.netB(), a.get(), b.get())));
    if (c.isEmpty()
        && (OPEN.matcher(bare(reading)).matches()
            || SHORT.matcher(bare(reading)).matches()
            || ohms(reading))) {
      // not in the list: what a healthy board shows there is worked out for the two
      c = BeepList.between(said.plan().revision(), said.plan().ladder(), place, other.get());
    }
    return c.map(x ->
        reading.isEmpty()
            ? Meaning.unfinished("ohms, or open; expect " + x.expected().text(Unit.OHM, 3))
            : asTyped(checked(x, reading), said, place, other.get()));
  }

  private static Optional<BeepCheck> first(List<BeepCheck> list, Predicate<BeepCheck> is) {
    return list.stream().filter(is).findFirst();
  }

  /// Whether a check joins two nets, at the one place and at the net of the other.
  private static boolean bodged(BeepCheck x, String a, String netA, String b, String netB) {
    return x.kind() == BeepCheck.Kind.CONTINUITY
        && !x.netA().equals(x.netB())
        && (x.a().place().equals(a) && x.netB().equals(netB)
            || x.a().place().equals(b) && x.netB().equals(netA)
            || x.b().place().equals(a) && x.netA().equals(netB)
            || x.b().place().equals(b) && x.netA().equals(netA));
  }

  /// A tip on the lead of a part is not on its net when the joint is open: such a reading is kept
  /// with the places as they were typed.
  private static Meaning asTyped(Meaning m, Said said, String a, String b) {
    if (m instanceof Meaning.Ready(List<Entry> entries, String words)
        && entries.size() == 1
        && entries.getFirst() instanceof Entry.Check c
        && !same(c.a(), c.b(), a, b)
        && (lead(said, a) || lead(said, b))) {
      boolean turned = said.places().netAt(a).filter(c.netA()::equals).isEmpty();
      return new Meaning.Ready(
          List.of(
              new Entry.Check(
                  c.kind(),
                  turned ? b : a,
                  turned ? a : b,
                  c.netA(),
                  c.netB(),
                  c.ohms(),
                  c.limits(),
                  c.verdict())),
          words);
    }
    return m;
  }

  private static boolean lead(Said said, String place) {
    return place.contains(".")
        && said.plan().revision().net(place).isEmpty()
        && !PartKind.of(BoardState.part(place)).bare();
  }

  /// A word with the unit behind it is the word: `open ohm`.
  private static String bare(String reading) {
    String word = reading.replaceFirst("(?i)\\s+(ohms?|Ω)$", "");
    return OPEN.matcher(word).matches() || SHORT.matcher(word).matches() ? word : reading;
  }

  private static boolean ohms(String reading) {
    try {
      EngineeringNumber.parse(reading, Unit.OHM);
      return true;
    } catch (NumberFormatException e) {
      return false;
    }
  }

  private static boolean same(String a, String b, String c, String d) {
    return a.equals(c) && b.equals(d) || a.equals(d) && b.equals(c);
  }

  private static boolean looksLikeNumber(String word) {
    return word.matches("[+-−]?[\\d.,].*");
  }
}
