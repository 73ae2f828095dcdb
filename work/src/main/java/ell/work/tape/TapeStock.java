package ell.work.tape;

import ell.core.board.Part;
import ell.core.entry.Entry;
import ell.core.entry.StockChange;
import ell.core.rack.Plan;
import ell.work.tape.Tape.Meaning;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.TreeMap;


/// Lines of the tape that move stock.
final class TapeStock {
  private static final long MOST = 1_000_000_000L;
  private final Plan plan;
  private final TreeMap<String, String> codes = new TreeMap<>(String.CASE_INSENSITIVE_ORDER);

  TapeStock(Plan plan, Iterable<String> shelf) {
    this.plan = plan;
    for (Part p : plan.revision().parts()) {
      codes.putIfAbsent(p.code(), p.code());
      p.alternates().forEach(a -> codes.putIfAbsent(a, a));
    }
    shelf.forEach(c -> codes.put(c, c));
  }

  Iterable<String> codes() {
    return codes.values();
  }

  /// `count CODE [BIN] N`, `received CODE N`, `ordered CODE N [DATE]`. A code may have blanks.
  Meaning change(String word, String rest) {
    StockChange change = StockChange.of(word).orElseThrow();
    Optional<String> code = codeAtStart(rest);
    if (code.isEmpty()) {
      List<String> near = near(rest);
      return rest.isEmpty() || !near.isEmpty()
          ? new Meaning.Unfinished(
              near.isEmpty() ? "the code, and how many" : "one of " + String.join(", ", near))
          : new Meaning.Wrong("there is no code '" + rest + "' in the bill or on the shelf");
    }
    List<String> words =
        new ArrayList<>(Arrays.asList(rest.substring(code.get().length()).strip().split("\\s+")));
    words.removeIf(String::isEmpty);
    Optional<LocalDate> due = Optional.empty();
    if (change == StockChange.ORDERED && words.size() > 1) {
      try {
        due = Optional.of(LocalDate.parse(words.removeLast()));
      } catch (DateTimeParseException e) {
        return new Meaning.Unfinished("the date on which it arrives, such as 2026-12-03");
      }
    }
    String bin = change == StockChange.COUNTED && words.size() > 1 ? words.removeFirst() : "";
    if (words.size() != 1) {
      return words.isEmpty()
          ? new Meaning.Unfinished("how many " + code.get() + " were " + change.key())
          : new Meaning.Wrong("expected a bin at most and a number, found " + words);
    }
    if (!words.getFirst().matches("\\d{1,10}") || Long.parseLong(words.getFirst()) > MOST) {
      return new Meaning.Wrong(
          "expected a whole number not below 0, found '" + words.getFirst() + "'");
    }
    return Tape.ready(
        List.of(
            new Entry.Stock(change, code.get(), bin, Long.parseLong(words.getFirst()), due, "")));
  }

  /// The longest known code that the text begins with.
  private Optional<String> codeAtStart(String text) {
    String t = text.toLowerCase(Locale.ROOT);
    String best = null;
    for (String c : codes.values()) {
      if (t.startsWith(c.toLowerCase(Locale.ROOT))
          && (t.length() == c.length() || Character.isWhitespace(t.charAt(c.length())))
          && (best == null || c.length() > best.length())) {
        best = c;
      }
    }
    return Optional.ofNullable(best);
  }

  private List<String> near(String typed) {
    return typed.isEmpty()
        ? List.of()
        : codes.values().stream()
            .filter(c -> c.regionMatches(true, 0, typed, 0, typed.length()))
            .limit(5)
            .toList();
  }

  /// `PART lost [N] [WHY]`.
  Meaning lost(String place, String tail) {
    if (plan.revision().part(place).isEmpty()) {
      return new Meaning.Wrong(place + " is no part: only parts are lost");
    }
    String[] words = tail.split("\\s+", 2);
    boolean counted = words[0].matches("\\d{1,6}");
    int count = counted ? Integer.parseInt(words[0]) : 1;
    if (count < 1) {
      return new Meaning.Wrong("how many were lost? 1 or more, found " + count);
    }
    String why = counted ? words.length > 1 ? words[1] : "" : tail;
    return Tape.ready(List.of(new Entry.Lost(place, count, why)));
  }

  /// `PART fitted with CODE [WHY]`.
  Meaning fitted(String place, String rest) {
    if (plan.revision().part(place).isEmpty()) {
      return new Meaning.Wrong(place + " is no part");
    }
    if (rest.isEmpty()) {
      return new Meaning.Unfinished("the code of what was fitted at " + place);
    }
    // a substitute need not be known to the bill or the shelf: it is what lies on the board
    String code = codeAtStart(rest).orElse(rest.split("\\s+", 2)[0]);
    return Tape.ready(
        List.of(new Entry.Fitted(place, code, rest.substring(code.length()).strip())));
  }
}
