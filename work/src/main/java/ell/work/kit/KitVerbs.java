package ell.work.kit;

import ell.core.entry.Entry;
import ell.core.entry.StockChange;
import ell.core.rack.Stage;
import ell.work.tape.Meaning;
import ell.work.tape.Said;
import ell.work.tape.Tape;
import ell.work.tape.Verb;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/// Words of the tape about the shelf, and about parts that are lost or others than the bill says.
public final class KitVerbs {
  private static final long MOST = 1_000_000_000L;

  /// The verbs.
  public static final List<Verb> ALL =
      List.of(
          shelf(
              "count|counted",
              "count CODE [BIN] N",
              "so many lie in the bin now",
              "count R10K-0603 180",
              "count R10K-0603 A4 60"),
          shelf("received", "received CODE N", "so many came in", "received LDO33A 20"),
          shelf(
              "ordered",
              "ordered CODE N [DATE]",
              "so many are on their way",
              "ordered LDO33A 20 2026-12-03"),
          Verb.at(
                  "lost|dropped",
                  "PART lost [N] [WHY]",
                  "parts that were dropped, broken or lost",
                  KitVerbs::lost,
                  "C5 lost",
                  "C5 lost 3 blown off the table")
              .of(Stage.KIT),
          Verb.at(
                  "fitted with",
                  "PART fitted with CODE [WHY]",
                  "a part that is another than the bill says",
                  KitVerbs::fitted,
                  "Y1 fitted with XTAL12B")
              .of(Stage.KIT));

  private KitVerbs() {}

  private static Verb shelf(String words, String grammar, String means, String... examples) {
    return Verb.first(words, grammar, means, KitVerbs::change, examples)
        .offering(t -> t.codes().values().stream().map(c -> c + " ").toList())
        .of(Stage.KIT);
  }

  /// A code may have blanks.
  private static Meaning change(Said said) {
    StockChange change = StockChange.of(said.word()).orElseThrow();
    String rest = said.rest();
    Optional<String> code = codeAtStart(said.tape(), rest);
    if (code.isEmpty()) {
      List<String> near = near(said.tape(), rest);
      return rest.isEmpty() || !near.isEmpty()
          ? Meaning.unfinished(
              near.isEmpty() ? "the code, and how many" : "one of " + String.join(", ", near))
          : Meaning.wrong("there is no code '" + rest + "' in the bill or on the shelf");
    }
    List<String> words =
        new ArrayList<>(Arrays.asList(rest.substring(code.get().length()).strip().split("\\s+")));
    words.removeIf(String::isEmpty);
    Optional<LocalDate> due = Optional.empty();
    if (change == StockChange.ORDERED && words.size() > 1) {
      try {
        due = Optional.of(LocalDate.parse(words.removeLast()));
        if (due.get().getYear() < 1990 || due.get().getYear() > 2200) {
          return Meaning.wrong("it arrives in 1990 to 2200, found " + due.get());
        }
      } catch (DateTimeParseException e) {
        return Meaning.unfinished("the date on which it arrives, such as 2026-12-03");
      }
    }
    String bin = change == StockChange.COUNTED && words.size() > 1 ? words.removeFirst() : "";
    if (words.size() != 1) {
      return words.isEmpty()
          ? Meaning.unfinished("how many " + code.get() + " were " + change.key())
          : Meaning.wrong("expected a bin at most and a number, found " + words);
    }
    if (!words.getFirst().matches("\\d{1,10}") || Long.parseLong(words.getFirst()) > MOST) {
      return Meaning.wrong("expected a whole number not below 0, found '" + words.getFirst() + "'");
    }
    return Meaning.ready(
        new Entry.Stock(change, code.get(), bin, Long.parseLong(words.getFirst()), due, ""));
  }

  /// The longest known code that the text begins with.
  private static Optional<String> codeAtStart(Tape tape, String text) {
    String t = text.toLowerCase(Locale.ROOT);
    String best = null;
    for (String c : tape.codes().values()) {
      if (t.startsWith(c.toLowerCase(Locale.ROOT))
          && (t.length() == c.length() || Character.isWhitespace(t.charAt(c.length())))
          && (best == null || c.length() > best.length())) {
        best = c;
      }
    }
    return Optional.ofNullable(best);
  }

  private static List<String> near(Tape tape, String typed) {
    return typed.isEmpty()
        ? List.of()
        : tape.codes().values().stream()
            .filter(c -> c.regionMatches(true, 0, typed, 0, typed.length()))
            .limit(5)
            .toList();
  }

  private static Meaning lost(Said said) {
    if (said.plan().revision().part(said.place()).isEmpty()) {
      return Meaning.wrong(said.place() + " is no part: only parts are lost");
    }
    String[] words = said.two();
    boolean counted = words[0].matches("\\d{1,6}");
    int count = counted ? Integer.parseInt(words[0]) : 1;
    if (count < 1) {
      return Meaning.wrong("how many were lost? 1 or more, found " + count);
    }
    return Meaning.ready(new Entry.Lost(said.place(), count, counted ? words[1] : said.rest()));
  }

  private static Meaning fitted(Said said) {
    if (said.plan().revision().part(said.place()).isEmpty()) {
      return Meaning.wrong(said.place() + " is no part");
    }
    if (said.rest().isEmpty()) {
      return Meaning.unfinished("the code of what was fitted at " + said.place());
    }
    // a substitute need not be known to the bill or the shelf: it is what lies on the board
    String code = codeAtStart(said.tape(), said.rest()).orElse(said.two()[0]);
    return Meaning.ready(
        new Entry.Fitted(said.place(), code, said.rest().substring(code.length()).strip()));
  }
}
