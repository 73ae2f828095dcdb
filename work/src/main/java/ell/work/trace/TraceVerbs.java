package ell.work.trace;

import ell.core.board.PartKind;
import ell.core.entry.Entry;
import ell.core.heat.HeatFacts;
import ell.core.look.DefectKind;
import ell.core.rack.Stage;
import ell.core.talk.TalkSymptom;
import ell.work.space.ActException;
import ell.work.tape.Meaning;
import ell.work.tape.Said;
import ell.work.tape.Verb;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Words of the tape about how boards behave, and where their faults are.
public final class TraceVerbs {
  private static final List<String> HEARD =
      Arrays.stream(TalkSymptom.values())
          .map(s -> s.name().toLowerCase(Locale.ROOT).replace('_', '-'))
          .toList();

  private static final Pattern WHILE =
      Pattern.compile("while\\s+(\\S+)\\s+is\\s+(pressed|warmed|cooled|shaken)");
  private static final Pattern COUNTED =
      Pattern.compile("(?:and goes,?\\s*)?(?:bad\\s+)?(\\d{1,6})\\s+of\\s+(\\d{1,6})");

  /// The verbs.
  public static final List<Verb> ALL =
      List.of(
          Verb.at(
                  "lamp",
                  "LAMP lamp lit or dark",
                  "whether a lamp is lit",
                  s -> shown(s, "lamp", List.of("lit", "dark")),
                  "LED2 lamp dark")
              .offering(_ -> List.of("lit", "dark"))
              .of(Stage.TRACE),
          new Verb(
              Optional.of(Stage.TRACE),
              List.of("lit", "dark"),
              true,
              "LAMP lit or dark",
              List.of("LED2 dark"),
              "whether a lamp is lit",
              TraceVerbs::lamp,
              _ -> List.of()),
          Verb.at(
                  "touch",
                  "PART touch cool, warm or hot",
                  "how a part feels to a finger; take care, hot parts burn",
                  TraceVerbs::touch,
                  "U3 touch warm")
              .offering(_ -> List.of("cool", "warm", "hot"))
              .of(Stage.TRACE),
          Verb.at(
                  "look",
                  "PLACE look good or DEFECT",
                  "how a joint or a part looks",
                  TraceVerbs::look,
                  "U3.4 look good",
                  "U3.4 look open")
              .offering(_ -> List.of("good", "open", "bridge", "missing", "turned", "wrong"))
              .of(Stage.TRACE),
          Verb.at(
                  "pressed|warmed|cooled|shaken",
                  "PART pressed fine or same",
                  "whether it works while a part is pressed, warmed, cooled or shaken",
                  s -> shown(s, s.word(), List.of("fine", "same")),
                  "U4 pressed fine",
                  "U4 cooled same")
              .offering(_ -> List.of("fine", "same"))
              .of(Stage.TRACE),
          Verb.first(
                  "fine|same",
                  "fine while PART is pressed",
                  "whether it works while something is done at a part",
                  TraceVerbs::meanwhile,
                  "fine while U4 is pressed")
              .of(Stage.TRACE),
          Verb.at(
                  "swapped|swapped,",
                  "PART swapped fine or same",
                  "whether it works with another part; the change is logged with its heat",
                  TraceVerbs::swapped,
                  "U1 swapped same",
                  "U1 swapped, fine")
              .offering(_ -> List.of("fine", "same"))
              .of(Stage.TRACE),
          Verb.first(
                  "comes",
                  "comes and goes N of M",
                  "at how many tries the fault was there",
                  TraceVerbs::comes,
                  "comes and goes 3 of 10")
              .of(Stage.TRACE),
          Verb.first(
                  "talks",
                  "talks HOW",
                  "how the board behaves that was spoken to: fine, silent, garbage, deaf, in-loader, empty or forgets",
                  TraceVerbs::talks,
                  "talks silent")
              .offering(_ -> HEARD)
              .of(Stage.TRACE),
          Verb.first(
                  "found",
                  "found FAULT",
                  "where the fault is, in the words of faults: open U3.4, bridge U4.2 U4.3, dead U2,"
                      + " missing C4, turned D1, value R5 47k, loose U1.8 ...",
                  TraceVerbs::found,
                  "found open U3.4")
              .of(Stage.TRACE));

  private TraceVerbs() {}

