package ell.core.prove;

import ell.core.jig.Patterns;
import ell.core.power.Ladder;
import ell.core.pulse.Measures;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Limits;
import ell.core.quantity.Quantity;
import ell.core.quantity.Unit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;

/// Reads test plans: a step a line, as a maker writes it.
///
/// ```
/// plan gauge
/// ohms 3V3 GND 1k..
/// power
/// volts 3V3
/// amps VIN_RAW boot 8mA..20mA
/// wave XIN frequency
/// loop 20 "warmed to 60 °C"
///   say "get level" expect "level (12|13)" within=1s
/// end
/// ask "Is D1 lit?" yes
/// off
/// ```
public final class PlanReader {
  /// No plan is longer.
  private static final int MOST_LINES = 5000;

  private static final int MOST_TIMES = 10_000;
  private static final int MOST_RETRIES = 100;
  private static final double LONGEST = 3600;
  private static final List<String> OPTIONS =
      List.of("name", "guard", "retries", "needs", "fails", "minutes", "within", "send");

  private final List<TestStep> steps = new ArrayList<>();
  private final List<TestPlan.Loop> loops = new ArrayList<>();
  private final List<String> wrong = new ArrayList<>();
  private String name;
  private int loopFrom = -1;
  private int loopTimes;
  private int loopLine;
  private String stress = "";

  private PlanReader(String name) {
    this.name = name;
  }

  /// Reads a plan.
  ///
  /// @param named of one that has no name of its own
  /// @throws IllegalArgumentException with every line that is none, and what was expected
  public static TestPlan read(String text, String named) {
    PlanReader r = new PlanReader(named);
    List<String> lines = text.lines().toList();
    if (lines.size() > MOST_LINES) {
      throw new IllegalArgumentException(
          "a plan has up to " + MOST_LINES + " lines, found " + lines.size());
    }
    for (int i = 0; i < lines.size(); i++) {
      try {
        r.line(i + 1, lines.get(i).replace("\uFEFF", ""));
      } catch (IllegalArgumentException e) {
        r.wrong.add("line " + (i + 1) + ": " + e.getMessage());
      }
    }
    if (r.loopFrom >= 0) {
      r.wrong.add("line " + r.loopLine + ": a loop has an end, expected: end");
    }
    if (r.wrong.isEmpty() && r.steps.isEmpty()) {
      r.wrong.add("a plan has steps, a line each, such as: volts 3V3");
    }
    r.references();
    if (!r.wrong.isEmpty()) {
      throw new IllegalArgumentException(String.join("\n", r.wrong));
    }
    TestPlan p = new TestPlan(r.name, r.steps, r.loops, List.of());
    if (p.turns().size() > TestPlan.MOST) {
      throw new IllegalArgumentException(
          "a plan has up to "
              + TestPlan.MOST
              + " steps with every try of its loops counted, found "
              + p.turns().size());
    }
    return p;
  }

  private void references() {
    List<String> before = new ArrayList<>();
    for (TestStep s : steps) {
      for (String n : s.needs()) {
        if (!before.contains(n)) {
          wrong.add(
              "line "
                  + s.line()
                  + ": '"
                  + s.name()
                  + "' needs '"
                  + n
                  + "', and no step before it has that name");
        }
      }
      before.add(s.name());
    }
  }

  private void line(int number, String text) {
    List<PlanWord> words = PlanWord.words(text);
    if (words.isEmpty()) {
      return;
    }
    String verb = words.getFirst().text();
    List<PlanWord> rest = new ArrayList<>(words.subList(1, words.size()));
    switch (verb) {
      case "plan" -> name = one(rest, "the name of the plan");
      case "loop" -> {
        if (loopFrom >= 0) {
          throw new IllegalArgumentException("a loop stands in no other loop");
        }
        loopFrom = steps.size();
        loopLine = number;
        if (rest.isEmpty() || rest.size() > 2) {
          throw new IllegalArgumentException("expected how often, and under which stress");
        }
        loopTimes = whole(rest.getFirst().text(), 1, MOST_TIMES, "loop");
        stress = rest.size() > 1 ? rest.get(1).text() : "";
      }
      case "end" -> {
        if (loopFrom < 0 || loopFrom == steps.size()) {
          throw new IllegalArgumentException("expected a loop with steps before its end");
        }
        loops.add(new TestPlan.Loop(loopFrom, steps.size(), loopTimes, stress));
        loopFrom = -1;
      }
      default -> add(step(number, verb, rest));
    }
  }

  private void add(TestStep s) {
    boolean again = steps.stream().anyMatch(x -> x.name().equals(s.name()));
    if (again && s.act().tests()) {
      throw new IllegalArgumentException(
          "two tests have the name '" + s.name() + "'; give one of them another: name=...");
    }
    if (!again) {
      steps.add(s);
      return;
    }
    int n = 2;
    while (named(s.name() + " " + n)) {
      n++;
    }
    steps.add(
        new TestStep(
            s.line(),
            s.name() + " " + n,
            s.act(),
            s.limits(),
            s.guard(),
            s.retries(),
            s.needs(),
            s.stops(),
            s.minutes()));
  }

