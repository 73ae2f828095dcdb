package ell.files.csv;

import java.util.regex.Pattern;

/// Text in a table that somebody opens in a spreadsheet: what would be taken for a formula gets the
/// sign that spreadsheets know for text, and loses it again when it is read. Numbers stay numbers.
public final class Spreadsheet {
  private static final String FORMULA = "=+-@\t\r";
  private static final char TEXT = '\'';
  private static final Pattern NUMBER =
      Pattern.compile("[+-]?+(?:\\d++(?:\\.\\d*+)?+|\\.\\d++)(?:[eE][+-]?+\\d++)?+");

  private Spreadsheet() {}

  /// Text as it is written into a cell.
  public static String guard(String text) {
    return formula(text) && !NUMBER.matcher(text).matches() ? TEXT + text : text;
  }

  private static boolean formula(String text) {
    int signs = 0;
    while (signs < text.length() && text.charAt(signs) == TEXT) {
      signs++;
    }
    return signs < text.length() && FORMULA.indexOf(text.charAt(signs)) >= 0;
  }

  /// Text as it was before it was guarded.
  public static String bare(String cell) {
    return !cell.isEmpty() && cell.charAt(0) == TEXT && formula(cell) ? cell.substring(1) : cell;
  }
}
