package ell.core.entry;

import static ell.core.entry.Fields.tail;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import java.util.List;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// Paste, jars, dry bags and profiles.
final class PasteAndHeatKinds {
  static final List<Kind<?>> ROWS =
      List.of(
          new Kind<>(
              Entry.Printed.class,
              "printed",
              (p, o) -> o.put("side", p.side()).put("wiped", p.wiped()).put("jar", p.jar()),
              o -> new Entry.Printed(o.text("side"), o.flag("wiped"), o.text("jar", "")),
              p ->
                  "printed the "
                      + p.side()
                      + " side"
                      + (p.wiped() ? ", foil wiped" : "")
                      + (p.jar().isEmpty() ? "" : " · jar " + p.jar())),
          new Kind<>(
              Entry.PasteSeen.class,
              "paste",
              (p, o) -> o.put("place", p.place()).put("look", p.look().key()),
              o ->
                  new Entry.PasteSeen(
                      o.text("place"),
                      PasteLook.of(o.text("look"))
                          .orElseThrow(() -> o.wrong("look", "a look of paste"))),
              p -> p.place() + " paste " + p.look().key()),
          new Kind<>(
              Entry.Jar.class,
              "jar",
              (j, o) -> o.put("jar", j.jar()).put("move", j.move().key()).put("why", j.why()),
              o ->
                  new Entry.Jar(
                      o.text("jar"),
                      JarMove.of(o.text("move"))
                          .orElseThrow(() -> o.wrong("move", "a move of a jar")),
                      o.text("why", "")),
              j -> "jar " + j.jar() + " " + j.move().key() + tail(j.why())),
          new Kind<>(
              Entry.Bag.class,
              "bag",
              (b, o) -> o.put("code", b.code()).put("open", b.open()).put("level", b.level()),
              o -> new Entry.Bag(o.text("code"), o.flag("open"), o.text("level", "")),
              b ->
                  "bag of "
                      + b.code()
                      + (b.open() ? " opened" : " closed")
                      + (b.level().isEmpty() ? "" : " · level " + b.level())),
          new Kind<>(
              Entry.HeatRun.class,
              "profile",
              PasteAndHeatKinds::write,
              o ->
                  new Entry.HeatRun(
                      o.text("side", ""),
                      o.text("window"),
                      o.text("source"),
                      o.number("pwi", Double.NaN),
                      Fields.verdict(o),
                      o.objects("curves").stream()
                          .map(c ->
                              new Entry.HeatRun.Curve(
                                  c.text("role"), c.number("step"), c.numbers("celsius")))
                          .toList()),
              h ->
                  "profile"
                      + (h.side().isEmpty() ? "" : " of the " + h.side() + " side")
                      + " against "
                      + h.window()
                      + h.verdict().map(v -> " · " + v.words()).orElse("")
                      + (Double.isFinite(h.pwi())
                          ? " · window index " + EngineeringNumber.print(h.pwi(), Unit.ONE, 3)
                          : "")
                      + tail(h.source())));

  private PasteAndHeatKinds() {}

  private static void write(Entry.HeatRun h, ObjectNode o) {
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
}