  private boolean named(String name) {
    return steps.stream().anyMatch(x -> x.name().equals(name));
  }

  private TestStep step(int number, String verb, List<PlanWord> words) {
    Map<String, String> said = options(words);
    TestAct act = act(verb, words, said);
    Optional<Limits> limits = limits(act, words);
    if (!words.isEmpty()) {
      throw new IllegalArgumentException(
          "found '" + words.getFirst().text() + "' behind the end of: " + form(verb));
    }
    String stops = said.getOrDefault("fails", act instanceof TestAct.Power ? "stop" : "go");
    if (!List.of("stop", "go").contains(stops)) {
      throw new IllegalArgumentException("fails=stop or fails=go, found '" + stops + "'");
    }
    if (said.containsKey("guard") && act.reads().isEmpty()) {
      throw new IllegalArgumentException("a guard band is for what is a number");
    }
    return new TestStep(
        number,
        named(said.getOrDefault("name", act.usualName()), act),
        act,
        limits,
        said.containsKey("guard")
            ? EngineeringNumber.parse(said.get("guard"), act.reads().orElseThrow())
            : 0,
        said.containsKey("retries") ? whole(said.get("retries"), 0, MOST_RETRIES, "retries") : 0,
        said.containsKey("needs")
            ? Arrays.stream(said.get("needs").split(",")).map(String::strip).toList()
            : List.of(),
        stops.equals("stop"),
        said.containsKey("minutes") ? minutes(said.get("minutes")) : 0);
  }

  /// Under a stress a test is another test: it may fail warm and hold cold.
  private String named(String name, TestAct act) {
    return loopFrom >= 0 && !stress.isEmpty() && act.tests() ? name + ", " + stress : name;
  }

  private TestAct act(String verb, List<PlanWord> w, Map<String, String> said) {
    String form = form(verb);
    return switch (verb) {
      case "ohms" -> new TestAct.Ohms(next(w, form), next(w, form));
      case "power" -> new TestAct.Power();
      case "off" -> new TestAct.Off();
      case "set" ->
          new TestAct.Level(next(w, form), EngineeringNumber.parse(next(w, form), Unit.VOLT));
      case "volts" -> new TestAct.Volts(next(w, form));
      case "amps" -> {
        String rail = next(w, form);
        yield new TestAct.Amps(
            rail,
            !w.isEmpty() && Ladder.STATES.contains(w.getFirst().text())
                ? w.removeFirst().text()
                : "boot");
      }
      case "wave" -> {
        String place = next(w, form);
        boolean measure = !w.isEmpty() && !w.getFirst().text().contains("..");
        String m = measure ? w.removeFirst().text() : "";
        if (measure && TestAct.measure(m).isEmpty()) {
          throw new IllegalArgumentException(
              "no capture measures '" + m + "'; it measures " + Measures.NAMES.keySet());
        }
        yield new TestAct.Wave(place, m);
      }
      case "feel" -> new TestAct.Feel(next(w, form));
      case "talk" -> new TestAct.Talk(next(w, form));
      case "say" -> {
        String text = next(w, form);
        if (w.size() < 2 || !w.getFirst().text().equals("expect")) {
          throw new IllegalArgumentException("expected: " + form);
        }
        w.removeFirst();
        String expect = w.removeFirst().text();
        try {
          Pattern.compile(expect.replaceAll("\\{[a-z]+}", "x"));
        } catch (PatternSyntaxException e) {
          throw new IllegalArgumentException(
              "the pattern '" + expect + "' is none: " + e.getDescription(), e);
        }
        yield new TestAct.Say(text, expect, seconds(said.getOrDefault("within", "2s")));
      }
      case "ask" -> {
        String question = next(w, form);
        boolean yes = !w.isEmpty() && List.of("yes", "no").contains(w.getFirst().text());
        if (yes) {
          yield new TestAct.Ask(question, w.removeFirst().text(), Unit.ONE);
        }
        if (w.isEmpty()) {
          throw new IllegalArgumentException("expected yes, no or limits behind the question");
        }
        yield new TestAct.Ask(question, "", unit(w.getFirst().text()));
      }
      case "wait" -> new TestAct.Pause(seconds(next(w, form)));
      case "plug", "link" -> {
        String place = next(w, form);
        String stand = next(w, form);
        List<String> may = verb.equals("plug") ? List.of("in", "out") : List.of("open", "closed");
        if (!may.contains(stand)) {
          throw new IllegalArgumentException("expected: " + form);
        }
        yield new TestAct.Stand(place, stand);
      }
      case "pattern" -> {
        Patterns.Kind kind = Patterns.Kind.of(next(w, form));
        List<String> nets =
            Arrays.stream(next(w, form).split(",")).map(String::strip).distinct().toList();
        String send = said.getOrDefault("send", "");
        if (!send.isEmpty() && !send.contains("{vector}")) {
          throw new IllegalArgumentException("send has {vector} where the pattern goes");
        }
        yield new TestAct.Vectors(kind, nets, send);
      }
      default ->
          throw new IllegalArgumentException(
              "'"
                  + verb
                  + "' is no step; expected ohms, power, volts, amps, set, wave, feel, talk,"
                  + " say, ask, wait, plug, link, pattern, loop, end or off");
    };
  }

