package ell.core.power;

import ell.core.json.JsonObject;
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
import java.util.TreeMap;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// Power ladders and the faults of simulated boards as JSON, in SI units, as a maker edits them.
///
/// A ladder is `{"ground", "rails":[{"net","volts","low","high","capacitance","readAt"}],
/// "sources":[{"rail","volts","low","high","limit"}], "steps":[{"part","kind","from","to","volts",
/// "dropout","efficiency","quiescent","theta","limit","ohms"}], "loads":[{"part","rail","amps":
/// {state: A}}], "assumptions":[...], "notRails":[...]}`; rails and loads that nobody said carry
/// `"guessed": true`; a `kind` is `linear`, `switching`, `pass` or `diode`.
public final class PowerJson {
  private PowerJson() {}

  /// Writes a ladder, indented.
  public static String write(Ladder ladder) {
    return tree(ladder).toPrettyString() + "\n";
  }

  /// A ladder as a tree.
  public static ObjectNode tree(Ladder l) {
    ObjectNode o = Writing.MAPPER.createObjectNode().put("ground", l.ground());
    ArrayNode rails = o.putArray("rails");
    for (RailSpec r : l.rails()) {
      ObjectNode rail = rails.addObject();
      if (r.guessed()) {
        rail.put("guessed", true);
      }
      rail.put("net", r.net())
          .put("volts", r.volts())
          .put("low", r.low())
          .put("high", r.high())
          .put("capacitance", r.capacitance())
          .put("readAt", r.readAt());
    }
    ArrayNode sources = o.putArray("sources");
    for (Source s : l.sources()) {
      ObjectNode one = sources.addObject();
      if (s.channel() > 0) {
        one.put("channel", s.channel());
      }
      one.put("rail", s.rail())
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
      if (l2.guessed()) {
        one.put("guessed", true);
      }
      if (!l2.stands().isEmpty()) {
        one.put("stands", l2.stands());
      }
      ObjectNode amps = one.putObject("amps");
      Ladder.STATES.stream()
          .filter(l2.amps()::containsKey)
          .forEach(s -> amps.put(s, l2.amps().get(s)));
    }
    ArrayNode assumptions = o.putArray("assumptions");
    l.assumptions().forEach(assumptions::add);
    if (!l.notRails().isEmpty()) {
      ArrayNode not = o.putArray("notRails");
      l.notRails().forEach(not::add);
    }
    if (!l.parts().isEmpty()) {
      ArrayNode parts = o.putArray("parts");
      l.parts().entrySet().stream()
          .sorted(Map.Entry.comparingByKey())
          .forEach(
              e -> parts.addObject().put("part", e.getKey()).put("words", e.getValue().words()));
    }
    return o;
  }

  /// Reads a ladder.
  ///
  /// @throws IllegalArgumentException with a sentence that names the place, such as `steps[2].kind`
  public static Ladder read(String json) {
    JsonObject o = JsonObject.parse(json, "a power ladder");
    List<RailSpec> rails = new ArrayList<>();
    for (JsonObject n : o.objects("rails")) {
      rails.add(
          new RailSpec(
              word(n, "net"),
              n.number("volts"),
              n.number("low"),
              n.number("high"),
              n.number("capacitance", 0),
              n.text("readAt", ""),
              n.flag("guessed", false)));
    }
    List<Source> sources = new ArrayList<>();
    for (JsonObject n : o.objects("sources")) {
      double v = n.number("volts");
      sources.add(
          new Source(
              word(n, "rail"),
              v,
              n.number("low", v),
              n.number("high", v),
              n.number("limit", 0),
              (int) n.number("channel", 0)));
    }
    List<Step> steps = new ArrayList<>();
    for (JsonObject n : o.objects("steps")) {
      steps.add(
          new Step(
              word(n, "part"),
              kind(n),
              word(n, "from"),
              word(n, "to"),
              n.number("volts"),
              n.number("dropout", 0),
              n.number("efficiency", 0),
              n.number("quiescent", 0),
              n.number("theta", 0),
              n.number("limit", 0),
              n.number("ohms", 0)));
    }
    List<Load> loads = new ArrayList<>();
    for (JsonObject n : o.objects("loads")) {
      JsonObject a = n.object("amps");
      Map<String, Double> amps = new LinkedHashMap<>();
      for (String state : a.keys()) {
        amps.put(state, a.number(state));
      }
      loads.add(
          new Load(
              word(n, "part"),
              word(n, "rail"),
              amps,
              n.flag("guessed", false),
              n.text("stands", "")));
    }
    Map<String, PartSaid> parts = new LinkedHashMap<>();
    for (JsonObject n : o.objects("parts")) {
      parts.put(word(n, "part"), PartSaid.parse(word(n, "words")));
    }
    return new Ladder(
        rails,
        sources,
        steps,
        loads,
        word(o, "ground"),
        o.words("assumptions"),
        o.words("notRails"),
        parts);
  }

  private static String word(JsonObject o, String key) {
    String text = o.text(key);
    if (text.isBlank()) {
      throw o.wrong(key, "a word");
    }
    return text;
  }

  private static Kind kind(JsonObject o) {
    String word = o.text("kind");
    try {
      return Kind.valueOf(word.toUpperCase(Locale.ROOT));
    } catch (IllegalArgumentException e) {
      throw o.wrong("kind", "linear, switching, pass or diode, found '" + word + "'");
    }
  }

  /// Reads the faults of simulated boards, each in words (see [FaultWords]) or taken apart:
  /// `{"06":["open FB1.2"], "04":[{"kind":"open","part":"FB1","pin":"2"},
  /// {"kind":"bridge","a":"3V3","b":"GND","ohms":2.2}, {"kind":"dead","part":"U2"},
  /// {"kind":"wrongValue","part":"R1","ohms":3160}]}`.
  ///
  /// @throws IllegalArgumentException with a sentence that names the board and the fault
  public static Map<String, List<Fault>> readFaults(String json) {
    JsonObject o = JsonObject.parse(json, "a list of faults");
    Map<String, List<Fault>> boards = new TreeMap<>();
    for (String board : o.keys()) {
      List<Fault> faults = new ArrayList<>();
      if (o.ofWords(board)) {
        o.words(board).forEach(w -> faults.add(FaultWords.parse(w)));
        boards.put(board, faults);
        continue;
      }
      for (JsonObject n : o.objects(board)) {
        String kind = n.text("kind");
        faults.add(
            switch (kind) {
              case "open" -> new Fault.Open(word(n, "part"), word(n, "pin"));
              case "bridge" -> new Fault.Bridge(word(n, "a"), word(n, "b"), n.number("ohms"));
              case "dead" -> new Fault.Dead(word(n, "part"));
              case "wrongValue" -> new Fault.WrongValue(word(n, "part"), n.number("ohms"));
              default ->
                  throw n.wrong("kind", "open, bridge, dead or wrongValue, found '" + kind + "'");
            });
      }
      boards.put(board, faults);
    }
    return boards;
  }

  /// Made at the first ladder that is written.
  private static final class Writing {
    static final JsonMapper MAPPER = JsonMapper.builder().build();

    private Writing() {}
  }
}
