package ell.work.look;

import ell.core.entry.Entry;
import ell.core.look.DefectKind;
import ell.core.look.LookFacts;
import ell.core.rack.Stage;
import ell.work.tape.Meaning;
import ell.work.tape.Said;
import ell.work.tape.Verb;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/// Words of the tape about what was seen at a place, and what was done there.
public final class LookVerbs {
  /// Defects by their word, with what they mean; sorted, for they are offered in this order.
  public static final Map<String, String> DEFECTS = defects();

  /// Actions by their word; true when the action heats the joints once more.
  public static final Map<String, Boolean> ACTIONS = actions();

  /// The verbs.
  public static final List<Verb> ALL =
      List.of(
          new Verb(
              Optional.of(Stage.LOOK),
              List.of("good"),
              true,
              "PLACE good",
              List.of("U4.13 good", "R5 good"),
              "a joint, or every joint of a part, looks good",
              LookVerbs::good,
              _ -> List.of()),
          Verb.first(
                  "rest",
                  "rest good",
                  "every joint of the board that was not looked at yet, and has no finding, is good",
                  LookVerbs::rest,
                  "rest good")
              .offering(_ -> List.of("good"))
              .of(Stage.LOOK),
          Verb.at(
                  String.join("|", DEFECTS.keySet()),
                  "PLACE DEFECT [WORDS]",
                  "a defect: " + String.join(", ", DEFECTS.keySet()),
                  s -> Meaning.ready(new Entry.Defect(s.place(), s.word(), s.rest())),
                  "U4.7 bridge to U4.8")
              .of(Stage.LOOK),
          Verb.at(
                  String.join("|", ACTIONS.keySet()),
                  "PLACE ACTION [WORDS]",
                  "an action, which closes the findings there: "
                      + String.join(", ", ACTIONS.keySet()),
                  s ->
                      Meaning.ready(
                          new Entry.Action(s.place(), s.word(), ACTIONS.get(s.word()), s.rest())),
                  "C5 replaced",
                  "U4.7 touched-up")
              .of(Stage.LOOK));

  private LookVerbs() {}

  private static Map<String, String> defects() {
    Map<String, String> map = new TreeMap<>();
    Arrays.stream(DefectKind.values()).forEach(k -> map.put(k.word(), k.meaning()));
    return map;
  }

  private static Map<String, Boolean> actions() {
    Map<String, Boolean> map = new LinkedHashMap<>();
    for (String hot :
        List.of("resoldered", "reflowed", "touched-up", "replaced", "removed", "fitted", "wired")) {
      map.put(hot, true);
    }
    for (String cool : List.of("cleaned", "cut", "cleared", "checked", "programmed")) {
      map.put(cool, false);
    }
    return map;
  }

  /// A net does not look good: the words about it are free words.
  private static Optional<Meaning> good(Said s) {
    return s.places().jointOrPart(s.place())
        ? Optional.of(Meaning.ready(new Entry.Seen(List.of(s.place()))))
        : Optional.empty();
  }

  private static Meaning rest(Said s) {
    if (!s.rest().equalsIgnoreCase("good")) {
      return Meaning.unfinished("good: all joints that were not looked at yet are");
    }
    List<String> places = LookFacts.restGood(s.plan().revision(), s.state());
    return places.isEmpty()
        ? Meaning.wrong("every joint was looked at, or has a finding")
        : Meaning.ready(new Entry.Seen(places));
  }
}
