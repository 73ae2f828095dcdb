package ell.desk.help;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;

/// The words of the trade, read from the page of that name: a list, each with the word in bold and
/// its meaning behind a colon.
public final class Glossary {
  private final Map<String, String> meanings = new LinkedHashMap<>();
  private final Map<String, Pattern> patterns = new LinkedHashMap<>();

  /// A word with what it means.
  public record Meaning(String word, String means) {}

  /// The glossary of a page.
  public Glossary(Pages.Page page) {
    for (Pages.Passage p : page.passages()) {
      for (String line : p.text().split("\n")) {
        int colon = line.indexOf(": ");
        if (p.head() || colon < 1 || colon > 40) {
          continue;
        }
        String word = line.substring(0, colon).replaceFirst("^[-* ]+", "").strip();
        meanings.put(word, line.substring(colon + 2).strip());
        patterns.put(word, pattern(word));
      }
    }
  }

  private static Pattern pattern(String word) {
    List<String> forms = new ArrayList<>();
    for (String w : word.split(" or ")) {
      forms.add(Pattern.quote(w.toLowerCase(Locale.ROOT)) + "(?:s|es|ed|ing)?");
    }
    return Pattern.compile(
        "(?<![\\p{L}\\p{N}])(?:" + String.join("|", forms) + ")(?![\\p{L}\\p{N}])");
  }

  /// Every word, in the order of the page.
  public List<Meaning> all() {
    return meanings.entrySet().stream().map(e -> new Meaning(e.getKey(), e.getValue())).toList();
  }

  /// The words that occur in a text, in the order in which they occur.
  public List<Meaning> in(String text) {
    String t = text.toLowerCase(Locale.ROOT);
    record At(int at, Meaning m) {}
    List<At> found = new ArrayList<>();
    patterns.forEach((word, p) -> {
      var m = p.matcher(t);
      if (m.find()) {
        found.add(new At(m.start(), new Meaning(word, meanings.get(word))));
      }
    });
    found.sort(Comparator.comparingInt(At::at));
    return found.stream().map(At::m).toList();
  }
}
