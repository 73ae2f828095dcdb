package ell.cli.revise;

import ell.cli.shell.Json;
import ell.core.board.Revision;
import ell.core.revise.BodgeMatrix;
import ell.core.revise.BodgeStep;
import ell.core.revise.Compared;
import ell.core.revise.Erratum;
import ell.core.revise.Improvements;
import ell.core.revise.Lessons;
import ell.core.revise.Proof;
import ell.core.revise.RespinSaid;
import ell.core.revise.Stacks;
import ell.core.revise.WayOut;
import ell.core.revise.WorkOrder;
import ell.core.statistic.Counts;
import ell.work.revise.Revising;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// The shapes of `revise`.
final class ReviseJson {
  private ReviseJson() {}

  /// Errata, boards and the work that is left.
  ///
  /// @param of gives the revision in which an erratum was found
  static ObjectNode of(BodgeMatrix m, WorkOrder work, Function<Erratum, Revision> of) {
    ObjectNode o = Json.object();
    ArrayNode errata = o.putArray("errata");
    m.errata().forEach(e -> erratum(errata.addObject(), e, of.apply(e), m.state(e)));
    ArrayNode boards = o.putArray("boards");
    for (BodgeMatrix.Row r : m.boards()) {
      ObjectNode b =
          boards.addObject().put("board", r.board()).put("revision", r.revision().title());
      ObjectNode stands = b.putObject("errata");
      r.stands().forEach((id, s) -> stands.put(id, s.state().key()));
      ObjectNode why = b.putObject("why");
      r.stands().forEach((id, s) -> why.put(id, s.why()));
    }
    ArrayNode jobs = o.putArray("workOrder");
    for (WorkOrder.Job j : work.boards()) {
      ObjectNode x = jobs.addObject().put("board", j.board());
      Json.strings(x, "errata", j.errata());
      ArrayNode steps = x.putArray("steps");
      j.steps()
          .forEach(s -> steps.addObject().put("erratum", s.erratum()).put("step", s.step().text()));
      x.put("minutes", j.minutes());
      heats(x, j.heats());
      x.put("exact", j.exact());
    }
    o.put("minutes", work.minutes());
    ArrayNode parts = o.putArray("parts");
    work.parts().forEach((code, n) -> parts.addObject().put("code", code).put("need", n));
    ArrayNode wire = o.putArray("wire");
    work.wire()
        .forEach((gauge, metres) -> wire.addObject().put("gauge", gauge).put("length", metres));
    Json.strings(o, "told", work.told());
    return o;
  }

  static void erratum(ObjectNode o, Erratum e, Revision revision, String state) {
    o.put("id", e.id()).put("title", e.title()).put("design", e.design());
    if (e.fault().isPresent()) {
      o.put("fault", e.faultWords());
    }
    Json.strings(o, "places", e.places());
    o.put("severity", e.severity().key());
    Json.strings(o, "revisions", e.revisions());
    if (!e.bodge().isEmpty()) {
      ObjectNode b = o.putObject("bodge");
      Json.strings(b, "steps", e.bodge().stream().map(BodgeStep::text).toList());
      b.put("minutes", e.minutes()).put("proposed", e.proposed());
      heats(b, e.heats(revision));
    }
    e.shows().map(Proof::text).ifPresent(p -> o.put("proof", p));
    if (!e.fixWords().isBlank()) {
      o.put("fix", e.fixWords());
    }
    e.fixedIn().ifPresent(f -> o.put("fixedIn", f));
    o.put("state", state);
    ArrayNode taught = o.putArray("taughtBy");
    e.taughtBy().forEach(taught::add);
    o.put("board", e.board()).put("entry", e.number());
  }

  private static void heats(ObjectNode o, Map<String, Integer> heats) {
    ObjectNode h = o.putObject("heats");
    heats.forEach(h::put);
  }

  static void suggestions(ObjectNode o, List<Improvements.Suggestion> all) {
    ArrayNode a = o.putArray("suggestions");
    for (Improvements.Suggestion s : all) {
      ObjectNode x = a.addObject().put("title", s.title()).put("why", s.why());
      Json.strings(x, "places", s.places());
      ArrayNode taught = x.putArray("taughtBy");
      s.taughtBy().forEach(taught::add);
    }
  }

