package ell.work.word;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertSame;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.text.NumberFormat;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.time.format.FormatStyle;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// The table of phrases, how a text finds its phrase, and numbers and dates by locale; those are
/// held against what the Java platform has of the locale data of the Unicode consortium (CLDR).
public class WordsTest {
  private static final Pattern GAP = Pattern.compile("\\{(\\d)}");

  @DataProvider
  Object[][] languages() {
    return Stream.of(Language.values())
        .filter(l -> l != Language.ENGLISH)
        .map(l -> new Object[] {l})
        .toArray(Object[][]::new);
  }

  private static Set<String> gaps(String s) {
    Set<String> all = new TreeSet<>();
    GAP.matcher(s).results().forEach(r -> all.add(r.group()));
    return all;
  }

  @Test(dataProvider = "languages")
  public void everyPhraseIsWholeInEveryLanguage(Language l) {
    Map<String, String> table = Words.table(l);
    assertTrue(table.size() > 500, "found " + table.size());
    int same = 0;
    for (Map.Entry<String, String> e : table.entrySet()) {
      String en = e.getKey();
      String other = e.getValue();
      assertFalse(other.isBlank(), en + " has no " + l.own());
      assertEquals(gaps(other), gaps(en), en + " → " + other);
      assertEquals(other.strip(), other, en);
      assertFalse(en.endsWith(".") || other.endsWith("."), "without full stop: " + en);
      if (en.endsWith("…")) {
        assertTrue(other.endsWith("…"), en + " goes on in " + other);
      }
      if (en.endsWith("?")) {
        assertTrue(other.endsWith("?"), en + " asks, " + other + " does not");
      }
      same += other.equals(en) ? 1 : 0;
    }
    assertTrue(same < table.size() / 20, same + " phrases are English still");
    Words w = Words.in(l);
    for (Map.Entry<String, String> e : table.entrySet()) {
      if (gaps(e.getKey()).isEmpty()) {
        assertEquals(w.shown(e.getKey()), e.getValue(), e.getKey());
      }
    }
  }

  /// A phrase that nobody says any more would never be missed: what each says of its own stands
  /// somewhere in the sources, as it is or in pieces.
  @Test
  public void everyPhraseIsSaidSomewhere() throws IOException {
    StringBuilder sources = new StringBuilder();
    for (String m : List.of("core", "files", "book", "bench", "work", "desk")) {
      try (Stream<Path> all = Files.walk(Path.of("../" + m + "/src/main/java"))) {
        for (Path p : all.filter(f -> f.toString().endsWith(".java")).toList()) {
          sources.append(Files.readString(p));
        }
      }
    }
    // what is joined over two lines stands in one piece here
    String text = sources.toString().replaceAll("\"\\s*\\+\\s*\"", "");
    String small = text.toLowerCase(Locale.ROOT);
    List<String> never = new ArrayList<>();
    for (String en : Words.table(Language.GERMAN).keySet()) {
      for (String part : GAP.split(en)) {
        for (String word : part.toLowerCase(Locale.ROOT).split("[^\\p{L}]+")) {
          if (word.length() > 3 && !small.contains(word)) {
            never.add(en + " (" + word + ")");
          }
        }
      }
    }
    assertTrue(never.isEmpty(), String.join("\n", never));
  }

  @Test
  public void gapsAreFilledAndLookedUpThemselves() {
    Words de = Words.in(Language.GERMAN);
    assertEquals(de.shown("step 31 of 53"), "Schritt 31 von 53");
    assertEquals(de.shown("take care: Mind pin 1."), "Vorsicht: Auf Pin 1 achten.");
    assertEquals(
        de.shown("held · GND to 3V3 isolation out"), "angehalten · GND zu 3V3 Isolation außerhalb");
    assertEquals(de.shown("lift off in 12 s"), "in 12 s abheben");
    // the order of the gaps may be another
    assertEquals(
        Words.in(Language.FRENCH).shown("set point goes to 160 °C in 7 s"),
        "la consigne passe à 160 °C dans 7 s");
    assertEquals(
        Words.in(Language.SPANISH).shown("must not join: GND and VBAT"),
        "no deben unirse: GND y VBAT");
  }

