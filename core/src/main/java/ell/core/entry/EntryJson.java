package ell.core.entry;

import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// Entries as JSON: `{"v":1,"kind":"reading",...}`. Kinds and keys are fixed words; every kind that
/// was ever written stays readable. A limit that does not exist is left out.
public final class EntryJson {
  /// Version written.
  public static final int VERSION = 1;

  private static final JsonMapper MAPPER = JsonMapper.builder().build();

  private EntryJson() {}

  /// The fixed word of a kind.
  public static String kind(Entry entry) {
    return switch (entry) {
      case Entry.StepDone _ -> "step";
      case Entry.Gate _ -> "gate";
      case Entry.Reading _ -> "reading";
      case Entry.Check _ -> "check";
      case Entry.Defect _ -> "defect";
      case Entry.Action _ -> "action";
      case Entry.Note _ -> "note";
      case Entry.Supply _ -> "supply";
      case Entry.Override _ -> "override";
      case Entry.Strike _ -> "strike";
    };
  }

  /// Writes an entry on one line.
  public static String write(Entry entry) {
    return tree(entry).toString();
  }

  /// An entry as a tree.
  public static ObjectNode tree(Entry entry) {
    ObjectNode o = MAPPER.createObjectNode().put("v", VERSION).put("kind", kind(entry));
    switch (entry) {
      case Entry.StepDone s -> {
        o.put("number", s.number()).put("action", s.action());
        ArrayNode parts = o.putArray("parts");
        s.parts().forEach(parts::add);
        if (s.seconds() > 0) {
          o.put("seconds", s.seconds());
        }
      }
      case Entry.Gate g -> o.put("gate", g.gate()).put("held", g.held()).put("why", g.why());
      case Entry.Reading r -> {
        o.put("place", r.place()).put("value", r.value()).put("unit", r.unit().symbol());
        r.limits().ifPresent(l -> limits(o, l));
        r.uncertainty().ifPresent(u -> o.put("uncertainty", u));
        r.verdict().ifPresent(v -> o.put("verdict", v.key()));
        if (!r.with().isEmpty()) {
          o.put("with", r.with());
        }
      }
      case Entry.Check c -> {
        o.put("check", c.kind())
            .put("a", c.a())
            .put("b", c.b())
            .put("netA", c.netA())
            .put("netB", c.netB());
        if (Double.isFinite(c.ohms())) {
          o.put("ohms", c.ohms());
        }
        limits(o, c.limits());
        o.put("verdict", c.verdict().key());
      }
      case Entry.Defect d ->
          o.put("place", d.place()).put("defect", d.defect()).put("text", d.text());
      case Entry.Action a ->
          o.put("place", a.place())
              .put("action", a.action())
              .put("heat", a.heat())
              .put("text", a.text());
      case Entry.Note n -> o.put("text", n.text());
      case Entry.Supply s -> {
        o.put("on", s.on()).put("volts", s.volts()).put("limit", s.limit());
        s.amps().ifPresent(x -> o.put("amps", x));
        s.band().ifPresent(l -> limits(o, l));
        s.verdict().ifPresent(v -> o.put("verdict", v.key()));
        o.put("why", s.why());
      }
      case Entry.Override v -> o.put("rule", v.rule()).put("why", v.why());
      case Entry.Strike s -> o.put("target", s.target()).put("why", s.why());
    }
    return o;
  }

  private static void limits(ObjectNode o, Limits l) {
    if (Double.isFinite(l.low())) {
      o.put("low", l.low());
    }
    if (Double.isFinite(l.high())) {
      o.put("high", l.high());
    }
  }

  /// Reads an entry.
  ///
  /// @throws IllegalArgumentException with a sentence when the text is no entry
  public static Entry read(String json) {
    try {
      JsonNode o = MAPPER.readTree(json);
      if (!o.isObject()) {
        throw new IllegalArgumentException("an entry is a JSON object");
      }
      int version = o.path("v").asInt(0);
      if (version > VERSION || version < 1) {
        throw new IllegalArgumentException(
            "entry version " + version + " is not known; this Ell reads up to " + VERSION);
      }
      return read(o);
    } catch (JacksonException e) {
      throw new IllegalArgumentException("not an entry: " + e.getOriginalMessage(), e);
    }
  }

  private static Entry read(JsonNode o) {
    String kind = text(o, "kind");
    return switch (kind) {
      case "step" -> {
        List<String> parts = new ArrayList<>();
        o.path("parts").forEach(p -> parts.add(p.asString()));
        yield new Entry.StepDone(
            o.path("number").asInt(0), text(o, "action"), parts, o.path("seconds").asDouble(0));
      }
      case "gate" ->
          new Entry.Gate(text(o, "gate"), o.path("held").asBoolean(false), text(o, "why"));
      case "reading" ->
          new Entry.Reading(
              text(o, "place"),
              number(o, "value"),
              unit(text(o, "unit")),
              o.has("low") || o.has("high") ? Optional.of(limits(o)) : Optional.empty(),
              optional(o, "uncertainty"),
              verdict(o),
              o.path("with").asString(""));
      case "check" ->
          new Entry.Check(
              text(o, "check"),
              text(o, "a"),
              text(o, "b"),
              text(o, "netA"),
              text(o, "netB"),
              o.has("ohms") ? number(o, "ohms") : Double.POSITIVE_INFINITY,
              limits(o),
              verdict(o).orElseThrow(() -> missing("verdict")));
      case "defect" -> new Entry.Defect(text(o, "place"), text(o, "defect"), text(o, "text"));
      case "action" ->
          new Entry.Action(
              text(o, "place"),
              text(o, "action"),
              o.path("heat").asBoolean(false),
              text(o, "text"));
      case "note" -> new Entry.Note(text(o, "text"));
      case "supply" ->
          new Entry.Supply(
              o.path("on").asBoolean(false),
              number(o, "volts"),
              number(o, "limit"),
              optional(o, "amps"),
              o.has("low") || o.has("high") ? Optional.of(limits(o)) : Optional.empty(),
              verdict(o),
              text(o, "why"));
      case "override" -> new Entry.Override(text(o, "rule"), text(o, "why"));
      case "strike" -> new Entry.Strike((long) number(o, "target"), text(o, "why"));
      default -> throw new IllegalArgumentException("unknown kind of entry '" + kind + "'");
    };
  }

  private static Limits limits(JsonNode o) {
    return new Limits(
        o.has("low") ? number(o, "low") : Double.NEGATIVE_INFINITY,
        o.has("high") ? number(o, "high") : Double.POSITIVE_INFINITY);
  }

  private static Optional<Verdict> verdict(JsonNode o) {
    return o.has("verdict") ? Optional.of(Verdict.ofKey(text(o, "verdict"))) : Optional.empty();
  }

  private static Optional<Double> optional(JsonNode o, String key) {
    return o.has(key) ? Optional.of(number(o, key)) : Optional.empty();
  }

  private static Unit unit(String symbol) {
    for (Unit u : Unit.values()) {
      if (u.symbol().equals(symbol)) {
        return u;
      }
    }
    throw new IllegalArgumentException("unknown unit '" + symbol + "'");
  }

  private static String text(JsonNode o, String key) {
    JsonNode n = o.get(key);
    if (n == null || !n.isString()) {
      throw missing(key);
    }
    return n.stringValue();
  }

  private static double number(JsonNode o, String key) {
    JsonNode n = o.get(key);
    if (n == null || !n.isNumber()) {
      throw missing(key);
    }
    return n.doubleValue();
  }

  private static IllegalArgumentException missing(String key) {
    return new IllegalArgumentException("the entry lacks '" + key + "'");
  }
}
