package ell.cli.book;

import ell.cli.shell.Json;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.heat.HeatFacts;
import ell.core.kit.KitFacts;
import ell.core.order.OrderFacts;
import ell.core.power.PowerFacts;
import ell.core.rack.Standing;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// Where a board stands as JSON.
final class BoardJson {
  private BoardJson() {}

  static ObjectNode of(BoardState s, Standing standing) {
    ObjectNode o =
        Json.object()
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
                Json.number(one, "low", x.low());
                Json.number(one, "high", x.high());
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
}
