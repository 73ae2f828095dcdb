package ell.core.entry;

import ell.core.json.JsonObject;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Verdict;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import tools.jackson.databind.node.ObjectNode;

/// Runs of test plans, and boards that leave the bench.
final class ProveKinds {
  static final List<Kind<?>> ROWS =
      List.of(
          new Kind<>(
              Entry.ProofBegun.class,
              "proof",
              (p, o) ->
                  o.put("plan", p.plan())
                      .put("sha256", p.sha256())
                      .put("steps", p.steps())
                      .put("minutes", p.minutes())
                      .put("with", p.with()),
              o ->
                  new Entry.ProofBegun(
                      o.text("plan"),
                      o.text("sha256", ""),
                      (int) o.number("steps"),
                      o.number("minutes", 0),
                      o.text("with", "")),
              p ->
                  "proof by plan "
                      + p.plan()
                      + " begins \u00b7 "
                      + p.steps()
                      + (p.steps() == 1 ? " step" : " steps")
                      + Fields.tail(p.with())),
          new Kind<>(
              Entry.ProofStep.class,
              "proof-step",
              ProveKinds::write,
              ProveKinds::read,
              ProveKinds::words),
          new Kind<>(
              Entry.ProofEnded.class,
              "proof-end",
              (p, o) ->
                  o.put("run", p.run())
                      .put("verdict", p.verdict().key())
                      .put("why", p.why())
                      .put("minutes", p.minutes()),
              o ->
                  new Entry.ProofEnded(
                      (long) o.number("run"),
                      Verdict.ofKey(o.text("verdict")),
                      o.text("why", ""),
                      o.number("minutes", 0)),
              p ->
                  "proof "
                      + switch (p.verdict()) {
                        case WITHIN -> "passed";
                        case CLOSE -> "not settled";
                        case OUT -> "failed";
                      }
                      + String.format(Locale.ROOT, " \u00b7 %.2g min", p.minutes())
                      + Fields.tail(p.why())),
          new Kind<>(
              Entry.Released.class,
              "released",
              (r, o) -> o.put("text", r.text()),
              o -> new Entry.Released(o.text("text", "")),
              r -> "leaves the bench" + Fields.tail(r.text())));

  private ProveKinds() {}

  private static String words(Entry.ProofStep p) {
    StringBuilder s = new StringBuilder("test " + p.name());
    if (p.round() > 1) {
      s.append(", try ").append(p.round());
    }
    p.value()
        .ifPresent(v ->
            s.append(" \u00b7 ")
                .append(Double.isInfinite(v) ? "open" : EngineeringNumber.print(v, p.unit(), 4)));
    if (p.left()) {
      s.append(" \u00b7 left out");
    }
    if (!p.words().isEmpty()) {
      s.append(" \u00b7 ").append(p.words());
    }
    p.verdict().ifPresent(v -> s.append(" \u00b7 ").append(v.words()));
    return s.toString();
  }

  private static void write(Entry.ProofStep p, ObjectNode o) {
    o.put("run", p.run())
        .put("number", p.number())
        .put("round", p.round())
        .put("name", p.name())
        .put("place", p.place());
    p.value()
        .ifPresent(v -> {
          if (Double.isInfinite(v)) {
            o.put("open", true);
          } else {
            o.put("value", v);
          }
        });
    o.put("unit", p.unit().symbol());
    p.limits().ifPresent(l -> Fields.limits(o, l));
    p.uncertainty().ifPresent(u -> o.put("uncertainty", u));
    p.verdict().ifPresent(v -> o.put("verdict", v.key()));
    o.put("words", p.words()).put("left", p.left()).put("seconds", p.seconds());
  }

  private static Entry.ProofStep read(JsonObject o) {
    return new Entry.ProofStep(
        (long) o.number("run"),
        (int) o.number("number"),
        (int) o.number("round", 1),
        o.text("name"),
        o.text("place", ""),
        o.has("open") ? Optional.of(Double.POSITIVE_INFINITY) : Fields.optional(o, "value"),
        Fields.unit(o.text("unit", "")),
        Fields.someLimits(o),
        Fields.optional(o, "uncertainty"),
        Fields.verdict(o),
        o.text("words", ""),
        o.flag("left", false),
        o.number("seconds", 0));
  }
}