  static ObjectNode way(RespinSaid.Question q, WayOut w, List<Revising.Decided> decided) {
    ObjectNode o = Json.object();
    ObjectNode in = o.putObject("inputs");
    WayOut.Asked a = w.asked();
    in.put("successChance", a.successChance())
        .put("boards", a.boards())
        .put("spent", a.spent())
        .put("boardCost", a.boardCost())
        .put("partsCost", a.partsCost())
        .put("reworkHours", a.reworkHours())
        .put("hourRate", a.hourRate())
        .put("leadDays", a.leadDays())
        .put("nextDays", a.nextDays())
        .put("delayPerDay", a.delayPerDay())
        .put("escapeChance", a.escapeChance())
        .put("escapeCost", a.escapeCost());
    for (WayOut.Way y : List.of(w.rework(), w.respin(), w.pause())) {
      o.putObject(y.name()).put("cost", y.cost()).put("days", y.days());
    }
    o.put("choice", w.choice().name());
    w.turnsAt().ifPresent(t -> o.put("turnsAt", t));
    o.put("turns", w.turns());
    if (q.tried() > 0) {
      o.put("succeeded", q.succeeded())
          .put("tried", q.tried())
          .put("sure", w.sure(q.succeeded(), q.tried()));
    }
    Json.strings(o, "guessed", q.guessed());
    decisions(o, decided);
    return o;
  }

  static void decisions(ObjectNode o, List<Revising.Decided> decided) {
    ArrayNode d = o.putArray("decisions");
    for (Revising.Decided x : decided) {
      ObjectNode one =
          d.addObject()
              .put("entry", x.entry().number())
              .put("at", x.entry().at().toString())
              .put("about", x.decision().about())
              .put("choice", x.decision().choice())
              .put("why", x.decision().why());
      ObjectNode n = one.putObject("numbers");
      x.decision().numbers().forEach(n::put);
      one.put("since", x.since());
    }
  }

  static ObjectNode compared(Compared c) {
    ObjectNode o = Json.object();
    ArrayNode groups = o.putArray("groups");
    for (Compared.Group g : c.groups()) {
      ObjectNode x =
          groups
              .addObject()
              .put("name", g.name())
              .put("boards", g.boards())
              .put("judged", g.judged())
              .put("good", g.good());
      g.yield().ifPresent(i -> interval(x.putObject("yield"), g.share(), i));
      ObjectNode d = x.putObject("defects");
      g.defects().forEach(d::put);
      x.put("joints", g.joints());
      Json.number(x, "minutes", g.minutes());
      x.put("timed", g.timed());
      Json.number(x, "cost", g.cost());
    }
    ArrayNode pairs = o.putArray("pairs");
    for (Compared.Pair p : c.pairs()) {
      pairs
          .addObject()
          .put("from", p.before())
          .put("to", p.after())
          .put("chance", p.chance())
          .put("tells", p.tells())
          .put("words", p.words());
    }
    return o;
  }

  private static void interval(ObjectNode o, double value, Counts.Interval i) {
    o.put("value", value).put("low", i.low()).put("high", i.high());
  }

  static ObjectNode stacks(Stacks s) {
    ObjectNode o = Json.object();
    ArrayNode tried = o.putArray("tried");
    for (Stacks.Tried t : s.tried()) {
      ObjectNode x = tried.addObject().put("name", t.name());
      ArrayNode m = x.putArray("members");
      t.members().forEach(y -> m.addObject().put("name", y.name()).put("revision", y.revision()));
      x.put("verdict", t.verdict().key()).put("entry", t.entry()).put("mayShip", t.mayShip());
      Json.strings(x, "changed", t.changed());
    }
    ArrayNode pairings = o.putArray("together");
    for (Stacks.Pairing p : s.pairings()) {
      ObjectNode x = pairings.addObject().put("name", p.name());
      Json.strings(x, "revisions", p.kinds());
      x.put("worked", p.worked()).put("failed", p.failed()).put("words", p.words());
    }
    return o;
  }

  static ObjectNode lessons(Lessons l) {
    ObjectNode o = Json.object();
    for (Lessons.Way w : Lessons.Way.values()) {
      ArrayNode a = o.putArray(w.key());
      for (Lessons.Count c : l.by().getOrDefault(w, List.of())) {
        ObjectNode x =
            a.addObject()
                .put("name", c.name())
                .put("wrong", c.wrong())
                .put("of", c.of())
                .put("designs", c.designs());
        interval(x.putObject("rate"), c.rate(), c.interval());
      }
    }
    Json.strings(o, "told", l.told());
    return o;
  }
}