  private static Meaning shown(Said s, String what, List<String> words) {
    String word = s.rest().toLowerCase(Locale.ROOT);
    if (s.plan().revision().part(s.place()).isEmpty()) {
      return Meaning.wrong(s.place() + " is no part");
    }
    return words.contains(word)
        ? Meaning.ready(new Entry.Symptom(s.place(), what, word, 1, 1))
        : Meaning.unfinished(String.join(" or ", words));
  }

  /// What is no lamp may be dark as well: free words.
  private static Optional<Meaning> lamp(Said s) {
    boolean lamp =
        s.plan().revision().part(s.place()).filter(p -> p.kind() == PartKind.LED).isPresent();
    return lamp && s.rest().isEmpty()
        ? Optional.of(Meaning.ready(new Entry.Symptom(s.place(), "lamp", s.word(), 1, 1)))
        : Optional.empty();
  }

  private static Meaning touch(Said s) {
    if (s.plan().revision().part(s.place()).isEmpty()) {
      return Meaning.wrong(s.place() + " is no part");
    }
    return switch (s.rest().toLowerCase(Locale.ROOT)) {
      case "hot" -> Meaning.ready(new Entry.Defect(s.place(), DefectKind.HOT.word(), ""));
      case "cool", "warm" ->
          Meaning.ready(
              new Entry.Symptom(s.place(), "touch", s.rest().toLowerCase(Locale.ROOT), 1, 1));
      default -> Meaning.unfinished("cool, warm or hot");
    };
  }

  private static Meaning look(Said s) {
    if (!s.places().jointOrPart(s.place())) {
      return Meaning.wrong(s.place() + " is a net: name a joint or a part");
    }
    String[] two = s.two();
    if (two[0].equalsIgnoreCase("good") && two[1].isEmpty()) {
      return Meaning.ready(new Entry.Seen(List.of(s.place())));
    }
    return DefectKind.of(two[0].toLowerCase(Locale.ROOT))
        .map(k -> (Meaning) Meaning.ready(new Entry.Defect(s.place(), k.word(), two[1])))
        .orElseGet(() -> Meaning.unfinished("good, or what is wrong, such as open or bridge"));
  }

  private static Meaning meanwhile(Said s) {
    Matcher m = WHILE.matcher(s.rest());
    if (!m.matches()) {
      return Meaning.unfinished("while PART is pressed, warmed, cooled or shaken");
    }
    Optional<String> part =
        s.places().find(m.group(1)).filter(p -> s.plan().revision().part(p).isPresent());
    return part.isEmpty()
        ? Meaning.wrong("there is no part '" + m.group(1) + "'")
        : Meaning.ready(new Entry.Symptom(part.get(), m.group(2), s.word(), 1, 1));
  }

  private static Meaning swapped(Said s) {
    Meaning shown = shown(s, "swapped", List.of("fine", "same"));
    return shown instanceof Meaning.Ready(List<Entry> entries, String words)
        ? new Meaning.Ready(
            List.of(entries.getFirst(), new Entry.Action(s.place(), "replaced", true, "to try")),
            words)
        : shown;
  }

  private static Meaning comes(Said s) {
    Matcher m = COUNTED.matcher(s.rest());
    if (!m.matches()) {
      return Meaning.unfinished("and goes N of M, such as 3 of 10");
    }
    int times = Integer.parseInt(m.group(1));
    int of = Integer.parseInt(m.group(2));
    return of < 1 || times > of
        ? Meaning.wrong(
            "expected such as 3 of 10, bad at no more than all tries, found " + times + " of " + of)
        : Meaning.ready(new Entry.Symptom("", "comes", "bad", times, of));
  }

  private static Meaning talks(Said s) {
    String word = s.rest().toLowerCase(Locale.ROOT);
    return HEARD.contains(word)
        ? Meaning.ready(new Entry.Symptom("", "talks", word, 1, 1))
        : Meaning.unfinished(String.join(", ", HEARD));
  }

  private static Meaning found(Said s) {
    if (s.rest().isEmpty()) {
      return Meaning.unfinished("the fault, such as open U3.4 or dead U2");
    }
    try {
      return Meaning.ready(
          FoundEntry.said(s.rest(), s.plan(), HeatFacts.of(s.state()).heatCycles(), List.of()));
    } catch (ActException e) {
      return Meaning.wrong(e.getMessage());
    }
  }
}
