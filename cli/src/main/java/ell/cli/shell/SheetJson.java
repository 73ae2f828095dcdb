package ell.cli.shell;

import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import ell.core.sheet.Worked;
import java.util.List;
import java.util.Map;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// Worked sheets and the catalogue as JSON.
public final class SheetJson {
  private SheetJson() {}

  public static ObjectNode catalogue(List<Sheet> sheets) {
    ObjectNode root = Json.object();
    ArrayNode list = root.putArray("sheets");
    for (Sheet s : sheets) {
      ObjectNode o = list.addObject().put("name", s.name()).put("title", s.title());
      ArrayNode inputs = o.putArray("inputs");
      for (Input i : s.inputs()) {
        ObjectNode one = inputs.addObject().put("name", i.name()).put("unit", i.unit());
        i.byDefault().ifPresent(d -> byDefault(one, i, d));
        Json.number(one, "min", i.min());
        Json.number(one, "max", i.max());
        if (!i.choices().isEmpty()) {
          Json.strings(one, "choices", i.choices());
        }
        if (i.optional()) {
          one.put("optional", true);
        }
      }
      ArrayNode results = o.putArray("results");
      s.results().forEach(r -> results.addObject().put("name", r.name()).put("unit", r.unit()));
      Json.strings(o, "sources", s.sources());
    }
    return root;
  }

  /// A default as a number in the stated unit, where it is a number.
  private static void byDefault(ObjectNode o, Input i, String text) {
    value(o, "default", i.read(text));
  }

  public static ObjectNode worked(Worked w) {
    ObjectNode o = Json.object().put("sheet", w.sheet()).put("title", w.title());
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
    Json.strings(o, "assumptions", w.assumptions());
    Json.strings(o, "sources", w.sources());
    Json.strings(o, "cautions", w.cautions());
    return o;
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
      case Map<?, ?> map -> map(o.putObject(key), map);
      default -> o.put(key, String.valueOf(value));
    }
  }

  private static void map(ObjectNode o, Map<?, ?> map) {
    map.forEach((key, value) -> value(o, String.valueOf(key), value));
  }

  private static void list(ArrayNode a, List<?> list) {
    for (Object one : list) {
      switch (one) {
        case Double d -> a.add(d);
        case List<?> inner -> list(a.addArray(), inner);
        case Map<?, ?> map -> map(a.addObject(), map);
        default -> a.add(String.valueOf(one));
      }
    }
  }
}
