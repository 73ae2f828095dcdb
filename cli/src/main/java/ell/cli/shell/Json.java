package ell.cli.shell;

import ell.core.beep.BeepCheck;
import ell.core.beep.BeepList;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.EntryJson;
import ell.core.entry.Logged;
import ell.core.heat.HeatFacts;
import ell.core.kit.KitFacts;
import ell.core.order.OrderFacts;
import ell.core.power.LadderState;
import ell.core.power.PowerFacts;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.rack.Standing;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import ell.core.sheet.Worked;
import java.util.List;
import java.util.Map;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// The JSON shapes of the command line: keys in lowerCamelCase, numbers in SI units, verdicts
/// `within`, `close`, `out`. Fields may be added, never renamed or removed.
public final class Json {
  private static final JsonMapper MAPPER = JsonMapper.builder().build();

  private Json() {}

  public static ObjectNode object() {
    return MAPPER.createObjectNode();
  }

  public static void strings(ObjectNode o, String key, List<String> words) {
    ArrayNode a = o.putArray(key);
    words.forEach(a::add);
  }

  public static void number(ObjectNode o, String key, double value) {
    if (Double.isFinite(value)) {
      o.put(key, value);
    }
  }

  private static void value(ObjectNode o, String key, Object value) {
    switch (value) {
      case Double d -> {
        if (d == Math.rint(d) && Math.abs(d) < 1e15) {
          o.put(key, d.longValue());
        } else if (Double.isFinite(d)) {
          o.put(key, d);
        } else {
          o.put(key, d.toString());
        }
      }
      case List<?> list -> list(o.putArray(key), list);
      default -> o.put(key, String.valueOf(value));
    }
  }

  private static void list(ArrayNode a, List<?> list) {
    for (Object one : list) {
      switch (one) {
        case Double d -> a.add(d);
        case List<?> inner -> list(a.addArray(), inner);
        default -> a.add(String.valueOf(one));
      }
    }
  }

  public static ObjectNode catalogue(List<Sheet> sheets) {
    ObjectNode root = object();
    ArrayNode list = root.putArray("sheets");
    for (Sheet s : sheets) {
      ObjectNode o = list.addObject().put("name", s.name()).put("title", s.title());
      ArrayNode inputs = o.putArray("inputs");
      for (Input i : s.inputs()) {
        ObjectNode one = inputs.addObject().put("name", i.name()).put("unit", i.unit());
        i.byDefault().ifPresent(d -> byDefault(one, i, d));
        number(one, "min", i.min());
        number(one, "max", i.max());
        if (!i.choices().isEmpty()) {
          strings(one, "choices", i.choices());
        }
        if (i.optional()) {
          one.put("optional", true);
        }
      }
      ArrayNode results = o.putArray("results");
      s.results().forEach(r -> results.addObject().put("name", r.name()).put("unit", r.unit()));
      strings(o, "sources", s.sources());
    }
    return root;
  }

  /// A default as a number in the stated unit, where it is a number.
  private static void byDefault(ObjectNode o, Input i, String text) {
    value(o, "default", i.read(text));
  }

  public static ObjectNode worked(Worked w) {
    ObjectNode o = object().put("sheet", w.sheet()).put("title", w.title());
    ObjectNode inputs = o.putObject("inputs");
    w.inputs().forEach((k, v) -> value(inputs, k, v));
    ObjectNode results = o.putObject("results");
    w.results().forEach((k, v) -> value(results, k, v));
    w.verdict().ifPresent(v -> o.put("verdict", v.key()));
    ArrayNode lines = o.putArray("lines");
    for (Worked.Line l : w.lines()) {
      ObjectNode one = lines.addObject().put("symbol", l.symbol()).put("formula", l.formula());
      value(one, "value", l.value());
      one.put("unit", l.unit());
    }
    strings(o, "assumptions", w.assumptions());
    strings(o, "sources", w.sources());
    strings(o, "cautions", w.cautions());
    return o;
  }

