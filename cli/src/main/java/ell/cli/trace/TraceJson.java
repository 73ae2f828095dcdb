package ell.cli.trace;

import ell.cli.shell.Json;
import ell.core.trace.Choice;
import ell.core.trace.Finding;
import ell.core.trace.Suspect;
import ell.core.trace.Traced;
import java.util.List;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// The JSON shape of a search for a fault.
final class TraceJson {
  private static final int GROUPS = 20;

  private TraceJson() {}

  static ObjectNode of(String board, Traced t) {
    ObjectNode o =
        Json.object()
            .put("board", board)
            .put("entropy", t.entropy())
            .put("explained", t.explained())
            .put("designChance", t.designChance());
    ArrayNode suspects = o.putArray("suspects");
    for (Traced.Ranked r : t.suspects()) {
      ObjectNode s = suspects.addObject().put("fault", r.fault()).put("probability", r.chance());
      Json.strings(s, "why", r.why());
    }
    ArrayNode groups = o.putArray("groups");
    t.groups().stream()
        .limit(GROUPS)
        .forEach(g -> {
          ObjectNode x = groups.addObject().put("words", g.words()).put("probability", g.chance());
          Json.strings(x, "faults", g.members().stream().map(Traced.Ranked::fault).toList());
        });
    ArrayNode next = o.putArray("next");
    t.next().forEach(c -> next.add(choice(c)));
    t.finding().ifPresent(f -> o.set("finding", finding(f)));
    t.sister()
        .ifPresent(s ->
            o.putObject("sister")
                .put("board", s.board())
                .put("line", s.line())
                .put("information", s.information())
                .put("why", s.why()));
    ArrayNode stairs = o.putArray("stairs");
    for (Traced.Stair s : t.stairs()) {
      stairs
          .addObject()
          .put("entry", s.entry())
          .put("words", s.words())
          .put("entropy", s.entropy());
    }
    Json.strings(o, "told", t.told());
    return o;
  }

  private static ObjectNode choice(Choice c) {
    ObjectNode o = Json.object().put("line", c.probe().line()).put("kind", c.probe().kind().key());
    if (!c.probe().a().isEmpty()) {
      o.put("a", c.probe().places().getFirst());
    }
    if (!c.probe().b().isEmpty()) {
      o.put("b", c.probe().b());
    }
    if (c.probe().places().size() > 1) {
      Json.strings(o, "places", c.probe().places());
    }
    c.supply()
        .ifPresent(f ->
            o.putObject("supply")
                .put("net", f.net())
                .put("volts", f.volts())
                .put("limit", f.limit()));
    o.put("power", c.power())
        .put("minutes", c.minutes())
        .put("information", c.information())
        .put("perMinute", c.perMinute());
    ArrayNode outcomes = o.putArray("outcomes");
    for (Choice.Result r : c.outcomes()) {
      ObjectNode x = outcomes.addObject();
      if (Double.isNaN(r.low())) {
        x.put("words", r.words());
      } else {
        Json.number(x, "low", r.low());
        Json.number(x, "high", r.high());
      }
      x.put("probability", r.chance());
      Json.strings(x, "left", r.left());
    }
    return o.put("why", c.why());
  }

  private static ObjectNode finding(Finding f) {
    ObjectNode o = Json.object().put("fault", f.suspect().words()).put("probability", f.chance());
    ArrayNode evidence = o.putArray("evidence");
    f.evidence().forEach(evidence::add);
    Json.strings(o, "todo", f.todo());
    Json.strings(o, "again", f.again());
    return o.put("settled", f.settled());
  }

  /// A suspect's chance before anything was measured, with what made it.
  static ObjectNode prior(Suspect s) {
    ObjectNode o = Json.object().put("fault", s.words()).put("prior", s.prior());
    ArrayNode factors = o.putArray("factors");
    List<Suspect.Factor> all = s.factors();
    for (int i = 0; i < all.size(); i++) {
      factors
          .addObject()
          .put("why", all.get(i).why())
          .put(i == 0 ? "rate" : "times", all.get(i).times());
    }
    return o;
  }
}
