package ell.desk.help;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// Finds the passages that speak of something. A word that few passages have says more than one
/// that most have: each counts ln(N / n), N passages, n of them with the word.
public final class Finder {
  /// Words that say nothing about what a passage is about.
  private static final Set<String> EMPTY =
      Set.of(
          "the", "and", "for", "with", "what", "that", "this", "are", "not", "all", "has", "its",
          "was", "one", "from", "each", "which", "where", "when", "how", "why", "board", "boards",
          "into", "they", "them", "but", "can", "here", "now", "than", "then");

  /// Below this a passage only happens to share a word; by trial over the stages of the demo.
  private static final double CLEARLY = 1.5;

  private final List<Found> passages = new ArrayList<>();
  private final List<Map<String, Integer>> counts = new ArrayList<>();
  private final Map<String, Integer> with = new HashMap<>();

  /// A passage that was found.
  ///
  /// @param at which of the page's passages
  /// @param score higher is nearer
  public record Found(Pages.Page page, int at, double score) {
    /// The passage.
    public Pages.Passage passage() {
      return page.passages().get(at);
    }
  }

  /// Over some pages.
  public Finder(List<Pages.Page> pages) {
    for (Pages.Page p : pages) {
      for (int i = 0; i < p.passages().size(); i++) {
        Pages.Passage x = p.passages().get(i);
        Map<String, Integer> c = new HashMap<>();
        words(x.text()).forEach(w -> c.merge(w, 1, Integer::sum));
        // a passage is also about what its head says
        words(x.under()).forEach(w -> c.merge(w, 1, Integer::sum));
        passages.add(new Found(p, i, 0));
        counts.add(c);
        c.keySet().forEach(w -> with.merge(w, 1, Integer::sum));
      }
    }
  }

  /// The words of a text, small, without endings that come with number and tense.
  static List<String> words(String text) {
    List<String> all = new ArrayList<>();
    for (String w : text.toLowerCase(Locale.ROOT).split("[^\\p{L}\\p{N}]+")) {
      if (w.length() >= 3 && !EMPTY.contains(w)) {
        all.add(stem(w));
      }
    }
    return all;
  }

  private static String stem(String w) {
    for (String end : List.of("ing", "es", "ed", "s")) {
      if (w.length() - end.length() >= 4 && w.endsWith(end)) {
        return w.substring(0, w.length() - end.length());
      }
    }
    return w;
  }

  /// Passages that have words of a text, the nearest first.
  public List<Found> of(String text, int most) {
    Set<String> asked = new HashSet<>(words(text));
    List<Found> found = new ArrayList<>();
    for (int i = 0; i < passages.size(); i++) {
      double score = 0;
      double length = 0;
      for (int n : counts.get(i).values()) {
        length += n;
      }
      for (String w : asked) {
        Integer n = counts.get(i).get(w);
        if (n != null) {
          // more of the same word says less each time, and so does it among many others
          score += Math.log(passages.size() / (double) with.get(w)) * n / (n + 0.5 + length / 80);
        }
      }
      if (score > 0) {
        found.add(new Found(passages.get(i).page(), passages.get(i).at(), score));
      }
    }
    found.sort(Comparator.comparingDouble((Found f) -> -f.score()));
    return List.copyOf(found.subList(0, Math.min(most, found.size())));
  }

  /// The passage that speaks of a text, where one clearly does.
  public Optional<Found> best(String text) {
    return of(text, 1).stream().filter(f -> f.score() >= CLEARLY).findFirst();
  }
}
