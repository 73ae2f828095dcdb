package ell.files.gerber;

import ell.core.artwork.Tag;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// The attributes of a Gerber file as they stand: what is laid down now belongs to which part, pin
/// and net, and what the file is.
final class GerberTags {
  private static final Pattern BY_NUMBER = Pattern.compile("\\\\u([0-9A-Fa-f]{4})");

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
    String[] p = w.split(",");
    String name = p[0].length() > 2 ? p[0].substring(2) : "";
    switch (w.substring(0, 2)) {
      case "TF" -> {
        if (name.equals(".FileFunction") && p.length > 1) {
          function = w.substring(w.indexOf(',') + 1);
        }
      }
      case "TO" -> {
        switch (name) {
          case ".P" -> {
            if (p.length < 3) {
              throw new IllegalArgumentException("expected TO.P,part,pin");
            }
            part = text(p[1]);
            pin = text(p[2]);
          }
          case ".C" -> {
            part = p.length > 1 ? text(p[1]) : "";
            pin = "";
          }
          case ".N" -> net = p.length > 1 ? text(p[1]) : "";
          default -> {}
        }
      }
      case "TD" -> {
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
