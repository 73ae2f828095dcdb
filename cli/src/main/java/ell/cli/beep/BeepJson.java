package ell.cli.beep;

import ell.cli.shell.Json;
import ell.core.beep.BeepCheck;
import ell.core.beep.BeepList;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// The beep list as JSON.
final class BeepJson {
  private BeepJson() {}

  static ObjectNode of(BeepList list) {
    ObjectNode o = Json.object();
    ArrayNode checks = o.putArray("checks");
    for (BeepCheck c : list.checks()) {
      ObjectNode one = checks.addObject().put("number", c.number()).put("kind", c.kind().key());
      one.putObject("a").put("part", c.a().part()).put("pin", c.a().pin());
      one.putObject("b").put("part", c.b().part()).put("pin", c.b().pin());
      one.put("netA", c.netA()).put("netB", c.netB());
      Json.number(one, "expectedLow", c.expected().low());
      Json.number(one, "expectedHigh", c.expected().high());
      one.put("guardsPower", c.guards()).put("why", c.why()).put("beepsFor", c.beepsFor());
    }
    BeepList.Coverage c = list.coverage();
    o.putObject("coverage")
        .put("opens", c.opens())
        .put("opensTotal", c.opensTotal())
        .put("bridges", c.bridges())
        .put("bridgesTotal", c.bridgesTotal())
        .put("hidden", c.hidden())
        .put("alone", c.alone());
    return o;
  }
}
