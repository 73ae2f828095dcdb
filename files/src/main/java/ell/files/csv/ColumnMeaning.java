package ell.files.csv;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// What a column is about. The headings that people give it stand in `columns.txt`.
enum ColumnMeaning {
  REFERENCE,
  QUANTITY,
  VALUE,
  PACKAGE,
  CODE,
  FITTED,
  NOT_FITTED,
  ALTERNATES,
  KEY,
  BLOCK,
  DESCRIPTION,
  COST,
  MASS,
  X,
  Y,
  ROTATION,
  SIDE,
  MIRROR,
  LOOP,
  BIN,
  ON_ORDER,
  EXPECTED,
  EXPIRY,
  KIND,
  VARIANTS,
  SPARES,
  AVAILABLE,
  SELLER,
  PACK,
  LEAST,
  PRICES,
  BREAK,
  DAYS,
  SHIPPING,
  SHIPS_WITH,
  FAMILY,
  LENGTH,
  WIDTH,
  HEIGHT,
  PARAMETER;

  private static final int LONGEST = 60;
  private static final int BEST = 100;
  private static final int MOST_WORDS = 60;
  private static final int VAGUE = 20;

  /// Headings of running numbers.
  private static final Set<String> RUNNING =
      Set.of("", "item", "line", "row", "no", "nr", "pos", "position", "id", "index", "seq");

  private static final Pattern OTHER = Pattern.compile("[^\\p{L}\\p{N}]");
  private static final Pattern UNIT_WORD =
      Pattern.compile(
          "((?:pos|mid|center|centre|centroid|ref|location)?+[xy](?:pos|mid|center)?+)(?:mm|mils?|inch|in|um)");
  private static final Pattern UNIT = Pattern.compile("[(\\[]\\s*([a-zA-Zµμ°]+)\\s*[)\\]]");
  private static final Map<ColumnMeaning, Map<String, Integer>> WORDS = words();

  /// How well a heading, brought to its key, says this: 100 for the best word, down to 40; 20 for a
  /// word that may mean it; 0 when it says something else.
  int said(String key) {
    boolean number = key.endsWith("#");
    String plain = number ? key.substring(0, key.length() - 1) : key;
    Integer score = WORDS.get(this).get(plain);
    if (score != null) {
      return score;
    }
    // a seller's own number: his name with a sign for a number
    return this == CODE && number && !RUNNING.contains(plain) ? VAGUE : 0;
  }

  private static Map<ColumnMeaning, Map<String, Integer>> words() {
    Map<ColumnMeaning, Map<String, Integer>> all = new EnumMap<>(ColumnMeaning.class);
    try (InputStream in = ColumnMeaning.class.getResourceAsStream("columns.txt")) {
      String text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
      for (String line : text.replaceAll("\\R  ", " ").split("\\R")) {
        int colon = line.indexOf(": ");
        if (line.startsWith("#") || colon < 0) {
          continue;
        }
        Map<String, Integer> scores = new HashMap<>();
        boolean vague = false;
        int at = 0;
        for (String word : line.substring(colon + 2).split(" +")) {
          if (word.equals("|")) {
            vague = true;
          } else {
            scores.putIfAbsent(word, vague ? VAGUE : BEST - Math.min(at++, MOST_WORDS));
          }
        }
        all.put(of(line.substring(0, colon)).orElseThrow(), scores);
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return all;
  }

  /// The word of this on the command line.
  String word() {
    return name().toLowerCase(Locale.ROOT).replace('_', '-');
  }

  /// A meaning by its word.
  static Optional<ColumnMeaning> of(String word) {
    return Arrays.stream(values()).filter(m -> m.word().equals(word)).findFirst();
  }

  /// A heading without its unit, lower case, letters and digits only; a trailing sign for a number
  /// stays.
  static String key(String heading) {
    if (heading.length() > LONGEST) {
      return ""; // no heading is that long
    }
    String h = UNIT.matcher(heading).replaceAll("").toLowerCase(Locale.ROOT).strip();
    boolean number = h.length() > 1 && h.endsWith("#");
    h = OTHER.matcher(h).replaceAll("");
    // headings such as `X mm` carry the unit as a word
    Matcher word = UNIT_WORD.matcher(h);
    String plain = word.matches() ? word.group(1) : h;
    return number && !plain.isEmpty() ? plain + "#" : plain;
  }

  /// The unit that a heading states in brackets or as its last word, empty when none.
  static String unit(String heading) {
    var m = UNIT.matcher(heading);
    if (m.find()) {
      return m.group(1).toLowerCase(Locale.ROOT);
    }
    var w =
        Pattern.compile("[\\s_](mm|mils?|inch|in|um)$")
            .matcher(heading.strip().toLowerCase(Locale.ROOT));
    return w.find() ? w.group(1) : "";
  }
}
