package ell.work.tape;

import ell.core.beep.BeepCheck;
import ell.core.board.Joint;
import ell.core.board.PartKind;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.entry.StockChange;
import ell.core.heat.HeatBudget;
import ell.core.order.Step;
import ell.core.power.Ladder.RailSpec;
import ell.core.quantity.Accuracy;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Limits;
import ell.core.quantity.Quantity;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.rack.Plan;
import ell.core.rack.Standing;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;


/// Understands a line typed on the tape, and says what it would log before it is logged.
///
/// A line is `PLACE WHAT`: a net, test point, part or part.pin, then a reading (`3V3 3.287`), a
/// defect or action word (`U4.7 bridge`, `C5 replaced`), or free words. Or it begins with one of
/// the words `note TEXT`, `step N` or `steps A-B`, `gate NAME holds|fails [WHY]`, `beep N
/// OHMS|open`, `PLACE PLACE OHMS` for a check of the beep list, `override RULE WHY`, `strike N
/// [WHY]`. Of the shelf: `count CODE [BIN] N`, `received CODE N`, `ordered CODE N [DATE]`; of
/// parts: `PART lost [N] [WHY]`, `PART fitted with CODE [WHY]`. Of paste and heat: `printed SIDE
/// [wiped] [jar CODE]`, `PLACE paste LOOK`, `jar CODE MOVE [WHY]`, `bag CODE opened|closed [level
/// L]`. Of inspection: `PLACE good`, `rest good`, `hands NAME`.
public final class Tape {
  private static final Pattern RANGE =
      Pattern.compile("(\\d{1,6})\\s*(?:-|\\.{2,3}|…)\\s*(\\d{1,6})");
  private static final List<String> FIRST_WORDS =
      List.of(
          "note ",
          "step ",
          "steps ",
          "gate ",
          "beep ",
          "override ",
          "strike ",
          "count ",
          "received ",
          "ordered ",
          "printed ",
          "rest good",
          "jar ",
          "bag ",
          "hands ");

  private final Plan plan;
  private final Places places;
  private final TapeStock stock;
  private final TapePaste paste;

  /// A tape for boards of one plan.
  ///
  /// @param shelf codes that lie on the shelf, beside those of the bill
  /// @param jars codes of jars of paste
  public Tape(Plan plan, Set<String> shelf, Set<String> jars) {
    this.plan = plan;
    this.paste = new TapePaste(plan, jars);
    this.stock = new TapeStock(plan, shelf);
    this.places = new Places(plan.revision(), plan.ladder());
  }

  /// What a line means.
  public sealed interface Meaning {
    /// It can be logged.
    ///
    /// @param words what will be logged, for the person who typed it
    record Ready(List<Entry> entries, String words) implements Meaning {
      public Ready {
        entries = List.copyOf(entries);
      }
    }

    /// It is not finished.
    record Unfinished(String hint) implements Meaning {}

    /// It cannot be logged.
    record Wrong(String why) implements Meaning {}
  }

  /// The places of the board.
  public Places places() {
    return places;
  }

  /// Understands a line.
  ///
  /// @param state of the board that it is about
  /// @param log its entries, oldest first
  public Meaning understand(String line, BoardState state, List<Logged> log) {
    String text = line.strip();
    if (text.isEmpty()) {
      return new Meaning.Unfinished("a place and what was seen there, such as 3V3 3.287");
    }
    if (text.length() > 2000) {
      return new Meaning.Wrong("a line has up to 2000 characters, this one has " + text.length());
    }
    String[] words = text.split("\\s+", 2);
    String rest = words.length > 1 ? words[1].strip() : "";
    return switch (words[0].toLowerCase(Locale.ROOT)) {
      case "note" ->
          rest.isEmpty()
              ? new Meaning.Unfinished("the words to note")
              : ready(List.of(new Entry.Note(rest)));
      case "step", "steps" -> steps(rest, state);
      case "gate" -> gate(rest);
      case "beep" -> beep(rest);
      case "override" -> override(rest);
      case "strike" -> strike(rest, log);
      case "count", "counted", "received", "ordered" -> stock.change(words[0], rest);
      case "rest" -> rest(rest, state);
      case "printed" -> paste.printed(rest);
      case "jar" -> paste.jar(rest);
      case "bag" -> paste.bag(rest, stock.codes());
      case "hands" ->
          rest.isEmpty()
              ? new Meaning.Unfinished("who is at the bench")
              : ready(List.of(new Entry.Hands(rest)));
      default -> atPlace(words[0], rest, state);
    };
  }

  static Meaning ready(List<Entry> entries) {
    String words =
        entries.size() == 1
            ? EntryWords.of(entries.getFirst())
            : entries.size() + " entries, the last " + EntryWords.of(entries.getLast());
    return new Meaning.Ready(entries, words);
  }

