package ell.files.gerber;

import ell.core.artwork.Tag;
import java.util.HashMap;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// The attributes of a Gerber file as they stand: what is laid down now belongs to which part, pin
/// and net, and what the file is.
final class GerberTags {
  private static final Pattern BY_NUMBER = Pattern.compile("\\\\u([0-9A-Fa-f]{4})");

  /// Each name once: a part is named by each of its pads, and a pin by pads of many parts.
  private final Map<String, String> names = new HashMap<>();

  private String function = "";
  private String part = "";
  private String pin = "";
  private String net = "";
  private Tag tag = Tag.NONE;

  /// What a figure that is laid down now says of itself.
  Tag now() {
    return tag;
  }

  /// What the file says that it is, empty when it does not.
  String function() {
    return function;
  }

  /// Takes a word: `TO.P,U1,5`, `TO.C,R1`, `TO.N,GND`, `TF.FileFunction,Paste,Top`, `TD`.
  void take(String w) {
    int comma = w.indexOf(',');
    boolean more = comma >= 0 && comma + 1 < w.length();
    String name = w.substring(2, comma < 0 ? w.length() : comma);
    switch (w.charAt(1)) {
      case 'F' -> {
        if (name.equals(".FileFunction") && more) {
          function = w.substring(comma + 1);
        }
      }
      case 'O' -> {
        switch (name) {
          case ".P" -> {
            int second = w.indexOf(',', comma + 1);
            if (second <= comma || second + 1 == w.length()) {
              throw new IllegalArgumentException("expected TO.P,part,pin");
            }
            part = field(w, 1);
            pin = field(w, 2);
          }
          case ".C" -> {
            part = field(w, 1);
            pin = "";
          }
          case ".N" -> net = field(w, 1);
          default -> {}
        }
      }
      case 'D' -> {
        if (name.isEmpty() || name.equals(".P") || name.equals(".C")) {
          part = "";
          pin = "";
        }
        if (name.isEmpty() || name.equals(".N")) {
          net = "";
        }
      }
      default -> {}
    }
    tag = part.isEmpty() && net.isEmpty() ? Tag.NONE : new Tag(part, pin, net);
  }

  /// What stands behind the so many-th comma, up to the next one; empty where nothing does.
  private String field(String w, int number) {
    int at = -1;
    for (int i = 0; i < number; i++) {
      at = w.indexOf(',', at + 1);
      if (at < 0) {
        return "";
      }
    }
    int end = w.indexOf(',', at + 1);
    String name = text(w.substring(at + 1, end < 0 ? w.length() : end));
    String known = names.putIfAbsent(name, name);
    return known == null ? name : known;
  }

  /// Characters written by their number, as in `\\u002C`.
  private static String text(String s) {
    if (s.indexOf('\\') < 0) {
      return s.strip();
    }
    Matcher m = BY_NUMBER.matcher(s);
    return m.replaceAll(
            r -> Matcher.quoteReplacement(String.valueOf((char) Integer.parseInt(r.group(1), 16))))
        .strip();
  }
}
