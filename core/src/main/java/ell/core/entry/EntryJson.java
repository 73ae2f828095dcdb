package ell.core.entry;

import ell.core.json.JsonObject;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.Optional;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;


/// Entries as JSON: `{"v":1,"kind":"reading",...}`. Kinds and keys are fixed words; every kind that
/// was ever written stays readable. A limit that does not exist is left out.
public final class EntryJson {
  /// Version written.
  public static final int VERSION = 1;

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
      case Entry.Fitted _ -> "fitted";
      case Entry.Lost _ -> "lost";
      case Entry.Stock _ -> "stock";
      case Entry.Printed _ -> "printed";
      case Entry.PasteSeen _ -> "paste";
      case Entry.Jar _ -> "jar";
      case Entry.Bag _ -> "bag";
      case Entry.HeatRun _ -> "profile";
      case Entry.Seen _ -> "seen";
      case Entry.Photo _ -> "photo";
      case Entry.Hands _ -> "hands";
    };
  }

  /// Writes an entry on one line.
  public static String write(Entry entry) {
    return tree(entry).toString();
  }

  /// An entry as a tree.
  public static ObjectNode tree(Entry entry) {
    ObjectNode o = Writing.MAPPER.createObjectNode().put("v", VERSION).put("kind", kind(entry));
    switch (entry) {
      case Entry.StepDone s -> {
        o.put("number", s.number()).put("action", s.action());
        ArrayNode parts = o.putArray("parts");
        s.parts().forEach(parts::add);
        if (s.seconds() > 0) {
          o.put("seconds", s.seconds());
        }
        if (!s.side().isEmpty()) {
          o.put("side", s.side());
        }
      }
      case Entry.Fitted f -> o.put("place", f.place()).put("code", f.code()).put("why", f.why());
      case Entry.Lost l -> o.put("place", l.place()).put("count", l.count()).put("why", l.why());
      case Entry.Stock s -> {
        o.put("change", s.change().key()).put("code", s.code()).put("quantity", s.quantity());
        if (!s.bin().isEmpty()) {
          o.put("bin", s.bin());
        }
        s.due().ifPresent(d -> o.put("due", d.toString()));
        o.put("why", s.why());
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
      case Entry.Printed p -> o.put("side", p.side()).put("wiped", p.wiped()).put("jar", p.jar());
      case Entry.PasteSeen p -> o.put("place", p.place()).put("look", p.look().key());
      case Entry.Jar j -> o.put("jar", j.jar()).put("move", j.move().key()).put("why", j.why());
      case Entry.Bag b -> o.put("code", b.code()).put("open", b.open()).put("level", b.level());
      case Entry.HeatRun h -> run(o, h);
      case Entry.Seen s -> s.places().forEach(o.putArray("places")::add);
      case Entry.Photo p ->
          o.put("place", p.place()).put("name", p.name()).put("sha256", p.sha256());
      case Entry.Hands h -> o.put("who", h.who());
    }
    return o;
  }

  private static void run(ObjectNode o, Entry.HeatRun h) {
    o.put("side", h.side()).put("window", h.window()).put("source", h.source());
    if (Double.isFinite(h.pwi())) {
      o.put("pwi", h.pwi());
    }
    h.verdict().ifPresent(v -> o.put("verdict", v.key()));
    ArrayNode curves = o.putArray("curves");
    for (Entry.HeatRun.Curve c : h.curves()) {
      ObjectNode one = curves.addObject().put("role", c.role()).put("step", c.step());
      ArrayNode values = one.putArray("celsius");
      c.celsius().forEach(values::add);
    }
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
    JsonObject o = JsonObject.parse(json, "an entry");
    double version = o.number("v", 0);
    if (version > VERSION || version < 1) {
      throw new IllegalArgumentException(
          "entry version " + version + " is not known; this Ell reads up to " + VERSION);
    }
    return read(o);
  }

  private static Entry read(JsonObject o) {
    String kind = o.text("kind");
    return switch (kind) {
      case "step" ->
          new Entry.StepDone(
              (int) o.number("number"),
              o.text("action"),
              o.words("parts"),
              o.number("seconds", 0),
              o.text("side", ""));
      case "fitted" -> new Entry.Fitted(o.text("place"), o.text("code"), o.text("why", ""));
      case "lost" -> new Entry.Lost(o.text("place"), (int) o.number("count"), o.text("why", ""));
      case "stock" ->
          new Entry.Stock(
              StockChange.of(o.text("change"))
                  .orElseThrow(() -> o.wrong("change", "counted, received or ordered")),
              o.text("code"),
              o.text("bin", ""),
              (long) o.number("quantity"),
              due(o),
              o.text("why", ""));
      case "gate" -> new Entry.Gate(o.text("gate"), o.flag("held"), o.text("why"));
      case "reading" ->
          new Entry.Reading(
              o.text("place"),
              o.number("value"),
              unit(o.text("unit")),
              o.has("low") || o.has("high") ? Optional.of(limits(o)) : Optional.empty(),
              optional(o, "uncertainty"),
              verdict(o),
              o.text("with", ""));
      case "check" ->
          new Entry.Check(
              o.text("check"),
              o.text("a"),
              o.text("b"),
              o.text("netA"),
              o.text("netB"),
              o.number("ohms", Double.POSITIVE_INFINITY),
              limits(o),
              verdict(o).orElseThrow(() -> o.wrong("verdict", "a verdict")));
      case "defect" -> new Entry.Defect(o.text("place"), o.text("defect"), o.text("text"));
      case "action" ->
          new Entry.Action(o.text("place"), o.text("action"), o.flag("heat"), o.text("text"));
      case "note" -> new Entry.Note(o.text("text"));
      case "supply" ->
          new Entry.Supply(
              o.flag("on"),
              o.number("volts"),
              o.number("limit"),
              optional(o, "amps"),
              o.has("low") || o.has("high") ? Optional.of(limits(o)) : Optional.empty(),
              verdict(o),
              o.text("why"));
      case "override" -> new Entry.Override(o.text("rule"), o.text("why"));
      case "strike" -> new Entry.Strike((long) o.number("target"), o.text("why"));
      case "printed" -> new Entry.Printed(o.text("side"), o.flag("wiped"), o.text("jar", ""));
      case "paste" ->
          new Entry.PasteSeen(
              o.text("place"),
              PasteLook.of(o.text("look")).orElseThrow(() -> o.wrong("look", "a look of paste")));
      case "jar" ->
          new Entry.Jar(
              o.text("jar"),
              JarMove.of(o.text("move")).orElseThrow(() -> o.wrong("move", "a move of a jar")),
              o.text("why", ""));
      case "bag" -> new Entry.Bag(o.text("code"), o.flag("open"), o.text("level", ""));
      case "profile" ->
          new Entry.HeatRun(
              o.text("side", ""),
              o.text("window"),
              o.text("source"),
              o.number("pwi", Double.NaN),
              verdict(o),
              o.objects("curves").stream()
                  .map(c ->
                      new Entry.HeatRun.Curve(
                          c.text("role"), c.number("step"), c.numbers("celsius")))
                  .toList());
      case "seen" -> new Entry.Seen(o.words("places"));
      case "photo" -> new Entry.Photo(o.text("place"), o.text("name"), o.text("sha256"));
      case "hands" -> new Entry.Hands(o.text("who"));
      default -> throw new IllegalArgumentException("unknown kind of entry '" + kind + "'");
    };
  }

  private static Optional<LocalDate> due(JsonObject o) {
    try {
      return o.has("due") ? Optional.of(LocalDate.parse(o.text("due"))) : Optional.empty();
    } catch (DateTimeParseException e) {
      throw o.wrong("due", "a date");
    }
  }

  private static Limits limits(JsonObject o) {
    return new Limits(
        o.number("low", Double.NEGATIVE_INFINITY), o.number("high", Double.POSITIVE_INFINITY));
  }

  private static Optional<Verdict> verdict(JsonObject o) {
    return o.has("verdict") ? Optional.of(Verdict.ofKey(o.text("verdict"))) : Optional.empty();
  }

  private static Optional<Double> optional(JsonObject o, String key) {
    return o.has(key) ? Optional.of(o.number(key)) : Optional.empty();
  }

  private static Unit unit(String symbol) {
    for (Unit u : Unit.values()) {
      if (u.symbol().equals(symbol)) {
        return u;
      }
    }
    throw new IllegalArgumentException("unknown unit '" + symbol + "'");
  }

  /// Made at the first entry that is written: reading needs none of it, and a start should not wait
  /// for it.
  private static final class Writing {
    static final JsonMapper MAPPER = JsonMapper.builder().build();

    private Writing() {}
  }
}
