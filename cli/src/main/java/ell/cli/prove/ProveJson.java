package ell.cli.prove;

import ell.cli.shell.Json;
import ell.core.entry.Entry;
import ell.core.prove.BuildProof;
import ell.core.prove.ProveFacts;
import ell.core.prove.UseGate;
import ell.core.quantity.Limits;
import ell.core.quantity.Verdict;
import java.util.Map;
import java.util.Optional;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// Shapes of `prove`.
final class ProveJson {
  private ProveJson() {}

  /// A run. What was left out, or had nothing to be held against, is not settled: its verdict is
  /// `close`, and its words say why.
  static ObjectNode run(String board, ProveFacts.Run r) {
    ObjectNode o = Json.object().put("board", board).put("run", r.number());
    o.put("plan", r.begun().plan()).put("planned", r.begun().minutes());
    ArrayNode steps = o.putArray("steps");
    for (Entry.ProofStep s : r.made()) {
      ObjectNode x = steps.addObject().put("number", s.number()).put("name", s.name());
      if (s.round() > 1) {
        x.put("round", s.round());
      }
      s.value()
          .ifPresent(v -> {
            if (Double.isInfinite(v)) {
              x.put("open", true);
            } else {
              x.put("value", v);
            }
            x.put("unit", s.unit().symbol());
          });
      s.limits().ifPresent(l -> limits(x, l));
      s.uncertainty().ifPresent(u -> x.put("uncertainty", u));
      if (!s.words().isEmpty()) {
        x.put("words", s.words());
      }
      x.put("verdict", s.verdict().orElse(Verdict.CLOSE).key());
      if (s.left()) {
        x.put("left", true);
      }
      x.put("seconds", s.seconds());
    }
    Optional<Entry.ProofEnded> end = r.ended().map(l -> (Entry.ProofEnded) l.entry());
    o.put("verdict", end.map(Entry.ProofEnded::verdict).orElse(r.worst().and(Verdict.CLOSE)).key());
    o.put("ended", end.isPresent());
    end.filter(e -> !e.why().isEmpty()).ifPresent(e -> o.put("why", e.why()));
    o.put(
        "minutes",
        end.map(Entry.ProofEnded::minutes)
            .orElse(r.made().stream().mapToDouble(Entry.ProofStep::seconds).sum() / 60));
    return o;
  }

  private static void limits(ObjectNode x, Limits l) {
    Json.number(x, "low", l.low());
    Json.number(x, "high", l.high());
  }

  /// A build.
  static ObjectNode build(BuildProof b, Map<String, UseGate> gates) {
    ObjectNode o =
        Json.object()
            .put("boards", b.boards())
            .put("tested", b.tested())
            .put("passed", b.passed())
            .put("unsettled", b.unsettled());
    // of nothing everything may be true
    ObjectNode yield = o.putObject("firstPassYield");
    b.yield().ifPresentOrElse(y -> rate(yield, y), () -> yield.put("low", 0.0).put("high", 1.0));
    b.rolled()
        .ifPresent(r -> {
          o.put("rolledYield", r.value());
          rate(o.putObject("rolled"), r);
        });
    ArrayNode tests = o.putArray("tests");
    for (BuildProof.OfTest t : b.tests()) {
      ObjectNode x =
          tests.addObject().put("name", t.name()).put("n", t.n()).put("failed", t.failed());
      Json.number(x, "mean", t.mean());
      Json.number(x, "sd", t.sd());
      if (!t.unit().symbol().isEmpty()) {
        x.put("unit", t.unit().symbol());
      }
      t.limits().ifPresent(l -> limits(x, l));
      t.capability()
          .ifPresent(c -> {
            c.cp().ifPresent(v -> x.put("cp", v));
            x.put("cpk", c.cpk());
            c.cpkLow().ifPresent(v -> x.put("cpkLow", v));
            c.cpkHigh().ifPresent(v -> x.put("cpkHigh", v));
          });
      Json.strings(x, "failedBoards", t.bad());
      Json.strings(x, "outliers", t.outliers());
      Json.strings(x, "drift", t.drift());
      t.gauge()
          .ifPresent(g ->
              x.putObject("gauge").put("repeatability", g.repeatability()).put("share", g.share()));
      x.put("risk", t.risk());
      if (!t.faults().isEmpty()) {
        ObjectNode f = x.putObject("faults");
        t.faults().forEach(f::put);
      }
    }
    ArrayNode ready = o.putArray("ready");
    gates.forEach((board, g) -> {
      ObjectNode x = ready.addObject().put("board", board).put("ready", g.open());
      Json.strings(x, "missing", g.missing());
    });
    Json.strings(o, "told", b.told());
    return o;
  }

  private static void rate(ObjectNode o, BuildProof.Rate r) {
    o.put("value", r.value()).put("low", r.low()).put("high", r.high());
  }
}
