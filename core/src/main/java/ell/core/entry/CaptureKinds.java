package ell.core.entry;

import ell.core.json.JsonObject;
import java.util.List;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// Lines that were captured.
final class CaptureKinds {
  static final List<Kind<?>> ROWS =
      List.of(
          new Kind<>(
              Entry.Capture.class,
              "capture",
              CaptureKinds::write,
              CaptureKinds::read,
              c ->
                  c.place()
                      + " captured \u00b7 "
                      + c.says()
                      + c.verdict().map(v -> " \u00b7 " + v.words()).orElse("")));

  private CaptureKinds() {}

  private static void write(Entry.Capture c, ObjectNode o) {
    o.put("place", c.place())
        .put("name", c.name())
        .put("channel", c.channel())
        .put("sha256", c.sha256())
        .put("with", c.with())
        .put("says", c.says());
    ArrayNode measures = o.putArray("measures");
    for (Entry.Capture.Measure m : c.measures()) {
      ObjectNode one =
          measures
              .addObject()
              .put("name", m.name())
              .put("value", m.value())
              .put("unit", m.unit().symbol());
      if (Double.isFinite(m.uncertainty())) {
        one.put("uncertainty", m.uncertainty());
      }
      m.limits().ifPresent(l -> Fields.limits(one, l));
      m.verdict().ifPresent(v -> one.put("verdict", v.key()));
    }
    if (!c.beside().isEmpty()) {
      o.put("beside", c.beside());
    }
    c.told().forEach(o.putArray("told")::add);
    c.verdict().ifPresent(v -> o.put("verdict", v.key()));
    ObjectNode outline =
        o.putObject("outline").put("from", c.outline().from()).put("step", c.outline().step());
    c.outline().least().forEach(outline.putArray("least")::add);
    c.outline().most().forEach(outline.putArray("most")::add);
  }

  private static Entry.Capture read(JsonObject o) {
    JsonObject outline = o.object("outline");
    return new Entry.Capture(
        o.text("place"),
        o.text("name"),
        o.text("channel", ""),
        o.text("sha256", ""),
        o.text("with", ""),
        o.text("says"),
        o.objects("measures").stream()
            .map(m ->
                new Entry.Capture.Measure(
                    m.text("name"),
                    m.number("value"),
                    Fields.unit(m.text("unit")),
                    m.number("uncertainty", Double.NaN),
                    Fields.someLimits(m),
                    Fields.verdict(m)))
            .toList(),
        o.words("told"),
        Fields.verdict(o),
        new Entry.Capture.Outline(
            outline.number("from"),
            outline.number("step"),
            outline.numbers("least"),
            outline.numbers("most")),
        o.text("beside", ""));
  }
}