  @Test
  public void halfASentenceIsLeftAsItIs() {
    Words de = Words.in(Language.GERMAN);
    String unknown = "the frobnicator of the board, done, is later than good";
    assertEquals(de.shown(unknown), unknown);
    assertEquals(de.shown("U3.8"), "U3.8");
    assertEquals(de.shown(""), "");
    assertEquals(de.shown(null), null);
    assertEquals(de.shown("  done "), "  fertig ");
    assertEquals(de.shown("J bridge · T starved"), "J Brücke · T zu wenig Lot");
    assertEquals(
        de.shown("Space done · Shift+G rest of the board good"),
        "Leertaste fertig · Shift+G Rest der Platine gut");
    assertEquals(de.shown("A frobnicator"), "A frobnicator");
    // sayings that are joined are looked up one by one
    assertEquals(de.shown("done · frobnicator"), "fertig · frobnicator");
  }

  @Test
  public void englishIsLeftAlone() {
    Words en = Words.in(Language.ENGLISH);
    for (String s : List.of("step 31 of 53", "3.312 V", "2026-11-20", "19 Nov 11:21:22")) {
      assertSame(en.shown(s), s);
    }
  }

  @Test(dataProvider = "languages")
  public void numbersAsTheLocaleWritesThem(Language l) {
    Words w = Words.in(l);
    NumberFormat f = NumberFormat.getInstance(l.locale());
    f.setMinimumFractionDigits(3);
    f.setMaximumFractionDigits(3);
    f.setGroupingUsed(false);
    assertEquals(w.shown("3.312 V"), f.format(3.312) + " V");
    assertEquals(w.shown("-0.250 A"), f.format(-0.25) + " A");
    assertEquals(w.shown("9.000...14.000 V"), f.format(9) + "..." + f.format(14) + " V");
    assertEquals(w.shown("(3.234...3.366)"), "(" + f.format(3.234) + "..." + f.format(3.366) + ")");
    assertEquals(w.shown("5.160 V ±28 mV, 1.500"), f.format(5.16) + " V ±28 mV, " + f.format(1.5));
    // what only looks like a number
    for (String s :
        List.of(
            "U3.8",
            "J1.1 to D1.2",
            "Ell 0.1.0",
            "127.0.0.1:8420",
            "board-01.pdf",
            "4.7k",
            "gauge-1.4.txt",
            "tcp://10.0.0.7:5025",
            "a.1.5.b",
            "1.",
            ".5",
            "x1.5")) {
      assertEquals(w.figures(s), s);
    }
  }

  @Test(dataProvider = "languages")
  public void datesAsTheLocaleWritesThem(Language l) {
    Words w = Words.in(l);
    LocalDate day = LocalDate.of(2026, 11, 20);
    String cldr =
        day.format(DateTimeFormatter.ofLocalizedDate(FormatStyle.SHORT).withLocale(l.locale()));
    // the same marks in the same order, but the year in full and the day in two digits
    String ours = w.shown("on 2026-11-20").replace("on ", "");
    assertEquals(
        ours.replaceAll("\\d", "").charAt(0), cldr.replaceAll("\\d", "").charAt(0), ours + cldr);
    assertTrue(ours.startsWith("20") && ours.endsWith("2026"), ours);
    String month = day.format(DateTimeFormatter.ofPattern("MMM", l.locale()));
    assertTrue(w.shown("20 Nov 14:11:25").contains(month), w.shown("20 Nov 14:11:25"));
    for (String s : List.of("2026-13-45", "2026-11-20_record.pdf", "A2026-11-20", "31 Nov")) {
      if (!s.equals("31 Nov")) {
        assertEquals(w.figures(s), s);
      }
    }
  }

  @Test
  public void theSystemSaysWhichLanguage() {
    Locale before = Locale.getDefault(Locale.Category.DISPLAY);
    try {
      Locale.setDefault(Locale.Category.DISPLAY, Locale.CANADA_FRENCH);
      assertEquals(Language.system(), Language.FRENCH);
      Locale.setDefault(Locale.Category.DISPLAY, Locale.JAPAN);
      assertEquals(Language.system(), Language.ENGLISH);
    } finally {
      Locale.setDefault(Locale.Category.DISPLAY, before);
    }
    assertEquals(Language.SPANISH.next(), Language.ENGLISH);
  }
}
