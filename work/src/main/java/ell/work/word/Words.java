package ell.work.word;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.NamedCsvRecord;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Everything that is shown, in one language. A phrase stands once, in the first column of
/// `words.csv`, with its translations beside it; `{1}`, `{2}` … are gaps for what changes, and what
/// stands in a gap is looked up too. What is longer is looked up piece by piece, at the marks that
/// Ell joins pieces with. What the table does not have is shown as it is.
///
/// Safe for use by several threads.
public final class Words {
  /// Where pieces are joined, the widest first. Behind those that join whole sayings each piece is
  /// looked up for itself; the others also stand within sentences, and half a sentence in another
  /// language is worse than none.
  private static final List<String> JOINTS = List.of("\n", " · ", "; ", ". ", ": ", ", ");

  private static final int SAYINGS = 4;

  /// What stands in a gap is never more than one saying.
  private static final String IN_GAP = "((?:(?! · |; |\n).)+?)";

  /// A gap within a gap within a gap: no phrase of the table is deeper.
  private static final int DEPTH = 4;

  private static final int KEPT = 8000;
  private static final Pattern FREE = Pattern.compile("[:→△×(] ?$");
  private static final Pattern WORD = Pattern.compile("\\p{Ll}{3}");

  /// A key with what it does.
  private static final Pattern KEY = Pattern.compile("([A-Z?/]|Space|(?:Shift|Ctrl)\\+\\S+) (.+)");

  private static final Pattern GAP = Pattern.compile("\\{(\\d)}");

