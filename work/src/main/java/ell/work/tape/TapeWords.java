package ell.work.tape;

import ell.core.look.DefectKind;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.TreeMap;


/// The words that the tape understands after a place: what can be wrong there, and what can be done
/// there.
public final class TapeWords {
  /// Defects by their word, with what they mean.
  public static final Map<String, String> DEFECTS = defects();

  /// Actions by their word; true when the action heats the joints once more.
  public static final Map<String, Boolean> ACTIONS = actions();

  private TapeWords() {}

  private static Map<String, String> defects() {
    // sorted, for they are offered in this order while somebody types
    Map<String, String> map = new TreeMap<>();
    for (DefectKind k : DefectKind.values()) {
      map.put(k.word(), k.meaning());
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