  public static ObjectNode beep(BeepList list) {
    ObjectNode o = object();
    ArrayNode checks = o.putArray("checks");
    for (BeepCheck c : list.checks()) {
      ObjectNode one = checks.addObject().put("number", c.number()).put("kind", c.kind().key());
      one.putObject("a").put("part", c.a().part()).put("pin", c.a().pin());
      one.putObject("b").put("part", c.b().part()).put("pin", c.b().pin());
      one.put("netA", c.netA()).put("netB", c.netB());
      number(one, "expectedLow", c.expected().low());
      number(one, "expectedHigh", c.expected().high());
      one.put("guardsPower", c.guards()).put("why", c.why());
    }
    BeepList.Coverage c = list.coverage();
    o.putObject("coverage")
        .put("opens", c.opens())
        .put("opensTotal", c.opensTotal())
        .put("bridges", c.bridges())
        .put("bridgesTotal", c.bridgesTotal());
    return o;
  }

  public static ObjectNode power(LadderState s) {
    ObjectNode o = object().put("state", s.state());
    ArrayNode rails = o.putArray("rails");
    for (LadderState.RailLoad r : s.rails()) {
      ObjectNode one =
          rails
              .addObject()
              .put("rail", r.rail().net())
              .put("voltage", r.rail().volts())
              .put("low", r.rail().low())
              .put("high", r.rail().high())
              .put("current", r.current())
              .put("readAt", r.rail().readAt());
      ArrayNode margins = one.putArray("margins");
      r.margins()
          .forEach(m ->
              margins
                  .addObject()
                  .put("what", m.what())
                  .put("value", m.value())
                  .put("unit", m.unit().symbol()));
    }
    ArrayNode regulators = o.putArray("regulators");
    for (LadderState.RegulatorHeat r : s.regulators()) {
      ObjectNode one =
          regulators.addObject().put("part", r.step().part()).put("dissipation", r.dissipation());
      number(one, "junction", r.junction());
      number(one, "headroom", r.headroom());
      one.put("current", r.current());
    }
    o.put("limit", s.limit().limit());
    o.set("sheet", worked(s.sheet()));
    return o;
  }

  public static ObjectNode entry(Logged l) {
    ObjectNode o =
        object().put("number", l.number()).put("at", l.at().toString()).put("board", l.board());
    ObjectNode body = EntryJson.tree(l.entry());
    o.put("kind", EntryJson.kind(l.entry()));
    for (Map.Entry<String, tools.jackson.databind.JsonNode> e : body.properties()) {
      // a step has a number of its own
      if (!e.getKey().equals("v") && !e.getKey().equals("kind")) {
        o.set(e.getKey().equals("number") ? "step" : e.getKey(), e.getValue());
      }
    }
    return o;
  }

  public static ObjectNode board(BoardState s, Standing standing) {
    ObjectNode o =
        object()
            .put("board", s.board())
            .put("stage", standing.stage().key())
            .put("state", standing.phrase());
    ArrayNode findings = o.putArray("openFindings");
    s.findings()
        .forEach(f ->
            findings
                .addObject()
                .put("number", f.number())
                .put("place", f.place())
                .put("what", f.what()));
    ArrayNode readings = o.putArray("readings");
    PowerFacts.of(s)
        .readings()
        .values()
        .forEach(l -> {
          Entry.Reading r = (Entry.Reading) l.entry();
          ObjectNode one =
              readings
                  .addObject()
                  .put("place", r.place())
                  .put("value", r.value())
                  .put("unit", r.unit().symbol());
          r.limits()
              .ifPresent(x -> {
                number(one, "low", x.low());
                number(one, "high", x.high());
              });
          r.uncertainty().ifPresent(u -> one.put("uncertainty", u));
          r.verdict().ifPresent(v -> one.put("verdict", v.key()));
          one.put("at", l.at().toString());
        });
    ObjectNode cycles = o.putObject("heatCycles");
    HeatFacts.of(s).heatCycles().forEach(cycles::put);
    ObjectNode fitted = o.putObject("fitted");
    KitFacts.of(s).fitted().forEach(fitted::put);
    ObjectNode lost = o.putObject("lost");
    KitFacts.of(s).lost().forEach(lost::put);
    ObjectNode gates = o.putObject("gates");
    OrderFacts.of(s).gates().forEach(gates::put);
    o.put("entries", s.entries());
    return o;
  }

  /// Limits as text for people.
  public static String limits(Limits l, Unit unit) {
    return l.text(unit, 4);
  }

  public static String print(double value, Unit unit) {
    return EngineeringNumber.print(value, unit, 4);
  }
}
