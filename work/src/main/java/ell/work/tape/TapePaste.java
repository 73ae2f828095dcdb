package ell.work.tape;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.JarMove;
import ell.core.entry.PasteLook;
import ell.core.heat.FloorLife;
import ell.core.heat.HeatBudget;
import ell.core.rack.Plan;
import ell.work.tape.Tape.Meaning;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;


/// Lines of the tape about paste, dry bags, heat and who is at the bench.
final class TapePaste {
  /// The rule that guards parts from being heated too often.
  static final String HEAT_RULE = "heat";

  private final Plan plan;
  private final Set<String> jars;

  TapePaste(Plan plan, Set<String> jars) {
    this.plan = plan;
    this.jars = jars;
  }

  /// `printed SIDE [wiped] [jar CODE]`.
  Meaning printed(String rest) {
    String[] words = rest.isEmpty() ? new String[0] : rest.split("\\s+");
    if (words.length == 0 || !words[0].matches("(?i)first|second")) {
      return new Meaning.Unfinished(
          "the side: first or second, then wiped if it was, and jar CODE");
    }
    boolean wiped = false;
    String jar = "";
    for (int i = 1; i < words.length; i++) {
      if (words[i].equalsIgnoreCase("wiped")) {
        wiped = true;
      } else if (words[i].equalsIgnoreCase("jar") && i + 1 < words.length) {
        jar = code(words[++i]);
      } else {
        return new Meaning.Wrong("expected wiped or jar CODE, found '" + words[i] + "'");
      }
    }
    return Tape.ready(List.of(new Entry.Printed(words[0].toLowerCase(Locale.ROOT), wiped, jar)));
  }

  private String code(String typed) {
    return jars.stream().filter(j -> j.equalsIgnoreCase(typed)).findFirst().orElse(typed);
  }

  /// `jar CODE MOVE [WHY]`.
  Meaning jar(String rest) {
    String[] words = rest.split("\\s+", 3);
    String moves =
        Arrays.stream(JarMove.values()).map(JarMove::key).collect(Collectors.joining(", "));
    if (words.length < 2) {
      return new Meaning.Unfinished(
          "the jar and what was done: "
              + moves
              + (jars.isEmpty() ? "" : "; there is " + String.join(", ", jars)));
    }
    Optional<JarMove> move = JarMove.of(words[1].toLowerCase(Locale.ROOT));
    return move.isEmpty()
        ? new Meaning.Wrong("a jar is " + moves + ", found '" + words[1] + "'")
        : Tape.ready(
            List.of(new Entry.Jar(code(words[0]), move.get(), words.length > 2 ? words[2] : "")));
  }

  /// `bag CODE opened|closed [level L]`.
  Meaning bag(String rest, Iterable<String> codes) {
    String[] words = rest.split("\\s+");
    if (words.length < 2) {
      return new Meaning.Unfinished(
          "the code of the parts, opened or closed, and level 3 or another");
    }
    String code = "";
    for (String c : codes) {
      code = c.equalsIgnoreCase(words[0]) ? c : code;
    }
    if (code.isEmpty()) {
      return new Meaning.Wrong(
          "no part of this board and nothing on the shelf is '" + words[0] + "'");
    }
    boolean open = words[1].equalsIgnoreCase("opened");
    if (!open && !words[1].equalsIgnoreCase("closed")) {
      return new Meaning.Wrong("a bag is opened or closed, found '" + words[1] + "'");
    }
    String level = "";
    if (words.length > 2) {
      if (words.length != 4
          || !words[2].equalsIgnoreCase("level")
          || !FloorLife.isLevel(words[3])) {
        return new Meaning.Wrong(
            "expected level and one of " + String.join(", ", FloorLife.levels()));
      }
      level = words[3].toLowerCase(Locale.ROOT);
    }
    return Tape.ready(List.of(new Entry.Bag(code, open, level)));
  }

  /// `PLACE paste LOOK`.
  Meaning paste(String place, String tail) {
    Optional<PasteLook> look = PasteLook.of(tail.toLowerCase(Locale.ROOT));
    return look.isEmpty()
        ? new Meaning.Unfinished(
            "how the paste lies: "
                + Arrays.stream(PasteLook.values())
                    .map(PasteLook::key)
                    .collect(Collectors.joining(", ")))
        : Tape.ready(List.of(new Entry.PasteSeen(place, look.get())));
  }

  /// Whether a part may be heated once more: not past its limit without a word why.
  Optional<Meaning> hot(String place, String why, BoardState state) {
    if (!why.isEmpty() || state.overrides().containsKey(HEAT_RULE)) {
      return Optional.empty();
    }
    return HeatBudget.refusal(plan.revision(), state, BoardState.part(place))
        .map(r -> new Meaning.Wrong(r + "; say why behind it, or override heat WHY"));
  }
}