  private Meaning steps(String rest, BoardState state) {
    List<Step> all = plan.order().steps();
    int from;
    int to;
    Matcher range = RANGE.matcher(rest);
    if (rest.isEmpty()) {
      Optional<Step> next = Standing.nextStep(state, plan);
      if (next.isEmpty()) {
        return new Meaning.Wrong("every step is done");
      }
      from = next.get().number();
      to = from;
    } else if (range.matches()) {
      from = Integer.parseInt(range.group(1));
      to = Integer.parseInt(range.group(2));
    } else if (rest.matches("\\d{1,6}")) {
      from = Integer.parseInt(rest);
      to = from;
    } else {
      return new Meaning.Wrong("expected step 12 or steps 1-30, found '" + rest + "'");
    }
    if (from < 1 || to > all.size() || from > to) {
      return new Meaning.Wrong("steps go from 1 to " + all.size() + ", found '" + rest + "'");
    }
    List<Entry> entries = new ArrayList<>();
    for (Step s : all.subList(from - 1, to)) {
      if (s.gate().isPresent() && from == to) {
        return new Meaning.Wrong(
            "step " + from + " is a gate: say gate " + s.gate().get() + " holds, or fails");
      }
      if (s.gate().isEmpty() && !Standing.stepDone(state, s)) {
        Optional<String> hot = tooHot(s, state);
        if (hot.isPresent()) {
          return new Meaning.Wrong(hot.get() + "; override heat WHY to go on");
        }
        entries.add(done(s, 0));
      }
    }
    return entries.isEmpty() ? new Meaning.Wrong("done already") : ready(entries);
  }

  /// Why a reflow would heat a part too often, empty when it would not or the rule is set aside.
  private Optional<String> tooHot(Step s, BoardState state) {
    return s.action() != Step.Action.REFLOW || state.overrides().containsKey(TapePaste.HEAT_RULE)
        ? Optional.empty()
        : state.placed().stream()
            .flatMap(p -> HeatBudget.refusal(plan.revision(), state, p).stream())
            .findFirst();
  }

  /// The entry of a step that was done.
  ///
  /// @param seconds that it took, 0 when not timed
  public static Entry done(Step s, double seconds) {
    return new Entry.StepDone(s.number(), s.action().words(), s.parts(), seconds, s.side().key());
  }

  /// `rest good`: every joint that was not looked at yet and has no finding.
  private Meaning rest(String word, BoardState state) {
    if (!word.equalsIgnoreCase("good")) {
      return new Meaning.Unfinished("good: all joints that were not looked at yet are");
    }
    List<String> places = restGood(plan, state);
    return places.isEmpty()
        ? new Meaning.Wrong("every joint was looked at, or has a finding")
        : ready(List.of(new Entry.Seen(places)));
  }

  /// Places that `rest good` means: whole parts, and single joints of parts with a finding.
  public static List<String> restGood(Plan plan, BoardState state) {
    Set<String> bad =
        state.findings().stream().map(BoardState.Finding::place).collect(Collectors.toSet());
    List<String> places = new ArrayList<>();
    for (String part : state.placed()) {
      List<String> own =
          plan.revision().jointsOf(part).stream().map(Joint::place).distinct().toList();
      boolean clean = !bad.contains(part) && own.stream().noneMatch(bad::contains);
      if (clean && !own.isEmpty() && !own.stream().allMatch(state::sawGood)) {
        places.add(part);
      } else if (!clean && !bad.contains(part)) {
        own.stream().filter(j -> !bad.contains(j) && !state.sawGood(j)).forEach(places::add);
      }
    }
    return places;
  }

  private Meaning gate(String rest) {
    for (var block : plan.blocks()) {
      String gate = block.gate();
      if (rest.toLowerCase(Locale.ROOT).startsWith(gate.toLowerCase(Locale.ROOT))) {
        String[] what = rest.substring(gate.length()).strip().split("\\s+", 2);
        String why = what.length > 1 ? what[1] : "";
        return switch (what[0].toLowerCase(Locale.ROOT)) {
          case "holds", "ok", "yes" -> ready(List.of(new Entry.Gate(gate, true, why)));
          case "fails", "no" -> ready(List.of(new Entry.Gate(gate, false, why)));
          default -> new Meaning.Unfinished("gate " + gate + ": holds, or fails and why");
        };
      }
    }
    return new Meaning.Wrong(
        "there is no gate '"
            + rest
            + "'; there are "
            + String.join(", ", plan.blocks().stream().map(b -> b.gate()).toList()));
  }

