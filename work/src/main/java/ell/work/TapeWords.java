package ell.work;

import java.util.LinkedHashMap;
import java.util.Map;

/// The words that the tape understands after a place: what can be wrong there, and what can be done
/// there.
public final class TapeWords {
  /// Defects by their word, with what they mean.
  public static final Map<String, String> DEFECTS =
      inOrder(
          "open", "the joint does not conduct",
          "bridge", "solder joins what should be apart",
          "short", "joined to a rail or to ground",
          "cold", "a dull or cracked joint",
          "missing", "the part is not there",
          "turned", "the part sits the wrong way round",
          "wrong", "another part than the bill names",
          "standing", "a chip stands on one end",
          "lifted", "a lead or pad has come off",
          "shifted", "off its pads",
          "cracked", "the body is broken",
          "burnt", "it smelled or smoked",
          "dead", "it does nothing",
          "hot", "hotter than it should be",
          "starved", "too little solder",
          "excess", "too much solder",
          "dirty", "flux or dirt left");

  /// Actions by their word; true when the action heats the joints once more.
  public static final Map<String, Boolean> ACTIONS = actions();

  private TapeWords() {}

  private static Map<String, String> inOrder(String... pairs) {
    Map<String, String> map = new LinkedHashMap<>();
    for (int i = 0; i < pairs.length; i += 2) {
      map.put(pairs[i], pairs[i + 1]);
    }
    return map;
  }

  private static Map<String, Boolean> actions() {
    Map<String, Boolean> map = new LinkedHashMap<>();
    for (String hot :
        new String[] {"resoldered", "reflowed", "touched-up", "replaced", "removed", "fitted"}) {
      map.put(hot, true);
    }
    map.put("wired", true);
    for (String cool : new String[] {"cleaned", "cut", "cleared", "checked", "programmed"}) {
      map.put(cool, false);
    }
    return map;
  }
}
