package ell.work.word;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.MonthDay;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Numbers and dates as a language writes them. Only what is clearly a number is touched: not
/// places such as `U3.8`, versions, addresses, or file names.
final class Figures {
  private static final Pattern DAY =
      Pattern.compile("(?<![\\p{L}\\d_./-])(\\d{4})-(\\d{2})-(\\d{2})(?![\\p{L}\\d_/-]|\\.\\p{L})");
  private static final String MONTHS = "Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec";
  private static final Pattern SHORT_DAY =
      Pattern.compile("(?<![\\p{L}\\d_./-])(\\d{1,2}) (" + MONTHS + ")(?![\\p{L}\\d])");
  private static final DateTimeFormatter ENGLISH_DAY =
      DateTimeFormatter.ofPattern("d MMM", Locale.ENGLISH);

  private Figures() {}

  static String shown(String text, Language in) {
    if (in == Language.ENGLISH || text.isEmpty()) {
      return text;
    }
    return numbers(days(text, in), in.point());
  }

  private static String days(String text, Language in) {
    String s = text;
    if (s.indexOf('-') > 0) {
      s = DAY.matcher(s).replaceAll(m -> Matcher.quoteReplacement(day(m.group(), in)));
    }
    return SHORT_DAY.matcher(s).replaceAll(m -> Matcher.quoteReplacement(shortDay(m.group(), in)));
  }

  private static String day(String iso, Language in) {
    try {
      return LocalDate.parse(iso).format(in.day());
    } catch (DateTimeException e) {
      return iso; // it only looked like one
    }
  }

  private static String shortDay(String english, Language in) {
    try {
      return MonthDay.parse(english, ENGLISH_DAY).format(in.shortDay());
    } catch (DateTimeException e) {
      return english;
    }
  }

  /// Puts the language's point into numbers with one point between digits.
  private static String numbers(String s, char point) {
    StringBuilder b = null;
    for (int i = 1; i < s.length() - 1; i++) {
      if (s.charAt(i) == '.' && digit(s.charAt(i - 1)) && digit(s.charAt(i + 1)) && alone(s, i)) {
        if (b == null) {
          b = new StringBuilder(s);
        }
        b.setCharAt(i, point);
      }
    }
    return b == null ? s : b.toString();
  }

  /// Whether the digits around a point are a number that stands for itself.
  private static boolean alone(String s, int at) {
    int from = at - 1;
    while (from > 0 && digit(s.charAt(from - 1))) {
      from--;
    }
    int to = at + 1;
    while (to < s.length() - 1 && digit(s.charAt(to + 1))) {
      to++;
    }
    char before = from > 0 ? s.charAt(from - 1) : ' ';
    char after = to < s.length() - 1 ? s.charAt(to + 1) : ' ';
    boolean range = before == '.' && from > 2 && s.charAt(from - 2) == '.';
    boolean name = before == '-' && from > 1 && Character.isLetterOrDigit(s.charAt(from - 2));
    boolean begins =
        range || !name && !(Character.isLetter(before) || "._/:@#\\".indexOf(before) >= 0);
    boolean more =
        after == '.' && to + 2 < s.length() && Character.isLetterOrDigit(s.charAt(to + 2));
    boolean ends = !more && !(Character.isLetter(after) || "_/:@".indexOf(after) >= 0);
    return begins && ends;
  }

  private static boolean digit(char c) {
    return c >= '0' && c <= '9';
  }
}
