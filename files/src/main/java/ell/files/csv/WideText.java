package ell.files.csv;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Cuts the lines of a text table whose columns stand below each other, parted by blanks. A cell
/// may be empty or hold single blanks; where the words of a line do not come to the number of
/// headings, those that stand below a heading belong to it, and those too many to the one column
/// that is text.
final class WideText {
  private static final Pattern WORD = Pattern.compile("\\S++");
  private static final Pattern PHRASE = Pattern.compile("\\S++(?: \\S++)*+");
  private static final Pattern MARK = Pattern.compile("\\s*+(?:#++|//|;)");
  private static final Pattern NUMBER = Pattern.compile("[-+]?+[\\d.,]++(?:mm|mil|in|um)?+");
  private static final int LONGEST = 4000;
  private static final double NEVER = 1e6;
  private static final double MIXED = 10;

  private final List<String> headings = new ArrayList<>();
  private final List<int[]> spans = new ArrayList<>();

  private WideText() {}

  /// The words of a line that may be a heading, empty when it has not three of them. A leading mark
  /// of a comment is no word.
  static WideText heading(String line) {
    WideText w = new WideText();
    if (line.length() > LONGEST) {
      return w;
    }
    Matcher mark = MARK.matcher(line);
    String bare = mark.lookingAt() ? " ".repeat(mark.end()) + line.substring(mark.end()) : line;
    Matcher phrases = PHRASE.matcher(bare);
    List<int[]> found = new ArrayList<>();
    while (phrases.find()) {
      found.add(new int[] {phrases.start(), phrases.end()});
    }
    if (found.size() < 3) {
      found.clear();
      Matcher words = WORD.matcher(bare);
      while (words.find()) {
        found.add(new int[] {words.start(), words.end()});
      }
    }
    if (found.size() >= 3) {
      for (int[] f : found) {
        w.spans.add(f);
        w.headings.add(bare.substring(f[0], f[1]));
      }
    }
    return w;
  }

  List<String> headings() {
    return headings;
  }

  /// The cells of a line, as many as there are headings; fewer when the line is another.
  List<String> split(String line) {
    String t = line.length() > LONGEST ? line.substring(0, LONGEST) : line.replace('\t', ' ');
    if (t.stripLeading().startsWith("#") || t.stripLeading().startsWith("//")) {
      return List.of(t.strip());
    }
    List<int[]> words = found(WORD, t);
    if (words.size() == spans.size()) {
      return texts(t, words);
    }
    List<int[]> phrases = found(PHRASE, t);
    if (phrases.size() == spans.size()) {
      return texts(t, phrases);
    }
    return words.size() < spans.size() ? below(t, phrases) : merged(t, words);
  }

  private static List<int[]> found(Pattern p, String t) {
    List<int[]> all = new ArrayList<>();
    Matcher m = p.matcher(t);
    while (m.find()) {
      all.add(new int[] {m.start(), m.end()});
    }
    return all;
  }

  private static List<String> texts(String t, List<int[]> spans) {
    return spans.stream().map(s -> t.substring(s[0], s[1])).toList();
  }

  /// Each phrase to the heading that it lies under, or nearest to.
  private List<String> below(String t, List<int[]> phrases) {
    List<String> cells = new ArrayList<>();
    for (int i = 0; i < spans.size(); i++) {
      cells.add("");
    }
    int from = 0;
    for (int[] p : phrases) {
      int best = -1;
      double least = Double.POSITIVE_INFINITY;
      for (int i = from; i < spans.size(); i++) {
        int[] s = spans.get(i);
        int overlap = Math.min(s[1], p[1]) - Math.max(s[0], p[0]);
        double far = overlap > 0 ? 0 : Math.min(Math.abs(s[0] - p[0]), Math.abs(s[1] - p[1]));
        if (far < least) {
          least = far;
          best = i;
        }
      }
      if (best < 0) {
        break;
      }
      cells.set(best, t.substring(p[0], p[1]));
      from = best + 1;
    }
    return cells;
  }

  /// More words than headings: those too many are put together where no number is torn, as near as
  /// can be to where their heading stands.
  private List<String> merged(String t, List<int[]> words) {
    int extra = words.size() - spans.size();
    int best = -1;
    double least = Double.POSITIVE_INFINITY;
    for (int at = 0; at < spans.size(); at++) {
      int numbers = 0;
      for (int k = at; k <= at + extra; k++) {
        numbers += NUMBER.matcher(t.substring(words.get(k)[0], words.get(k)[1])).matches() ? 1 : 0;
      }
      // words belong together rather than a word and a number, and two numbers never do
      double far = numbers > extra ? NEVER : numbers * MIXED;
      for (int i = 0; i < spans.size(); i++) {
        int w = i <= at ? i : i + extra;
        int end = i < at ? i : i + extra;
        far +=
            Math.min(
                Math.abs(words.get(w)[0] - spans.get(i)[0]),
                Math.abs(words.get(end)[1] - spans.get(i)[1]));
      }
      if (far < least) {
        least = far;
        best = at;
      }
    }
    List<int[]> cut = new ArrayList<>(words.subList(0, best));
    cut.add(new int[] {words.get(best)[0], words.get(best + extra)[1]});
    cut.addAll(words.subList(best + extra + 1, words.size()));
    return texts(t, cut);
  }
}
