package ell.cli.power;

import ell.cli.shell.Json;
import ell.cli.shell.SheetJson;
import ell.core.power.Ladder;
import ell.core.power.LadderState;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// The ladder in a state as JSON.
final class LadderJson {
  private LadderJson() {}

  static ObjectNode of(Ladder ladder, LadderState s) {
    ObjectNode o = Json.object().put("state", s.state());
    ArrayNode rails = o.putArray("rails");
    for (LadderState.RailLoad r : s.rails()) {
      ObjectNode one =
          rails
              .addObject()
              .put("rail", r.rail().net())
              .put("voltage", r.rail().volts())
              .put("low", r.rail().low())
              .put("high", r.rail().high())
              .put("current", r.current())
              .put("at", r.rail().readAt())
              .put("readAt", r.rail().readAt());
      if (r.rail().guessed()) {
        one.put("guessed", true);
      }
      ArrayNode margins = one.putArray("margins");
      r.margins()
          .forEach(m ->
              margins
                  .addObject()
                  .put("what", m.what())
                  .put("value", m.value())
                  .put("unit", m.unit().symbol()));
    }
    ArrayNode regulators = o.putArray("regulators");
    for (LadderState.RegulatorHeat r : s.regulators()) {
      ObjectNode one =
          regulators.addObject().put("part", r.step().part()).put("dissipation", r.dissipation());
      Json.number(one, "junction", r.junction());
      Json.number(one, "headroom", r.headroom());
      Json.number(one, "headroomLow", r.headroomLow());
      one.put("current", r.current());
    }
    ArrayNode findings = o.putArray("findings");
    s.findings(ladder)
        .forEach(f ->
            findings.addObject().put("part", f.part()).put("text", f.text()).put("asks", f.asks()));
    o.put("limit", s.limit().limit());
    o.set("sheet", SheetJson.worked(s.sheet()));
    return o;
  }
}
