package ell.core.prove;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// A word of a line of a test plan.
///
/// @param quoted whether it began with a quotation mark
record PlanWord(String text, boolean quoted) {
  /// The key of `key=...`, empty where it is none.
  Optional<String> option() {
    int eq = text.indexOf('=');
    return eq > 0 && text.substring(0, eq).matches("[a-z]+")
        ? Optional.of(text.substring(0, eq))
        : Optional.empty();
  }

  /// Words apart by blanks; what stands between quotation marks is one, `\"`, `\\`, `\r` and `\n`
  /// in it are themselves. A `#` begins what is not read.
  static List<PlanWord> words(String line) {
    List<PlanWord> all = new ArrayList<>();
    StringBuilder now = new StringBuilder();
    boolean in = false;
    boolean any = false;
    boolean quoted = false;
    for (int i = 0; i < line.length(); i++) {
      char c = line.charAt(i);
      if (in && c == '\\' && i + 1 < line.length() && "\"\\rn".indexOf(line.charAt(i + 1)) >= 0) {
        char n = line.charAt(++i);
        now.append(n == 'r' ? '\r' : n == 'n' ? '\n' : n);
      } else if (c == '"') {
        quoted |= !any;
        in = !in;
        any = true;
      } else if (!in && c == '#' && !any) {
        break;
      } else if (!in && Character.isWhitespace(c)) {
        if (any) {
          all.add(new PlanWord(now.toString(), quoted));
        }
        now.setLength(0);
        any = false;
        quoted = false;
      } else {
        now.append(c);
        any = true;
      }
    }
    if (in) {
      throw new IllegalArgumentException("a quotation mark is missing at its end");
    }
    if (any) {
      all.add(new PlanWord(now.toString(), quoted));
    }
    return all;
  }
}
