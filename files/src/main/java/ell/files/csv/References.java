package ell.files.csv;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Lists of references as bills write them: `R1, R2`, `R1 R2`, `R1/R2`, `R1-R4`, `R1-4`, `R1…R4`,
/// `R1,2,3`.
final class References {
  private static final Pattern ONE = Pattern.compile("[A-Za-z_][A-Za-z0-9_.+]*");
  private static final Pattern RANGE =
      Pattern.compile("([A-Za-z_]+)(\\d{1,6})\\s*(?:-|–|—|\\.{2,3}|…)\\s*([A-Za-z_]*)(\\d{1,6})");
  private static final Pattern BARE = Pattern.compile("\\d{1,6}");
  private static final Pattern BARE_RANGE =
      Pattern.compile("(\\d{1,6})(?:-|–|—|\\.{2,3}|…)(\\d{1,6})");
  private static final Pattern LETTERS = Pattern.compile("([A-Za-z_]+)\\d+");
  private static final Pattern UNNUMBERED = Pattern.compile("[A-Za-z_]+\\*+|[A-Za-z_]*\\?+");
  private static final int MOST = 20_000;

  private References() {}

  /// Whether a cell names parts that have no number yet, such as `REF**`.
  static boolean unnumbered(String text) {
    return !text.isEmpty() && UNNUMBERED.matcher(text).matches();
  }

  /// Reads a list.
  ///
  /// @throws IllegalArgumentException with a sentence when a word is no reference
  static List<String> parse(String text) {
    List<String> found = new ArrayList<>();
    String tight =
        text.replaceAll("\\s*(–|—|…)\\s*", "$1")
            .replaceAll("(?<=\\d)\\s*-\\s*(?=[A-Za-z]*\\d)", "-")
            .replaceAll("(?<=\\d)\\s*(\\.{2,3})\\s*(?=[A-Za-z]*\\d)", "$1");
    for (String word : tight.split("[,;/&\\s]+")) {
      if (word.isEmpty()) {
        continue;
      }
      String letters = found.isEmpty() ? "" : letters(found.getLast());
      if (!letters.isEmpty() && BARE.matcher(word).matches()) {
        found.add(letters + word); // R1,2,3
        continue;
      }
      if (!letters.isEmpty() && BARE_RANGE.matcher(word).matches()) {
        word = letters + word;
      }
      Matcher range = RANGE.matcher(word);
      if (range.matches()) {
        expand(range, word, found);
      } else if (ONE.matcher(word).matches() && word.length() <= 32) {
        found.add(word);
      } else {
        throw new IllegalArgumentException(
            "expected references such as R1 or R1-R4, found '"
                + (word.length() > 40 ? word.substring(0, 40) + "..." : word)
                + "'");
      }
      if (found.size() > MOST) {
        throw new IllegalArgumentException("more than " + MOST + " references in one cell");
      }
    }
    return found;
  }

  private static String letters(String reference) {
    Matcher m = LETTERS.matcher(reference);
    return m.matches() ? m.group(1) : "";
  }

  private static void expand(Matcher m, String word, List<String> found) {
    int from = Integer.parseInt(m.group(2));
    int to = Integer.parseInt(m.group(4));
    if (!m.group(3).isEmpty() && !m.group(3).equals(m.group(1)) || to < from || to - from > MOST) {
      throw new IllegalArgumentException(
          "expected a rising range such as R1-R4, found '" + word + "'");
    }
    for (int i = from; i <= to; i++) {
      found.add(m.group(1) + i);
    }
  }
}
