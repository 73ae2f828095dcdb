package ell.cli.order;

import ell.cli.shell.Json;
import ell.core.board.Revision;
import ell.core.order.Arrow;
import ell.core.order.BuildOrder;
import ell.core.order.Loop;
import ell.core.order.Rows;
import ell.core.order.Schools;
import ell.core.order.SeveralBoards;
import ell.core.order.Step;
import ell.core.order.StepTimes;
import java.util.List;
import java.util.Locale;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// The JSON shape of an order.
final class OrderJson {
  private OrderJson() {}

  static ObjectNode order(BuildOrder order, StepTimes times, Revision revision) {
    ObjectNode o =
        Json.object()
            .put("method", order.method().key())
            .put("minutes", times.seconds(order.steps()) / 60);
    ArrayNode steps = o.putArray("steps");
    for (Step s : order.steps()) {
      ObjectNode one =
          steps.addObject().put("number", s.number()).put("action", s.action().words());
      Json.strings(one, "parts", s.parts());
      one.put("side", s.side().key());
      s.gate().ifPresent(g -> one.put("gate", g));
      one.put("minutes", times.seconds(s) / 60);
      if (!s.block().isEmpty()) {
        one.put("block", s.block());
      }
      List<List<String>> rows = Rows.of(s, revision);
      if (rows.size() > 1) {
        ArrayNode all = one.putArray("rows");
        rows.forEach(r -> r.forEach(all.addArray()::add));
      }
      Json.strings(one, "reasons", s.reasons());
      Json.strings(one, "how", s.how());
      Json.strings(one, "cautions", s.cautions());
    }
    ArrayNode arrows = o.putArray("arrows");
    order.arrows().forEach(a -> arrow(arrows.addObject(), a));
    ArrayNode loops = o.putArray("loops");
    for (Loop l : order.loops()) {
      ObjectNode one = loops.addObject().put("byWish", l.byWish());
      ArrayNode in = one.putArray("arrows");
      l.arrows().forEach(a -> arrow(in.addObject(), a));
      arrow(one.putObject("dropped"), l.dropped());
    }
    Json.strings(o, "dropped", order.mind());
    o.putObject("effort")
        .put("seconds", order.effort().seconds())
        .put("bound", order.effort().bound())
        .put("gap", order.effort().gap())
        .put("optimal", order.effort().exact());
    ObjectNode learned = o.putObject("learned");
    times
        .factors()
        .forEach((a, f) ->
            learned.putObject(a.words()).put("factor", f).put("steps", times.steps().get(a)));
    return o;
  }

  private static void arrow(ObjectNode o, Arrow a) {
    o.put("before", a.before())
        .put("after", a.after())
        .put("rule", a.why().name().toLowerCase(Locale.ROOT))
        .put("reason", a.reason());
  }

  static void schools(ObjectNode o, Schools s) {
    ObjectNode one =
        o.putObject("schools")
            .put("boards", s.boards())
            .put("allAtOnce", s.totalAtOnce() * 60)
            .put("blockByBlock", s.totalByBlock() * 60)
            .put("pick", s.byBlock() ? "blockByBlock" : "allAtOnce");
    s.breakEven().ifPresent(n -> one.put("breakEven", n));
    one.put("repairAllAtOnce", s.mendingAtOnce() * 60)
        .put("repairBlockByBlock", s.mendingByBlock() * 60);
    ArrayNode risks = one.putArray("atRisk");
    s.risks()
        .forEach(r ->
            risks
                .addObject()
                .put("gate", r.gate())
                .put("blockByBlock", r.byBlock())
                .put("allAtOnce", r.atOnce()));
  }

  static void several(ObjectNode o, SeveralBoards s) {
    o.putObject("several")
        .put("boards", s.boards())
        .put("perPlate", s.perPlate())
        .put("boardAfterBoard", s.boardAfterBoard())
        .put("stepAfterStep", s.stepAfterStep())
        .put("pick", s.stepwise() ? "stepAfterStep" : "boardAfterBoard");
  }

  static void wishes(ObjectNode o, List<String> wishes) {
    Json.strings(o, "wishes", wishes);
  }
}
