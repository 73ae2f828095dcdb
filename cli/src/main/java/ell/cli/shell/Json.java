package ell.cli.shell;

import ell.core.entry.EntryJson;
import ell.core.entry.Logged;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import java.util.List;
import java.util.Map;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/// The JSON shapes of the command line: keys in lowerCamelCase, numbers in SI units, verdicts
/// `within`, `close`, `out`. Fields may be added, never renamed or removed.
public final class Json {
  private Json() {}

  public static ObjectNode object() {
    return JsonNodeFactory.instance.objectNode();
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

  /// Limits as text for people.
  public static String limits(Limits l, Unit unit) {
    return l.text(unit, 4);
  }

  public static String print(double value, Unit unit) {
    return EngineeringNumber.print(value, unit, 4);
  }
}
