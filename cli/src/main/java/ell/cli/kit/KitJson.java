package ell.cli.kit;

import ell.cli.shell.Json;
import ell.core.kit.KitCheck;
import ell.core.kit.KitLine;
import ell.core.kit.Landed;
import ell.core.kit.MassBudget;
import ell.core.kit.buy.OrderSplit;
import ell.work.kit.Buying;
import java.util.List;
import java.util.Optional;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// The JSON shapes of kit and buy.
final class KitJson {
  private KitJson() {}

  static ObjectNode kit(KitCheck k) {
    ObjectNode o = Json.object().put("boards", k.boards()).put("on", k.on().toString());
    ArrayNode lines = o.putArray("lines");
    for (KitLine l : k.lines()) {
      ObjectNode one = lines.addObject().put("code", l.code());
      Json.strings(one, "references", l.references());
      one.put("perBoard", l.perBoard())
          .put("need", l.need())
          .put("spares", l.spares())
          .put("placed", l.placed())
          .put("lost", l.lost())
          .put("onHand", l.onHand())
          .put("fromAlternates", l.fromAlternates())
          .put("onOrder", l.onOrder())
          .put("short", l.shortBy())
          .put("boards", l.reach());
      l.expected().ifPresent(d -> one.put("expected", d.toString()));
      if (l.expired() > 0) {
        one.put("expired", l.expired());
      }
      one.put("bin", l.bin());
    }
    o.put("boardsNow", k.boardsNow());
    k.limiting().ifPresent(c -> o.put("limiting", c));
    k.next()
        .ifPresent(n -> o.putObject("next").put("limiting", n.code()).put("boards", n.boards()));
    ArrayNode stairs = o.putArray("staircase");
    for (KitCheck.Stair s : k.stairs()) {
      ObjectNode one =
          stairs.addObject().put("date", s.from().toString()).put("boards", s.boards());
      s.limiting().ifPresent(c -> one.put("limiting", c));
    }
    ArrayNode gates = o.putArray("gates");
    for (KitCheck.GateReach g : k.gates()) {
      ObjectNode one =
          gates
              .addObject()
              .put("gate", g.gate())
              .put("reachable", g.reachable())
              .put("boards", g.boards());
      Json.strings(one, "blockedBy", g.blockedBy());
    }
    ArrayNode supplies = o.putArray("supplies");
    for (KitCheck.Supply s : k.supplies()) {
      supplies
          .addObject()
          .put("kind", s.kind().key())
          .put("code", s.code())
          .put("have", s.have())
          .put("need", s.need())
          .put("enough", s.enough());
    }
    o.put("verdict", k.verdict().key());
    k.gate().ifPresent(g -> o.put("gate", g));
    k.date().ifPresent(d -> o.put("date", d.toString()));
    k.setAside().ifPresent(w -> o.put("setAside", w));
    Json.strings(o, "reasons", k.reasons());
    return o;
  }

  static void costs(ObjectNode o, List<Buying.DateCost> costs) {
    ArrayNode a = o.putArray("costs");
    for (Buying.DateCost c : costs) {
      ObjectNode one =
          a.addObject()
              .put("by", c.by().toString())
              .put("total", c.total())
              .put("optimal", c.proven())
              .put("gap", c.gap());
      Json.strings(one, "unmet", c.unmet());
    }
  }

  static void mass(ObjectNode o, MassBudget m) {
    ObjectNode one = o.putObject("mass").put("total", m.total()).put("parts", m.parts());
    one.put("board", m.board());
    m.limit().ifPresent(l -> one.put("limit", l));
    m.verdict().ifPresent(v -> one.put("verdict", v.key()));
    Json.strings(one, "unknown", m.unknown());
  }

  static void landed(ObjectNode o, Landed l) {
    o.putObject("landed")
        .put("total", l.total())
        .put("goodBoards", l.goodBoards())
        .put("perGoodBoard", l.perGoodBoard());
  }

  static ObjectNode split(OrderSplit s) {
    ObjectNode o =
        Json.object()
            .put("by", s.by().toString())
            .put("total", s.total())
            .put("goods", s.goods())
            .put("shipping", s.shipping())
            .put("optimal", s.proven())
            .put("bound", s.bound())
            .put("gap", s.gap());
    ArrayNode offers = o.putArray("offers");
    for (OrderSplit.Purchase p : s.purchases()) {
      offers
          .addObject()
          .put("seller", p.offer().seller())
          .put("code", p.offer().code())
          .put("line", p.line())
          .put("quantity", p.quantity())
          .put("packs", p.packs())
          .put("pack", p.offer().pack())
          .put("unitPrice", p.unitPrice())
          .put("price", p.price())
          .put("arrives", p.arrives().toString());
    }
    ArrayNode ships = o.putArray("shipments");
    for (OrderSplit.Shipment x : s.shipments()) {
      ObjectNode one = ships.addObject();
      Json.strings(one, "sellers", x.sellers());
      one.put("cost", x.cost());
    }
    ArrayNode unmet = o.putArray("unmet");
    for (OrderSplit.Unmet u : s.unmet()) {
      ObjectNode one = unmet.addObject().put("code", u.code()).put("quantity", u.quantity());
      u.earliest().ifPresent(d -> one.put("earliest", d.toString()));
    }
    ObjectNode compared = o.putObject("compared");
    naive(compared, "oneSeller", s.oneSeller());
    naive(compared, "cheapestEach", s.cheapestEach());
    Json.strings(o, "assumptions", s.assumptions());
    return o;
  }

  private static void naive(ObjectNode o, String key, Optional<OrderSplit.Naive> n) {
    n.ifPresent(x -> o.putObject(key).put("what", x.words()).put("total", x.total()));
  }
}
