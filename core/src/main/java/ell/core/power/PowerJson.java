package ell.core.power;

import ell.core.power.Ladder.Kind;
import ell.core.power.Ladder.Load;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.Ladder.Source;
import ell.core.power.Ladder.Step;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// Power ladders and the faults of simulated boards as JSON, in SI units, as a maker edits them.
///
/// A ladder is `{"ground", "rails":[{"net","volts","low","high","capacitance","readAt"}],
/// "sources":[{"rail","volts","low","high","limit"}], "steps":[{"part","kind","from","to","volts",
/// "dropout","efficiency","quiescent","theta","limit","ohms"}], "loads":[{"part","rail","amps":
/// {state: A}}], "assumptions":[...]}`; a `kind` is `linear`, `switching`, `pass` or `diode`.
public final class PowerJson {
  private static final JsonMapper MAPPER = JsonMapper.builder().build();

  private PowerJson() {}

  /// Writes a ladder, indented.
  public static String write(Ladder ladder) {
    return tree(ladder).toPrettyString() + "\n";
  }

  /// A ladder as a tree.
  public static ObjectNode tree(Ladder l) {
    ObjectNode o = MAPPER.createObjectNode().put("ground", l.ground());
    ArrayNode rails = o.putArray("rails");
    for (RailSpec r : l.rails()) {
      rails
          .addObject()
          .put("net", r.net())
          .put("volts", r.volts())
          .put("low", r.low())
          .put("high", r.high())
          .put("capacitance", r.capacitance())
          .put("readAt", r.readAt());
    }
    ArrayNode sources = o.putArray("sources");
    for (Source s : l.sources()) {
      sources
          .addObject()
          .put("rail", s.rail())
          .put("volts", s.volts())
          .put("low", s.low())
          .put("high", s.high())
          .put("limit", s.limit());
    }
    ArrayNode steps = o.putArray("steps");
    for (Step s : l.steps()) {
      steps
          .addObject()
          .put("part", s.part())
          .put("kind", s.kind().name().toLowerCase(Locale.ROOT))
          .put("from", s.from())
          .put("to", s.to())
          .put("volts", s.volts())
          .put("dropout", s.dropout())
          .put("efficiency", s.efficiency())
          .put("quiescent", s.quiescent())
          .put("theta", s.theta())
          .put("limit", s.limit())
          .put("ohms", s.ohms());
    }
    ArrayNode loads = o.putArray("loads");
    for (Load l2 : l.loads()) {
      ObjectNode one = loads.addObject().put("part", l2.part()).put("rail", l2.rail());
      ObjectNode amps = one.putObject("amps");
      Ladder.STATES.stream()
          .filter(l2.amps()::containsKey)
          .forEach(s -> amps.put(s, l2.amps().get(s)));
    }
    ArrayNode assumptions = o.putArray("assumptions");
    l.assumptions().forEach(assumptions::add);
    return o;
  }

  /// Reads a ladder.
  ///
  /// @throws IllegalArgumentException with a sentence that names the place, such as `steps[2].kind`
  public static Ladder read(String json) {
    JsonNode o = parse(json, "a power ladder");
    List<RailSpec> rails = new ArrayList<>();
    each(
        o,
        "rails",
        (n, at) ->
            rails.add(
                new RailSpec(
                    text(n, at, "net"),
                    number(n, at, "volts"),
                    number(n, at, "low"),
                    number(n, at, "high"),
                    number(n, at, "capacitance", 0),
                    n.path("readAt").asString(""))));
    List<Source> sources = new ArrayList<>();
    each(
        o,
        "sources",
        (n, at) -> {
          double v = number(n, at, "volts");
          sources.add(
              new Source(
                  text(n, at, "rail"),
                  v,
                  number(n, at, "low", v),
                  number(n, at, "high", v),
                  number(n, at, "limit", 0)));
        });
    List<Step> steps = new ArrayList<>();
    each(
        o,
        "steps",
        (n, at) ->
            steps.add(
                new Step(
                    text(n, at, "part"),
                    kind(text(n, at, "kind"), at),
                    text(n, at, "from"),
                    text(n, at, "to"),
                    number(n, at, "volts"),
                    number(n, at, "dropout", 0),
                    number(n, at, "efficiency", 0),
                    number(n, at, "quiescent", 0),
                    number(n, at, "theta", 0),
                    number(n, at, "limit", 0),
                    number(n, at, "ohms", 0))));
    List<Load> loads = new ArrayList<>();
    each(
        o,
        "loads",
        (n, at) -> {
          Map<String, Double> amps = new LinkedHashMap<>();
          JsonNode a = n.path("amps");
          for (String state : a.propertyNames()) {
            amps.put(state, number(a, at + ".amps", state));
          }
          loads.add(new Load(text(n, at, "part"), text(n, at, "rail"), amps));
        });
    List<String> assumptions = new ArrayList<>();
    o.path("assumptions").forEach(n -> assumptions.add(n.asString("")));
    return new Ladder(rails, sources, steps, loads, text(o, "the ladder", "ground"), assumptions);
  }

