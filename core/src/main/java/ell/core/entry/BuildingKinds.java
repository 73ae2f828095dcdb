package ell.core.entry;

import static ell.core.entry.Fields.tail;

import java.util.List;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// What is built, and of what: steps, gates, parts fitted and lost, the shelf.
final class BuildingKinds {
  static final List<Kind<?>> ROWS =
      List.of(
          new Kind<>(
              Entry.StepDone.class,
              "step",
              BuildingKinds::write,
              o ->
                  new Entry.StepDone(
                      (int) o.number("number"),
                      o.text("action"),
                      o.words("parts"),
                      o.number("seconds", 0),
                      o.text("side", "")),
              s ->
                  "step "
                      + s.number()
                      + " "
                      + s.action()
                      + (s.parts().isEmpty() ? "" : " · " + parts(s))),
          new Kind<>(
              Entry.Gate.class,
              "gate",
              (g, o) -> o.put("gate", g.gate()).put("held", g.held()).put("why", g.why()),
              o -> new Entry.Gate(o.text("gate"), o.flag("held"), o.text("why")),
              g -> "gate " + g.gate() + (g.held() ? " holds" : " does not hold") + tail(g.why())),
          new Kind<>(
              Entry.Fitted.class,
              "fitted",
              (f, o) -> o.put("place", f.place()).put("code", f.code()).put("why", f.why()),
              o -> new Entry.Fitted(o.text("place"), o.text("code"), o.text("why", "")),
              f -> f.place() + " fitted with " + f.code() + tail(f.why())),
          new Kind<>(
              Entry.Lost.class,
              "lost",
              (l, o) -> o.put("place", l.place()).put("count", l.count()).put("why", l.why()),
              o -> new Entry.Lost(o.text("place"), (int) o.number("count"), o.text("why", "")),
              l ->
                  l.place()
                      + (l.count() == 1 ? " lost" : " lost " + l.count() + " parts")
                      + tail(l.why())),
          new Kind<>(
              Entry.Stock.class,
              "stock",
              BuildingKinds::write,
              o ->
                  new Entry.Stock(
                      StockChange.of(o.text("change"))
                          .orElseThrow(() -> o.wrong("change", "counted, received or ordered")),
                      o.text("code"),
                      o.text("bin", ""),
                      (long) o.number("quantity"),
                      Fields.due(o),
                      o.text("why", "")),
              s ->
                  s.change().key()
                      + " "
                      + s.code()
                      + " "
                      + s.quantity()
                      + (s.bin().isEmpty() ? "" : " in bin " + s.bin())
                      + s.due().map(d -> " due " + d).orElse("")
                      + tail(s.why())));

  private BuildingKinds() {}

  private static void write(Entry.StepDone s, ObjectNode o) {
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

  private static void write(Entry.Stock s, ObjectNode o) {
    o.put("change", s.change().key()).put("code", s.code()).put("quantity", s.quantity());
    if (!s.bin().isEmpty()) {
      o.put("bin", s.bin());
    }
    s.due().ifPresent(d -> o.put("due", d.toString()));
    o.put("why", s.why());
  }

  private static String parts(Entry.StepDone s) {
    return s.parts().size() <= 6
        ? String.join(" ", s.parts())
        : String.join(" ", s.parts().subList(0, 6)) + " and " + (s.parts().size() - 6) + " more";
  }
}
