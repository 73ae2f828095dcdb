package ell.work.tape;

import ell.core.entry.BoardState;
import ell.core.entry.Logged;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.rack.Plan;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/// Understands a line typed on the tape, and says what it would log before it is logged.
///
/// A line begins with a verb (`step 12`), or with a place and then a verb (`U4.7 bridge`), or with
/// a place and something that is known by its form (`3V3 3.287`). Which verbs there are stands in
/// the lists of the stages, and nowhere else. Whether a rule of the work lets the line pass is not
/// asked here but when it is logged.
public final class Tape {
  private static final int LONGEST = 2000;

  private final Plan plan;
  private final Places places;
  private final List<Verb> verbs;
  private final Map<String, Verb> first = new LinkedHashMap<>();

  /// Several verbs may have one word: the first that knows the place has it.
  private final Map<String, List<Verb>> atPlace = new LinkedHashMap<>();

  private final Known known;

  /// What the workspace knows beside the plan.
  ///
  /// @param codes that lie on the shelf
  /// @param jars codes of jars of paste
  /// @param rules of the work that can be set aside
  public record Known(Set<String> codes, Set<String> jars, List<String> rules) {}

  /// A tape for boards of one plan.
  ///
  /// @param verbs in the order in which those without a word are asked
  public Tape(Plan plan, List<Verb> verbs, Known known) {
    this.plan = plan;
    this.places = new Places(plan.revision(), plan.ladder());
    this.verbs = List.copyOf(verbs);
    this.known = known;
    for (Verb v : verbs) {
      for (String w : v.words()) {
        if (v.afterPlace()) {
          atPlace.computeIfAbsent(w, _ -> new ArrayList<>()).add(v);
        } else {
          first.put(w, v);
        }
      }
    }
  }

  /// The plan of its boards.
  public Plan plan() {
    return plan;
  }

  /// The places of the board.
  public Places places() {
    return places;
  }

  /// What the workspace knows beside the plan.
  public Known known() {
    return known;
  }

  /// Every code that the bill or the shelf knows, in its own spelling, by any spelling.
  public TreeMap<String, String> codes() {
    TreeMap<String, String> codes = new TreeMap<>(String.CASE_INSENSITIVE_ORDER);
    plan.revision()
        .parts()
        .forEach(p -> {
          codes.putIfAbsent(p.code(), p.code());
          p.alternates().forEach(a -> codes.putIfAbsent(a, a));
        });
    known.codes().forEach(c -> codes.put(c, c));
    return codes;
  }

  /// Understands a line.
  ///
  /// @param state of the board that it is about
  /// @param log its entries, oldest first
  public Meaning understand(String line, BoardState state, List<Logged> log) {
    String text = line.strip();
    if (text.isEmpty()) {
      return Meaning.unfinished("a place and what was seen there, such as 3V3 3.287");
    }
    if (text.length() > LONGEST) {
      return Meaning.wrong(
          "a line has up to " + LONGEST + " characters, this one has " + text.length());
    }
    String[] words = text.split("\\s+", 2);
    String rest = words.length > 1 ? words[1].strip() : "";
    String word = words[0].toLowerCase(Locale.ROOT);
    Verb verb = first.get(word);
    if (verb != null) {
      return verb.reads().read(new Said(word, "", rest, this, state, log)).orElseThrow();
    }
    return atPlace(words[0], rest, state, log);
  }

  private Meaning atPlace(String typed, String rest, BoardState state, List<Logged> log) {
    Optional<String> found = places.find(typed);
    if (found.isEmpty()) {
      List<String> near = places.beginningWith(typed, 5);
      return near.isEmpty() || !rest.isEmpty()
          ? Meaning.wrong(
              "there is no place '"
                  + shorten(typed)
                  + "' on this board; a free line begins with note")
          : Meaning.unfinished("one of " + String.join(", ", near));
    }
    String place = found.get();
    if (rest.isEmpty()) {
      return Meaning.unfinished(place + ": " + expectation(place));
    }
    String word = worded(rest);
    if (!word.isEmpty()) {
      String tail = rest.substring(Math.min(word.length(), rest.length())).strip();
      for (Verb v : atPlace.get(word)) {
        Optional<Meaning> said = v.reads().read(new Said(word, place, tail, this, state, log));
        if (said.isPresent()) {
          return said.get();
        }
      }
    }
    for (Verb v : verbs) {
      if (v.words().isEmpty()) {
        Optional<Meaning> said = v.reads().read(new Said("", place, rest, this, state, log));
        if (said.isPresent()) {
          return said.get();
        }
      }
    }
    return Meaning.wrong("'" + shorten(rest) + "' says nothing about " + place);
  }

  /// The longest word of a verb that a text begins with, empty when there is none.
  private String worded(String text) {
    String small = text.toLowerCase(Locale.ROOT);
    String best = "";
    for (String w : atPlace.keySet()) {
      if (small.startsWith(w)
          && (small.length() == w.length() || Character.isWhitespace(small.charAt(w.length())))
          && w.length() > best.length()) {
        best = w;
      }
    }
    return best;
  }

  private String expectation(String place) {
    return places
        .railAt(place)
        .map(r -> "expect " + new Limits(r.low(), r.high()).text(Unit.VOLT, 4))
        .orElse("a reading, a defect or action word, or free words");
  }

  /// What could be typed next: whole lines that begin with `line`, at most `most`.
  public List<String> complete(String line, int most) {
    int space = line.indexOf(' ');
    List<String> found = new ArrayList<>();
    if (space < 0) {
      places.beginningWith(line, most).forEach(p -> found.add(p + " "));
      if (!line.isEmpty()) {
        first.keySet().forEach(w -> offer(found, "", w + " ", line));
      }
    } else {
      String head = line.substring(0, space + 1);
      String tail = line.substring(space + 1);
      Verb verb = first.get(head.strip().toLowerCase(Locale.ROOT));
      if (verb != null) {
        verb.offers().of(this).forEach(w -> offer(found, head, w, tail));
      } else if (places.find(head.strip()).isPresent() && !tail.isEmpty()) {
        atPlace.forEach((w, all) -> {
          Verb v = all.getFirst();
          offer(found, head, w + (v.words().size() > 1 ? "" : " "), tail);
          v.offers().of(this).forEach(o -> offer(found, head, w + " " + o, tail));
        });
      }
    }
    return found.stream().distinct().limit(most).toList();
  }

  private static void offer(List<String> found, String head, String word, String tail) {
    if (word.toLowerCase(Locale.ROOT).startsWith(tail.toLowerCase(Locale.ROOT))) {
      found.add(head + word);
    }
  }

  private static String shorten(String s) {
    return s.length() > 30 ? s.substring(0, 30) + "..." : s;
  }
}
