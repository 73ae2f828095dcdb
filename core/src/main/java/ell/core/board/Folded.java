package ell.core.board;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Many references in few words: runs of three and more are folded, `D1…D64 D66 D67`. As many as a
/// person walks in order are left in their order.
public final class Folded {
  private static final int FEW = 24;
  private static final Pattern REFERENCE = Pattern.compile("(.*?)(\\d{1,9})");
  private static final Pattern ASSUMED = Pattern.compile("(\\S+) is taken (.*)");

  private Folded() {}

  /// References as they are read.
  public static String references(List<String> references) {
    return references.size() <= FEW ? String.join(" ", references) : folded(references);
  }

  /// References in as few words as there are, however few they are.
  public static String folded(List<String> references) {
    record One(String letters, long number, String whole) {}
    List<One> all = new ArrayList<>();
    for (String r : references) {
      Matcher m = REFERENCE.matcher(r);
      all.add(m.matches() ? new One(m.group(1), Long.parseLong(m.group(2)), r) : new One(r, -1, r));
    }
    all.sort(Comparator.comparing(One::letters).thenComparingLong(One::number));
    List<String> words = new ArrayList<>();
    for (int i = 0; i < all.size(); ) {
      int k = i;
      while (k + 1 < all.size()
          && all.get(k + 1).letters().equals(all.get(i).letters())
          && all.get(k + 1).number() == all.get(k).number() + 1) {
        k++;
      }
      if (k - i >= 2) {
        words.add(all.get(i).whole() + "…" + all.get(k).whole());
      } else {
        all.subList(i, k + 1).forEach(o -> words.add(o.whole()));
      }
      i = k + 1;
    }
    return String.join(" ", words);
  }

  /// Sentences such as `U1 is taken to draw 1 mA`, those that say the same of several things as one
  /// with their count.
  public static List<String> assumptions(List<String> sentences) {
    Map<String, List<String>> alike = new LinkedHashMap<>();
    for (String s : sentences) {
      Matcher m = ASSUMED.matcher(s);
      alike
          .computeIfAbsent(m.matches() ? m.group(2) : "\n" + s, _ -> new ArrayList<>())
          .add(m.matches() ? m.group(1) : s);
    }
    List<String> out = new ArrayList<>();
    alike.forEach((what, of) ->
        out.add(
            what.startsWith("\n")
                ? of.getFirst()
                : of.size() == 1
                    ? of.getFirst() + " is taken " + what
                    : folded(of) + " (" + of.size() + ") are each taken " + what));
    return out;
  }
}
