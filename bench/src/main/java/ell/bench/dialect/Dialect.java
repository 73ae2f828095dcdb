package ell.bench.dialect;

import ell.core.json.JsonObject;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// How an instrument of a kind wants to be told: its lines by what they do, as a JSON object of
/// words. What it takes stands in braces: `"setVolts": "VOLT {volts}"`.
///
/// @param kind `supply`, `meter`, `plate` or `scope`
/// @param name in words
/// @param lineEnd the characters that end a line, both ways
/// @param lines by their keys
public record Dialect(String kind, String name, String lineEnd, Map<String, String> lines) {
  private static final int LONGEST = 200;
  private static final Pattern BRACES = Pattern.compile("\\{([^{}]*)}");
  private static final List<String> HEAD = List.of("kind", "name", "lineEnd");
  private static final Map<String, String> ENDS = Map.of("LF", "\n", "CRLF", "\r\n", "CR", "\r");

  private static final List<Template> COMMON =
      List.of(
          Template.query("identity").maybe(),
          Template.command("clear").maybe(),
          Template.query("error").maybe());

  private static final Map<String, List<Template>> KINDS =
      Map.of(
          "supply",
          List.of(
              Template.command("select").taking("output").maybe(),
              Template.query("askSelect").maybe(),
              Template.command("setVolts").taking("volts"),
              Template.command("setAmps").taking("amps"),
              Template.query("askVolts"),
              Template.query("askAmps"),
              Template.command("on"),
              Template.command("off"),
              Template.query("askOn"),
              Template.query("volts"),
              Template.query("amps")),
          "meter",
          List.of(
              Template.query("volts"), Template.query("ohms"), Template.query("fourWires").maybe()),
          "plate",
          List.of(
              Template.command("setCelsius").taking("celsius"),
              Template.command("on"),
              Template.command("off"),
              Template.query("askOn"),
              Template.query("celsius").taking("channel")),
          "scope",
          List.of(
              Template.command("select").taking("input").maybe(),
              Template.command("coupling").taking("coupling"),
              Template.command("range").taking("volts"),
              Template.command("offset").taking("volts").maybe(),
              Template.command("span").taking("seconds"),
              Template.command("points").taking("points"),
              Template.command("level").taking("volts").maybe(),
              Template.command("arm"),
              Template.query("askDone").maybe(),
              Template.query("preamble"),
              Template.query("data"),
              Template.query("bandwidth").maybe()));

  public Dialect {
    lines = Map.copyOf(lines);
  }

  /// The one that ships for a kind: what SCPI-99 names for it.
  ///
  /// @throws IllegalArgumentException when there is none
  public static Dialect generic(String kind) {
    try (InputStream in = Dialect.class.getResourceAsStream(kind + ".json")) {
      if (in == null) {
        throw new IllegalArgumentException(
            "there are dialects for supply, meter, plate and scope, not for '" + kind + "'");
      }
      return read(new String(in.readAllBytes(), StandardCharsets.UTF_8));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /// Reads a dialect file.
  ///
  /// @throws IllegalArgumentException when it is none, naming every key that is wrong or missing
  public static Dialect read(String json) {
    JsonObject o = JsonObject.parse(json, "a dialect");
    String kind = o.text("kind", "");
    List<Template> own = KINDS.get(kind);
    if (own == null) {
      throw new IllegalArgumentException(
          "a dialect's kind is supply, meter, plate or scope, found '" + kind + "'");
    }
    Map<String, String> lines = new LinkedHashMap<>();
    List<String> problems = new ArrayList<>();
    List<Template> all = new ArrayList<>(COMMON);
    all.addAll(own);
    for (String key : o.keys()) {
      if (!HEAD.contains(key) && all.stream().noneMatch(t -> t.key().equals(key))) {
        problems.add("'" + key + "' is no line of a " + kind + "; its lines are " + keys(all));
      }
    }
    for (Template t : all) {
      if (o.has(t.key())) {
        String line = o.text(t.key());
        wrong(t, line).ifPresent(problems::add);
        lines.put(t.key(), line);
      } else if (t.needed()) {
        problems.add("'" + t.key() + "' is missing");
      }
    }
    String end = o.text("lineEnd", "LF");
    if (!ENDS.containsKey(end)) {
      problems.add("lineEnd is LF, CRLF or CR, found '" + end + "'");
    }
    if (!problems.isEmpty()) {
      throw new IllegalArgumentException(String.join("; ", problems));
    }
    return new Dialect(kind, o.text("name", "a " + kind), ENDS.get(end), lines);
  }

  private static String keys(List<Template> all) {
    return String.join(", ", all.stream().map(Template::key).toList());
  }

  private static Optional<String> wrong(Template t, String line) {
    String at = "'" + t.key() + "' ";
    if (line.isBlank() || line.length() > LONGEST || !line.chars().allMatch(Dialect::printable)) {
      return Optional.of(at + "is a line of 1 to " + LONGEST + " plain characters");
    }
    List<String> takes = new ArrayList<>();
    Matcher m = BRACES.matcher(line);
    while (m.find()) {
      takes.add(m.group(1));
    }
    List<String> right = t.takes().isEmpty() ? List.of() : List.of(t.takes());
    if (!takes.equals(right)) {
      return Optional.of(
          at
              + (right.isEmpty() ? "takes nothing in braces" : "takes {" + t.takes() + "} once")
              + ", found '"
              + line
              + "'");
    }
    return Optional.empty();
  }

  private static boolean printable(int c) {
    return c >= ' ' && c < 127;
  }

  /// Whether it has a line.
  public boolean has(String key) {
    return lines.containsKey(key);
  }

  /// A line that takes nothing.
  ///
  /// @throws IllegalArgumentException when it has none of that key
  public String line(String key) {
    String line = lines.get(key);
    if (line == null) {
      throw new IllegalArgumentException("the dialect '" + name + "' has no line '" + key + "'");
    }
    return line;
  }

  /// A line with a word in the place of its braces.
  public String line(String key, String word) {
    return BRACES.matcher(line(key)).replaceAll(Matcher.quoteReplacement(word));
  }

  /// A line with a number in the place of its braces.
  public String line(String key, double number) {
    return line(key, String.format(Locale.ROOT, "%.6g", number));
  }

  /// The queries as they would be sent, by their keys: they change nothing, a check may ask them.
  public Map<String, String> questions() {
    return shown(true);
  }

  /// Every line as it would be sent, with an example of what it takes.
  public Map<String, String> examples() {
    return shown(false);
  }

  private Map<String, String> shown(boolean queriesOnly) {
    Map<String, String> all = new LinkedHashMap<>();
    List<Template> templates = new ArrayList<>(COMMON);
    templates.addAll(KINDS.get(kind));
    for (Template t : templates) {
      // a block is no line: a check of lines does not ask for it
      boolean asked = t.query() && !t.key().equals("data");
      if (has(t.key()) && (asked || !queriesOnly)) {
        all.put(t.key(), line(t.key(), example(t)));
      }
    }
    return all;
  }

  private static String example(Template t) {
    return switch (t.takes()) {
      case "output" -> "1";
      case "volts" -> "3.30000";
      case "amps" -> "0.100000";
      case "celsius" -> "150.0";
      case "channel" -> "PLATE";
      case "input" -> "1";
      case "coupling" -> "DC";
      case "seconds" -> "0.00100000";
      case "points" -> "10000";
      default -> "";
    };
  }
}
