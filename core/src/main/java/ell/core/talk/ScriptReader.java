package ell.core.talk;

import ell.core.json.JsonObject;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;

/// Reads scripts: a JSON object with `steps`, or the list of steps alone.
public final class ScriptReader {
  private static final double USUAL_WITHIN = 2;
  private static final double LOADING = 60;
  private static final double LONGEST = 3600;
  private static final int MOST_RETRIES = 1000;
  private static final Set<String> SCRIPT =
      Set.of("name", "operation", "baud", "banner", "steps", "about");
  private static final Set<String> STEP =
      Set.of(
          "label",
          "send",
          "hex",
          "expect",
          "within",
          "retries",
          "then",
          "else",
          "why",
          "wait",
          "ask",
          "key",
          "appears",
          "load",
          "settings",
          "set",
          "get",
          "identity",
          "read",
          "about");

  private ScriptReader() {}

  /// Reads a script.
  ///
  /// @param name for one that has none, such as its file's
  /// @throws IllegalArgumentException when it is none, with the step and what was expected
  public static Script read(String json, String name) {
    String text = json.strip();
    JsonObject o =
        JsonObject.parse(text.startsWith("[") ? "{\"steps\":" + text + "}" : text, "a script");
    known(o, SCRIPT, "a script");
    List<Script.Step> steps = new ArrayList<>();
    for (JsonObject s : o.objects("steps")) {
      try {
        steps.add(step(s));
      } catch (IllegalArgumentException e) {
        throw new IllegalArgumentException("step " + (steps.size() + 1) + ": " + e.getMessage(), e);
      }
    }
    if (steps.isEmpty()) {
      throw new IllegalArgumentException("a script has steps, at least one");
    }
    targets(steps);
    double baud = o.number("baud", 0);
    if (baud != 0 && !(baud >= 50 && baud <= 12_000_000 && baud == Math.rint(baud))) {
      throw new IllegalArgumentException("baud: a whole number in 50...12000000, found " + baud);
    }
    String banner = o.text("banner", "");
    pattern(banner);
    return new Script(o.text("name", name), o.text("operation", ""), (int) baud, banner, steps);
  }

  private static Script.Step step(JsonObject o) {
    known(o, STEP, "a step");
    List<String> does = new ArrayList<>();
    for (String k :
        List.of("send", "hex", "wait", "appears", "ask", "load", "settings", "identity")) {
      if (o.has(k)) {
        does.add(k);
      }
    }
    if (does.size() > 1) {
      throw new IllegalArgumentException("it does one thing, found " + String.join(" and ", does));
    }
    Optional<String> expect = o.has("expect") ? Optional.of(o.text("expect")) : Optional.empty();
    expect.ifPresent(ScriptReader::pattern);
    if (does.isEmpty() && expect.isEmpty()) {
      throw new IllegalArgumentException(
          "expected send, expect, wait, appears, ask, load, settings or identity");
    }
    String what = does.isEmpty() ? "" : does.getFirst();
    Script.Act act =
        switch (what) {
          case "hex" -> new Script.Act.Send(hex(o.text("hex")));
          case "wait" -> new Script.Act.Pause(seconds(o, "wait", 0));
          case "appears" -> {
            pattern(o.text("appears"));
            yield new Script.Act.Appears(o.text("appears"));
          }
          case "ask" -> new Script.Act.Ask(o.text("key", ""), o.text("ask"));
          case "load" -> new Script.Act.Load(o.text("load"));
          case "settings" ->
              new Script.Act.Settings(
                  values(o.object("settings")),
                  o.text("set", "set {name} {value}\r"),
                  o.text("get", "get {name}\r"));
          case "identity" ->
              new Script.Act.Write(o.text("identity"), o.text("read", "identity?\r"));
          default -> new Script.Act.Send(o.text("send", ""));
        };
    double retries = o.number("retries", 0);
    if (!(retries >= 0 && retries <= MOST_RETRIES && retries == Math.rint(retries))) {
      throw new IllegalArgumentException(
          "retries: a whole number in 0..." + MOST_RETRIES + ", found " + retries);
    }
    return new Script.Step(
        o.text("label", ""),
        act,
        expect,
        seconds(o, "within", what.equals("load") ? LOADING : USUAL_WITHIN),
        (int) retries,
        o.text("then", ""),
        o.text("else", ""),
        o.text("why", ""));
  }

  private static void known(JsonObject o, Set<String> keys, String what) {
    for (String k : o.keys()) {
      if (!keys.contains(k)) {
        throw new IllegalArgumentException(
            what
                + " has no '"
                + k
                + "'; it has "
                + String.join(", ", new java.util.TreeSet<>(keys)));
      }
    }
  }

  private static void targets(List<Script.Step> steps) {
    Set<String> labels = new HashSet<>();
    for (Script.Step s : steps) {
      if (!s.label().isEmpty() && !labels.add(s.label())) {
        throw new IllegalArgumentException("label '" + s.label() + "' stands twice");
      }
    }
    for (int i = 0; i < steps.size(); i++) {
      for (String to : List.of(steps.get(i).then(), steps.get(i).otherwise())) {
        if (!to.isEmpty() && !to.equals("stop") && !to.equals("next") && !labels.contains(to)) {
          throw new IllegalArgumentException(
              "step " + (i + 1) + ": there is no step labelled '" + to + "'");
        }
      }
    }
  }

  /// Seconds, as a number or with a unit.
  private static double seconds(JsonObject o, String key, double otherwise) {
    double v;
    if (!o.has(key)) {
      v = otherwise;
    } else {
      try {
        v = o.number(key);
      } catch (IllegalArgumentException e) {
        try {
          v = EngineeringNumber.parse(o.text(key), Unit.SECOND);
        } catch (NumberFormatException no) {
          throw o.wrong(key, "seconds, such as 2 or 500ms");
        }
      }
    }
    if (!(v >= 0 && v <= LONGEST)) {
      throw o.wrong(key, "seconds in 0..." + (int) LONGEST);
    }
    return v;
  }

  private static Map<String, String> values(JsonObject o) {
    Map<String, String> all = new LinkedHashMap<>();
    for (String k : o.keys()) {
      all.put(k, o.text(k));
    }
    if (all.isEmpty()) {
      throw new IllegalArgumentException("settings: expected names and values in words");
    }
    return all;
  }

  private static String hex(String text) {
    String t = text.replaceAll("[\\s,]|0x", "");
    if (t.isEmpty() || t.length() % 2 != 0 || !t.matches("[0-9A-Fa-f]+")) {
      throw new IllegalArgumentException("hex: expected bytes such as 1d 48, found '" + text + "'");
    }
    StringBuilder s = new StringBuilder();
    for (int i = 0; i < t.length(); i += 2) {
      s.append((char) Integer.parseInt(t.substring(i, i + 2), 16));
    }
    return s.toString();
  }

  private static void pattern(String p) {
    try {
      Pattern.compile(p.replaceAll("\\{[a-zA-Z]+}", "x")); // what is put in later
    } catch (PatternSyntaxException e) {
      throw new IllegalArgumentException(
          "the pattern '" + p + "' is none: " + e.getDescription() + " at " + e.getIndex(), e);
    }
  }
}