  private static Kind kind(String word, String at) {
    try {
      return Kind.valueOf(word.toUpperCase(Locale.ROOT));
    } catch (IllegalArgumentException e) {
      throw new IllegalArgumentException(
          at + ".kind: expected linear, switching, pass or diode, found '" + word + "'");
    }
  }

  /// Reads the faults of simulated boards: `{"04":[{"kind":"open","part":"FB1","pin":"2"},
  /// {"kind":"bridge","a":"3V3","b":"GND","ohms":2.2}, {"kind":"dead","part":"U2"},
  /// {"kind":"wrongValue","part":"R1","ohms":3160}]}`.
  ///
  /// @throws IllegalArgumentException with a sentence that names the board and the fault
  public static Map<String, List<Fault>> readFaults(String json) {
    JsonNode o = parse(json, "a list of faults");
    Map<String, List<Fault>> boards = new LinkedHashMap<>();
    for (String board : Set.copyOf(o.propertyNames()).stream().sorted().toList()) {
      List<Fault> faults = new ArrayList<>();
      each(
          o,
          board,
          (n, at) -> {
            String kind = text(n, at, "kind");
            faults.add(
                switch (kind) {
                  case "open" -> new Fault.Open(text(n, at, "part"), text(n, at, "pin"));
                  case "bridge" ->
                      new Fault.Bridge(text(n, at, "a"), text(n, at, "b"), number(n, at, "ohms"));
                  case "dead" -> new Fault.Dead(text(n, at, "part"));
                  case "wrongValue" ->
                      new Fault.WrongValue(text(n, at, "part"), number(n, at, "ohms"));
                  default ->
                      throw new IllegalArgumentException(
                          at + ": expected open, bridge, dead or wrongValue, found '" + kind + "'");
                });
          });
      boards.put(board, faults);
    }
    return boards;
  }

  private interface Item {
    void take(JsonNode node, String at);
  }

  private static JsonNode parse(String json, String what) {
    try {
      JsonNode o = MAPPER.readTree(json);
      if (o == null || !o.isObject()) {
        throw new IllegalArgumentException(what + " is a JSON object");
      }
      return o;
    } catch (JacksonException e) {
      throw new IllegalArgumentException(
          "not JSON at line "
              + (e.getLocation() == null ? "?" : e.getLocation().getLineNr())
              + ": "
              + e.getOriginalMessage());
    }
  }

  private static void each(JsonNode o, String key, Item item) {
    JsonNode list = o.path(key);
    if (!list.isArray() && !list.isMissingNode()) {
      throw new IllegalArgumentException(key + ": expected a list");
    }
    for (int i = 0; i < list.size(); i++) {
      if (!list.get(i).isObject()) {
        throw new IllegalArgumentException(key + "[" + i + "]: expected an object");
      }
      item.take(list.get(i), key + "[" + i + "]");
    }
  }

  private static String text(JsonNode o, String at, String key) {
    JsonNode n = o.path(key);
    if (!n.isString() || n.stringValue().isBlank()) {
      throw new IllegalArgumentException(at + "." + key + ": expected a word");
    }
    return n.stringValue();
  }

  private static double number(JsonNode o, String at, String key) {
    JsonNode n = o.path(key);
    if (!n.isNumber()) {
      throw new IllegalArgumentException(at + "." + key + ": expected a number in SI units");
    }
    return n.doubleValue();
  }

  private static double number(JsonNode o, String at, String key, double otherwise) {
    return o.has(key) ? number(o, at, key) : otherwise;
  }
}
