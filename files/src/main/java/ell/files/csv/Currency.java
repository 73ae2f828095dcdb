package ell.files.csv;

import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// The one currency of a file: prices in two currencies cannot be added up.
final class Currency {
  private static final Pattern SIGN =
      Pattern.compile("[€$£]|(?i:\\b(?:eur|usd|gbp|chf|sek|nok|dkk|jpy|cny|pln|czk)\\b)");
  private String before = "";

  /// Takes note of a cell, and finds fault when it is of another currency than one before.
  void seen(Table.Row row, ColumnMeaning m) {
    Matcher sign = SIGN.matcher(row.text(m));
    while (sign.find()) {
      String word = sign.group().toUpperCase(Locale.ROOT);
      String now =
          switch (word) {
            case "€" -> "EUR";
            case "$" -> "USD";
            case "£" -> "GBP";
            default -> word;
          };
      if (!before.isEmpty() && !before.equals(now)) {
        row.error(m, "mixed currencies: " + now + " here, " + before + " before");
      }
      before = now;
    }
  }

  /// The word of the currency, empty when none was seen.
  String word() {
    return before;
  }

  /// A cell without signs of currency.
  static String without(String text) {
    return SIGN.matcher(text).replaceAll("").strip();
  }
}
