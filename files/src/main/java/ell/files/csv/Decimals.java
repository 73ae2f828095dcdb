package ell.files.csv;

import java.util.regex.Pattern;

/// Numbers with signs between their thousands: `1,234.50`, `1.234,50`, `1 234`.
final class Decimals {
  private static final Pattern ENGLISH = Pattern.compile("\\d{1,3}(,\\d{3})+(\\.\\d*)?");
  private static final Pattern GERMAN =
      Pattern.compile("\\d{1,3}(\\.\\d{3})+,\\d*|\\d{1,3}(\\.\\d{3}){2,}");
  private static final Pattern SPACED = Pattern.compile("\\d{1,3}([ '’]\\d{3})+([.,]\\d*)?");

  private static final Pattern WHOLE = Pattern.compile("\\d{1,3}([,. '’]\\d{3})+");

  private Decimals() {}

  /// A count: what parts its thousands cannot be its point.
  static String whole(String text) {
    return WHOLE.matcher(text).matches() ? text.replaceAll("[,. '’]", "") : plain(text);
  }

  /// The number without them, the point a `.`; other text as it is.
  static String plain(String text) {
    if (ENGLISH.matcher(text).matches()
        && (text.contains(".") || text.indexOf(',') != text.length() - 4)) {
      return text.replace(",", "");
    }
    if (GERMAN.matcher(text).matches()) {
      return text.replace(".", "").replace(',', '.');
    }
    return SPACED.matcher(text).matches() ? text.replaceAll("[ '’]", "").replace(',', '.') : text;
  }
}