  private Meaning beep(String rest) {
    String[] words = rest.split("\\s+", 2);
    int most = plan.beep().checks().size();
    if (!words[0].matches("\\d{1,7}")) {
      return new Meaning.Unfinished(
          "beep, the number of the check (1 to " + most + "), the reading");
    }
    int number = Integer.parseInt(words[0]);
    if (number < 1 || number > most) {
      return new Meaning.Wrong("checks go from 1 to " + most + ", found " + number);
    }
    BeepCheck c = plan.beep().checks().get(number - 1);
    return words.length < 2
        ? new Meaning.Unfinished(
            "the reading in ohms, or open; expect " + c.expected().text(Unit.OHM, 3))
        : checked(c, words[1]);
  }

  private Meaning checked(BeepCheck c, String reading) {
    if (reading.toLowerCase(Locale.ROOT).matches("open|ol|inf|infinite|no beep|∞")) {
      return ready(List.of(check(c, Double.POSITIVE_INFINITY)));
    }
    try {
      double ohms = EngineeringNumber.parse(reading, Unit.OHM);
      return ohms < 0
          ? new Meaning.Wrong("ohms are not below 0, found '" + reading + "'")
          : ready(List.of(check(c, ohms)));
    } catch (NumberFormatException e) {
      return new Meaning.Wrong(e.getMessage() + ", or open");
    }
  }

  /// The entry of a check with its reading.
  ///
  /// @param ohms infinite for an open loop
  public static Entry.Check check(BeepCheck c, double ohms) {
    Verdict verdict;
    if (Double.isInfinite(ohms)) {
      verdict = Double.isInfinite(c.expected().high()) ? Verdict.WITHIN : Verdict.OUT;
    } else {
      verdict = c.expected().judge(ohms, Accuracy.handheldOhms(ohms).uncertainty(ohms));
    }
    return new Entry.Check(
        c.kind().key(),
        c.a().place(),
        c.b().place(),
        c.netA(),
        c.netB(),
        ohms,
        c.expected(),
        verdict);
  }

  private static Meaning override(String rest) {
    String[] words = rest.split("\\s+", 2);
    if (!List.of("power", "paste", TapePaste.HEAT_RULE).contains(words[0])) {
      return new Meaning.Unfinished("the rule (power, paste or heat), and why it is set aside");
    }
    return words.length < 2
        ? new Meaning.Unfinished("why the rule " + words[0] + " is set aside")
        : ready(List.of(new Entry.Override(words[0], words[1])));
  }

  private static Meaning strike(String rest, List<Logged> log) {
    String[] words = rest.split("\\s+", 2);
    if (!words[0].matches("\\d{1,15}")) {
      return new Meaning.Unfinished("the number of the entry to strike, and why");
    }
    long number = Long.parseLong(words[0]);
    Optional<Logged> target = log.stream().filter(l -> l.number() == number).findFirst();
    if (target.isEmpty()) {
      return new Meaning.Wrong("this board has no entry " + number);
    }
    if (BoardState.struck(log).contains(number)) {
      return new Meaning.Wrong("entry " + number + " is struck already");
    }
    return new Meaning.Ready(
        List.of(new Entry.Strike(number, words.length > 1 ? words[1] : "")),
        "strikes " + number + ": " + EntryWords.of(target.get().entry()));
  }

  private Meaning atPlace(String typed, String rest, BoardState state) {
    Optional<String> found = places.find(typed);
    if (found.isEmpty()) {
      List<String> near = places.beginningWith(typed, 5);
      return near.isEmpty() || !rest.isEmpty()
          ? new Meaning.Wrong(
              "there is no place '"
                  + shorten(typed)
                  + "' on this board; a free line begins with note")
          : new Meaning.Unfinished("one of " + String.join(", ", near));
    }
    String place = found.get();
    if (rest.isEmpty()) {
      return new Meaning.Unfinished(place + ": " + expectation(place));
    }
    String[] words = rest.split("\\s+", 2);
    String tail = words.length > 1 ? words[1] : "";
    String word = words[0].toLowerCase(Locale.ROOT);
    if (word.equals("lost") || word.equals("dropped")) {
      return stock.lost(place, tail);
    }
    if (word.equals("fitted") && tail.startsWith("with")) {
      return stock.fitted(place, tail.substring(4).strip());
    }
    if (word.equals("paste")) {
      return paste.paste(place, tail);
    }
    if (word.equals("good") && places.jointOrPart(place)) {
      return ready(List.of(new Entry.Seen(List.of(place))));
    }
    if (TapeWords.DEFECTS.containsKey(word)) {
      return ready(List.of(new Entry.Defect(place, word, tail)));
    }
    if (TapeWords.ACTIONS.containsKey(word)) {
      if (TapeWords.ACTIONS.get(word)) {
        Optional<Meaning> refused = paste.hot(place, tail, state);
        if (refused.isPresent()) {
          return refused.get();
        }
      }
      return ready(List.of(new Entry.Action(place, word, TapeWords.ACTIONS.get(word), tail)));
    }
    Optional<Meaning> check = between(place, words[0], tail);
    return check.orElseGet(() -> reading(place, rest));
  }

