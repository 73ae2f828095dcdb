package ell.files.csv;

import java.util.Locale;
import java.util.regex.Pattern;

/// The words with which bills say that a part is left off. Common practice, no source.
final class NotFitted {
  private static final String PLAIN =
      "dnp|dni|dnf|dns|dnm|no[- ]?pop|no[- ]?fit|no[- ]?stuff|no[- ]?mount|not[- ](?:fitted|populated|mounted|placed|"
          + "installed|stuffed|assembled)|unpopulated|(?:do|does) not (?:populate|fit|place|install|stuff|mount|"
          + "assemble)|don'?t (?:populate|fit|place|install|stuff|mount)|nicht best(?:ü|ue)ck(?:t|en)|unbest(?:ü|ue)ckt|"
          + "ne pas (?:monter|câbler)|non (?:monté|câblé)|no (?:montar|poner|colocar)|sin montar";

  /// Words that mean it only when nothing else stands in the cell.
  private static final Pattern ALONE =
      Pattern.compile("(?iu)(?:" + PLAIN + "|np|nc|nf|n/?a|n\\.?b\\.?|leave (?:off|out|open))");

  /// Words that mean it wherever they stand.
  private static final Pattern WITHIN =
      Pattern.compile("(?iu)[\\s,;/_*-]*+[(\\[<{]?\\b(?:" + PLAIN + ")\\b[)\\]>}]?[\\s,;/_*-]*");

  private static final Pattern NO =
      Pattern.compile("(?iu)no|n|0|false|-|none|nein|non|f|off|" + PLAIN + "|np|nf|n/?a|nc");
  private static final Pattern NOT_NO =
      Pattern.compile("(?iu)|no|n|0|false|-|none|nein|non|f|fitted");

  private NotFitted() {}

  /// Whether a cell of a column that says what is fitted says no.
  static boolean refused(String cell) {
    return !cell.isEmpty() && NO.matcher(cell).matches();
  }

  /// Whether a cell of a column that says what is left off says so.
  static boolean leftOff(String cell) {
    return !NOT_NO.matcher(cell).matches();
  }

  /// Whether a value says that the part is left off.
  static boolean saidIn(String value) {
    return ALONE.matcher(value).matches() || mayHold(value) && WITHIN.matcher(value).find();
  }

  /// The value without those words.
  static String without(String value) {
    return ALONE.matcher(value).matches()
        ? ""
        : mayHold(value) ? WITHIN.matcher(value).replaceAll(" ").strip() : value;
  }

  /// The words begin with one of few letters; most values are done here.
  private static boolean mayHold(String value) {
    String v = value.toLowerCase(Locale.ROOT);
    return v.contains("dn")
        || v.contains("no")
        || v.contains("ni")
        || v.contains("un")
        || v.contains("ne ")
        || v.contains("sin ")
        || v.contains("do");
  }
}