  private final Language language;
  private final Map<String, String> whole = new HashMap<>();
  private final List<Gapped> gapped = new ArrayList<>();
  private final Map<String, String> known =
      new LinkedHashMap<>(256, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, String> eldest) {
          return size() > KEPT;
        }
      };

  /// A phrase with gaps.
  ///
  /// @param literal how many of its letters are its own
  /// @param first what it begins with before its first gap
  /// @param order the number of the gap that each group holds
  private record Gapped(
      Pattern english, String first, String other, int literal, List<Integer> order) {}

  private Words(Language language) {
    this.language = language;
    if (language != Language.ENGLISH) {
      for (Map.Entry<String, String> e : table(language).entrySet()) {
        add(e.getKey(), e.getValue());
      }
      gapped.sort(Comparator.comparingInt((Gapped g) -> -g.literal()));
    }
  }

  /// What is shown in a language.
  public static Words in(Language language) {
    return new Words(language);
  }

  /// The phrases with their translations into a language, in the order of the table.
  ///
  /// @throws IllegalStateException when the table that ships cannot be read
  public static Map<String, String> table(Language language) {
    Map<String, String> all = new LinkedHashMap<>();
    try (InputStream in = Words.class.getResourceAsStream("words.csv");
        CsvReader<NamedCsvRecord> rows =
            CsvReader.builder()
                .ofNamedCsvRecord(new InputStreamReader(in, StandardCharsets.UTF_8))) {
      for (NamedCsvRecord r : rows) {
        String english = r.getField("en").translateEscapes();
        String other = r.getField(language.key()).translateEscapes();
        if (all.put(english, other) != null) {
          throw new IllegalStateException(
              "line " + r.getStartingLineNumber() + ": '" + english + "' stands twice");
        }
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return all;
  }

  private void add(String english, String other) {
    Matcher m = GAP.matcher(english);
    if (!m.find()) {
      whole.put(english, other);
      return;
    }
    StringBuilder regex = new StringBuilder();
    List<Integer> order = new ArrayList<>();
    int at = 0;
    int literal = 0;
    String first = english.substring(0, m.start());
    do {
      regex.append(Pattern.quote(english.substring(at, m.start()))).append(IN_GAP);
      literal += m.start() - at;
      order.add(Integer.parseInt(m.group(1)));
      at = m.end();
    } while (m.find());
    regex.append(Pattern.quote(english.substring(at)));
    literal += english.length() - at;
    gapped.add(
        new Gapped(Pattern.compile(regex.toString()), first, other, literal, List.copyOf(order)));
  }

  /// The language.
  public Language language() {
    return language;
  }

  /// A text as it is shown: translated where the table has it, numbers and dates as the language
  /// writes them.
  public String shown(String text) {
    if (language == Language.ENGLISH || text == null || text.isEmpty()) {
      return text;
    }
    synchronized (known) {
      String before = known.get(text);
      if (before != null) {
        return before;
      }
    }
    String s = Figures.shown(pieces(text, 0), language);
    synchronized (known) {
      known.put(text, s);
    }
    return s;
  }

  /// Only the numbers and dates of a text as the language writes them, for what is not Ell's own
  /// words.
  public String figures(String text) {
    return Figures.shown(text, language);
  }

  /// Whether the table has a text whole, or fits it into a phrase with gaps.
  public boolean has(String text) {
    return phrase(text, DEPTH - 1).isPresent();
  }

  private String pieces(String text, int joint) {
    return pieces(text, joint, 0);
  }

  private String pieces(String text, int joint, int depth) {
    String bare = text.strip();
    if (bare.isEmpty() || depth > DEPTH) {
      return text;
    }
    // the table has sentences without their full stops
    boolean stops = bare.endsWith(".") && !bare.endsWith("..");
    Optional<String> p =
        stops
            ? phrase(bare.substring(0, bare.length() - 1), depth).map(x -> x + ".")
            : phrase(bare, depth);
    if (p.isPresent()) {
      int at = text.indexOf(bare);
      return text.substring(0, at) + p.get() + text.substring(at + bare.length());
    }
    for (int j = joint; j < JOINTS.size(); j++) {
      if (text.contains(JOINTS.get(j))) {
        return joined(text, j, depth);
      }
    }
    return text;
  }

  private String joined(String text, int j, int depth) {
    String mark = JOINTS.get(j);
    List<String> all = new ArrayList<>();
    boolean whole = true;
    int from = 0;
    for (int at = text.indexOf(mark); from >= 0; at = text.indexOf(mark, from)) {
      String piece = at < 0 ? text.substring(from) : text.substring(from, at);
      String other = pieces(piece, j + 1, depth);
      whole &= !half(piece, other);
      all.add(other);
      from = at < 0 ? -1 : at + mark.length();
    }
    return j < SAYINGS || whole ? String.join(mark, all) : text;
  }

  /// Whether words were left as they are.
  private static boolean half(String text, String other) {
    return other.equals(text) && WORD.matcher(text).find();
  }

  private Optional<String> phrase(String text, int depth) {
    String w = whole.get(text);
    if (w != null) {
      return Optional.of(w);
    }
    Matcher key = KEY.matcher(text);
    if (key.matches() && depth < DEPTH) {
      Optional<String> does = phrase(key.group(2), depth + 1);
      if (does.isPresent()) {
        String name = key.group(1);
        return Optional.of(whole.getOrDefault(name, name) + " " + does.get());
      }
    }
    for (Gapped g : gapped) {
      if (!text.startsWith(g.first())) {
        continue;
      }
      Matcher m = g.english().matcher(text);
      if (m.matches()) {
        String[] gaps = new String[10];
        boolean whole = true;
        for (int i = 0; i < g.order().size(); i++) {
          String in = m.group(i + 1);
          String other = pieces(in, 0, depth + 1);
          // behind a colon or a mark anything may stand; elsewhere half a sentence would be left
          whole &= FREE.matcher(text.substring(0, m.start(i + 1))).find() || !half(in, other);
          gaps[g.order().get(i)] = other;
        }
        if (!whole) {
          continue;
        }
        return Optional.of(
            GAP.matcher(g.other())
                .replaceAll(x -> Matcher.quoteReplacement(gaps[x.group(1).charAt(0) - '0'])));
      }
    }
    return Optional.empty();
  }
}