  /// Two places and ohms: a check of the beep list between their nets.
  private Optional<Meaning> between(String place, String second, String reading) {
    Optional<String> other = places.find(second);
    Optional<String> a = places.netAt(place);
    Optional<String> b = other.flatMap(places::netAt);
    if (b.isEmpty() || a.isEmpty() || looksLikeNumber(second) && reading.isEmpty()) {
      return Optional.empty();
    }
    Optional<BeepCheck> c =
        plan.beep().checks().stream()
            .filter(x ->
                same(x.a().place(), x.b().place(), place, other.get())
                    || x.kind() == BeepCheck.Kind.ISOLATION
                        && same(x.netA(), x.netB(), a.get(), b.get()))
            .findFirst();
    return c.map(x ->
        reading.isEmpty()
            ? new Meaning.Unfinished("ohms, or open; expect " + x.expected().text(Unit.OHM, 3))
            : checked(x, reading));
  }

  private static boolean same(String a, String b, String c, String d) {
    return a.equals(c) && b.equals(d) || a.equals(d) && b.equals(c);
  }

  private static boolean looksLikeNumber(String word) {
    return word.matches("[+-−]?[\\d.,].*");
  }

  private Meaning reading(String place, String rest) {
    Unit assumed = unitAt(place);
    Quantity q;
    try {
      q = EngineeringNumber.read(rest, assumed);
    } catch (NumberFormatException e) {
      return looksLikeNumber(rest) && rest.split("\\s+").length <= 2
          ? new Meaning.Wrong(e.getMessage())
          : ready(List.of(new Entry.Note(place + " " + rest)));
    }
    if (q.unit() == Unit.ONE) {
      return new Meaning.Wrong(
          "'"
              + rest
              + "' has no unit, and "
              + place
              + " does not tell which: say V, A, Ω, °C or Hz");
    }
    return ready(List.of(reading(place, q)));
  }

  /// The entry of a reading at a place, judged where the place is a rail of the ladder.
  public Entry.Reading reading(String place, Quantity q) {
    Optional<Double> uncertainty =
        switch (q.unit()) {
          case VOLT -> Optional.of(Accuracy.handheldVolts(q.value()).uncertainty(q.value()));
          case OHM -> Optional.of(Accuracy.handheldOhms(q.value()).uncertainty(q.value()));
          default -> Optional.empty();
        };
    Optional<RailSpec> rail = places.railAt(place).filter(_ -> q.unit() == Unit.VOLT);
    Optional<Limits> limits = rail.map(r -> new Limits(r.low(), r.high()));
    return new Entry.Reading(
        place,
        q.value(),
        q.unit(),
        limits,
        uncertainty,
        limits.map(l -> l.judge(q.value(), uncertainty.orElse(0.0))),
        "");
  }

  private Unit unitAt(String place) {
    Optional<PartKind> kind = places.kindAt(place);
    boolean pin = place.contains(".") && plan.revision().part(place).isEmpty();
    if (kind.isEmpty() || pin || kind.get() == PartKind.TEST_POINT) {
      return Unit.VOLT;
    }
    return switch (kind.get()) {
      case RESISTOR -> Unit.OHM;
      case CAPACITOR -> Unit.FARAD;
      case INDUCTOR, FERRITE -> Unit.HENRY;
      case CRYSTAL -> Unit.HERTZ;
      default -> Unit.ONE;
    };
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
      FIRST_WORDS.stream()
          .filter(w -> !line.isEmpty() && w.startsWith(line.toLowerCase(Locale.ROOT)))
          .forEach(found::add);
    } else {
      String head = line.substring(0, space + 1);
      String tail = line.substring(space + 1).toLowerCase(Locale.ROOT);
      if (head.equalsIgnoreCase("gate ")) {
        plan.blocks().forEach(b -> offer(found, head, b.gate() + " holds", tail));
      } else if (StockChange.of(head.strip()).isPresent()) {
        stock.codes().forEach(c -> offer(found, head, c + " ", tail));
      } else if (places.find(head.strip()).isPresent() && !tail.isEmpty()) {
        List.of("good", "paste ", "lost", "fitted with ").forEach(w -> offer(found, head, w, tail));
        TapeWords.DEFECTS.keySet().forEach(w -> offer(found, head, w, tail));
        TapeWords.ACTIONS.keySet().forEach(w -> offer(found, head, w, tail));
      }
    }
    return found.stream().limit(most).toList();
  }

  private static void offer(List<String> found, String head, String word, String tail) {
    if (word.toLowerCase(Locale.ROOT).startsWith(tail)) {
      found.add(head + word);
    }
  }

  private static String shorten(String s) {
    return s.length() > 30 ? s.substring(0, 30) + "..." : s;
  }
}
