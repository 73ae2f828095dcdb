package ell.work.heat;

import ell.core.entry.Entry;
import ell.core.heat.FloorLife;
import ell.core.rack.Stage;
import ell.work.tape.Meaning;
import ell.work.tape.Said;
import ell.work.tape.Verb;
import java.util.List;
import java.util.Locale;

/// Words of the tape about dry bags.
public final class HeatVerbs {
  /// The verbs.
  public static final List<Verb> ALL =
      List.of(
          Verb.first(
                  "bag",
                  "bag CODE opened or closed [level L]",
                  "a dry bag of parts; the level is that of its label",
                  HeatVerbs::bag,
                  "bag MCU48 opened level 3",
                  "bag MCU48 closed")
              .offering(t -> t.codes().values().stream().map(c -> c + " opened").toList())
              .of(Stage.HEAT));

  private HeatVerbs() {}

  private static Meaning bag(Said said) {
    String[] words = said.words();
    if (words.length < 2) {
      return Meaning.unfinished("the code of the parts, opened or closed, and level 3 or another");
    }
    String code = said.tape().codes().get(words[0]);
    if (code == null) {
      return Meaning.wrong("no part of this board and nothing on the shelf is '" + words[0] + "'");
    }
    boolean open = words[1].equalsIgnoreCase("opened");
    if (!open && !words[1].equalsIgnoreCase("closed")) {
      return Meaning.wrong("a bag is opened or closed, found '" + words[1] + "'");
    }
    String level = "";
    if (words.length > 2) {
      if (words.length != 4
          || !words[2].equalsIgnoreCase("level")
          || !FloorLife.isLevel(words[3])) {
        return Meaning.wrong("expected level and one of " + String.join(", ", FloorLife.levels()));
      }
      level = words[3].toLowerCase(Locale.ROOT);
    }
    return Meaning.ready(new Entry.Bag(code, open, level));
  }
}