  /// How a step is written.
  static String form(String verb) {
    return switch (verb) {
      case "ohms" -> "ohms PLACE PLACE [LOW..HIGH]";
      case "set" -> "set RAIL VOLTS";
      case "volts" -> "volts PLACE [LOW..HIGH]";
      case "amps" -> "amps RAIL [STATE] [LOW..HIGH]";
      case "wave" -> "wave PLACE [MEASURE [LOW..HIGH]]";
      case "feel" -> "feel PART [..HIGH]";
      case "talk" -> "talk SCRIPT";
      case "say" -> "say \"TEXT\" expect \"PATTERN\" [within=SECONDS]";
      case "ask" -> "ask \"QUESTION\" yes, no or LOW..HIGH";
      case "wait" -> "wait SECONDS";
      case "plug" -> "plug PLACE in or out";
      case "link" -> "link PLACE open or closed";
      case "pattern" ->
          "pattern walking, counting, complement or all-together NET,NET [send=\"TEXT {vector}\"]";
      default -> verb;
    };
  }

  private static Optional<Limits> limits(TestAct act, List<PlanWord> w) {
    if (w.isEmpty() || act.reads().isEmpty() || !w.getFirst().text().contains("..")) {
      return Optional.empty();
    }
    String t = w.removeFirst().text();
    int at = t.indexOf("..");
    String low = t.substring(0, at).strip();
    String high = t.substring(at + 2).replaceFirst("^\\.", "").strip();
    Unit unit = act.reads().get();
    // the unit may stand behind the second number only
    Optional<String> tail = unitless(low) ? suffix(high) : Optional.empty();
    double l =
        low.isEmpty()
            ? Double.NEGATIVE_INFINITY
            : EngineeringNumber.parse(low + tail.orElse(""), unit);
    double h = high.isEmpty() ? Double.POSITIVE_INFINITY : EngineeringNumber.parse(high, unit);
    if (low.isEmpty() && high.isEmpty() || l > h) {
      throw new IllegalArgumentException(
          "limits are LOW..HIGH, LOW.. or ..HIGH, found '" + t + "'");
    }
    return Optional.of(new Limits(l, h));
  }

  private static boolean unitless(String number) {
    return number.matches("[-+]?[0-9.,]+");
  }

  private static Optional<String> suffix(String number) {
    String s = number.replaceFirst("^[-+]?[0-9.,]+", "");
    return s.isEmpty() ? Optional.empty() : Optional.of(s);
  }

  private static Unit unit(String limits) {
    int at = limits.indexOf("..");
    if (at < 0) {
      throw new IllegalArgumentException("expected yes, no or LOW..HIGH, found '" + limits + "'");
    }
    String some =
        limits.substring(at + 2).isBlank() ? limits.substring(0, at) : limits.substring(at + 2);
    Quantity q = EngineeringNumber.read(some.strip(), Unit.ONE);
    return q.unit();
  }

  private static Map<String, String> options(List<PlanWord> words) {
    Map<String, String> all = new LinkedHashMap<>();
    for (int i = words.size() - 1; i >= 0; i--) {
      PlanWord w = words.get(i);
      if (!w.quoted() && w.option().isPresent()) {
        String key = w.option().get();
        if (!OPTIONS.contains(key)) {
          throw new IllegalArgumentException(
              "a step has no '" + key + "='; it has " + String.join("=, ", OPTIONS) + "=");
        }
        if (all.put(key, w.text().substring(key.length() + 1)) != null) {
          throw new IllegalArgumentException(key + "= stands twice");
        }
        words.remove(i);
      }
    }
    return all;
  }

  private static String next(List<PlanWord> w, String form) {
    if (w.isEmpty()) {
      throw new IllegalArgumentException("expected: " + form);
    }
    return w.removeFirst().text();
  }

  private static String one(List<PlanWord> w, String what) {
    if (w.size() != 1) {
      throw new IllegalArgumentException("expected " + what);
    }
    return w.getFirst().text();
  }

  private static int whole(String text, int least, int most, String what) {
    if (!text.matches("\\d{1,6}")
        || Integer.parseInt(text) < least
        || Integer.parseInt(text) > most) {
      throw new IllegalArgumentException(
          what + ": a whole number in " + least + "..." + most + ", found '" + text + "'");
    }
    return Integer.parseInt(text);
  }

  private static double seconds(String text) {
    double s = EngineeringNumber.parse(text, Unit.SECOND);
    if (!(s >= 0 && s <= LONGEST)) {
      throw new IllegalArgumentException(
          "seconds in 0..." + (int) LONGEST + ", found '" + text + "'");
    }
    return s;
  }

  private static double minutes(String text) {
    double m = EngineeringNumber.parse(text, Unit.ONE);
    if (!(m > 0 && m <= LONGEST)) {
      throw new IllegalArgumentException("minutes above 0, found '" + text + "'");
    }
    return m;
  }
}
