package ell.core.entry;

import static ell.core.entry.Fields.tail;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import java.util.List;
import tools.jackson.databind.node.ObjectNode;

/// What was measured: readings, checks of the beep list, the supply.
final class MeasuringKinds {
  static final List<Kind<?>> ROWS =
      List.of(
          new Kind<>(
              Entry.Reading.class,
              "reading",
              MeasuringKinds::write,
              o ->
                  new Entry.Reading(
                      o.text("place"),
                      o.number("value"),
                      Fields.unit(o.text("unit")),
                      Fields.someLimits(o),
                      Fields.optional(o, "uncertainty"),
                      Fields.verdict(o),
                      o.text("with", "")),
              r ->
                  r.place()
                      + " "
                      + EngineeringNumber.print(r.value(), r.unit(), 4)
                      + r.verdict().map(v -> " · " + v.words()).orElse("")),
          new Kind<>(
              Entry.Check.class,
              "check",
              MeasuringKinds::write,
              o ->
                  new Entry.Check(
                      o.text("check"),
                      o.text("a"),
                      o.text("b"),
                      o.text("netA"),
                      o.text("netB"),
                      o.number("ohms", Double.POSITIVE_INFINITY),
                      Fields.limits(o),
                      Fields.verdict(o).orElseThrow(() -> o.wrong("verdict", "a verdict"))),
              c ->
                  c.kind()
                      + " "
                      + c.netA()
                      + (c.netA().equals(c.netB()) ? " " + c.a() + " " + c.b() : " to " + c.netB())
                      + " "
                      + EntryWords.ohms(c.ohms())
                      + " · "
                      + c.verdict().words()),
          new Kind<>(
              Entry.Stands.class,
              "stands",
              (s, o) -> o.put("place", s.place()).put("stand", s.stand()).put("text", s.text()),
              o -> new Entry.Stands(o.text("place"), o.text("stand"), o.text("text", "")),
              s ->
                  s.place()
                      + (s.stand().equals("alone")
                          ? " is fed by the supply alone"
                          : " is " + s.stand())
                      + tail(s.text())),
          new Kind<>(
              Entry.Supply.class,
              "supply",
              MeasuringKinds::write,
              o ->
                  new Entry.Supply(
                      o.flag("on"),
                      o.flag("sure", true),
                      o.number("volts"),
                      o.number("limit"),
                      Fields.optional(o, "amps"),
                      Fields.someLimits(o),
                      Fields.verdict(o),
                      o.text("why")),
              s ->
                  "supply "
                      + (s.sure() ? s.on() ? "on" : "off" : s.on() ? "to go on" : "MAY BE ON")
                      + " · "
                      + EngineeringNumber.print(s.volts(), Unit.VOLT, 3)
                      + " · limit "
                      + EngineeringNumber.print(s.limit(), Unit.AMPERE, 3)
                      + s.amps()
                          .map(a -> " · " + EngineeringNumber.print(a, Unit.AMPERE, 3))
                          .orElse("")
                      + tail(s.why())));

  private MeasuringKinds() {}

  private static void write(Entry.Reading r, ObjectNode o) {
    o.put("place", r.place()).put("value", r.value()).put("unit", r.unit().symbol());
    r.limits().ifPresent(l -> Fields.limits(o, l));
    r.uncertainty().ifPresent(u -> o.put("uncertainty", u));
    r.verdict().ifPresent(v -> o.put("verdict", v.key()));
    if (!r.with().isEmpty()) {
      o.put("with", r.with());
    }
  }

  private static void write(Entry.Check c, ObjectNode o) {
    o.put("check", c.kind())
        .put("a", c.a())
        .put("b", c.b())
        .put("netA", c.netA())
        .put("netB", c.netB());
    if (Double.isFinite(c.ohms())) {
      o.put("ohms", c.ohms());
    }
    Fields.limits(o, c.limits());
    o.put("verdict", c.verdict().key());
  }

  private static void write(Entry.Supply s, ObjectNode o) {
    o.put("on", s.on());
    if (!s.sure()) {
      o.put("sure", false);
    }
    o.put("volts", s.volts()).put("limit", s.limit());
    s.amps().ifPresent(x -> o.put("amps", x));
    s.band().ifPresent(l -> Fields.limits(o, l));
    s.verdict().ifPresent(v -> o.put("verdict", v.key()));
    o.put("why", s.why());
  }
}
