package ell.core.entry;

import ell.core.json.JsonObject;
import ell.core.quantity.Verdict;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.SequencedMap;
import tools.jackson.databind.node.ObjectNode;

/// Mistakes of revisions, how boards stand to them, and what was decided.
final class ReviseKinds {
  static final List<Kind<?>> ROWS =
      List.of(
          new Kind<>(
              Entry.Erratum.class,
              "erratum",
              ReviseKinds::write,
              ReviseKinds::read,
              ReviseKinds::words),
          new Kind<>(
              Entry.ErratumSaid.class,
              "erratum-said",
              (e, o) -> o.put("id", e.id()).put("what", e.what()).put("text", e.text()),
              o -> new Entry.ErratumSaid(o.text("id"), o.text("what"), o.text("text", "")),
              e -> "erratum " + e.id() + " " + e.what() + Fields.tail(e.text())),
          new Kind<>(
              Entry.Bodge.class,
              "bodge",
              (b, o) ->
                  o.put("id", b.id())
                      .put("what", b.what())
                      .put("minutes", b.minutes())
                      .put("text", b.text()),
              o ->
                  new Entry.Bodge(
                      o.text("id"), o.text("what"), o.number("minutes", 0), o.text("text", "")),
              b ->
                  "bodge "
                      + b.id()
                      + " "
                      + b.what().replace('-', ' ')
                      + (b.minutes() > 0
                          ? String.format(Locale.ROOT, " \u00b7 %.3g min", b.minutes())
                          : "")
                      + Fields.tail(b.text())),
          new Kind<>(
              Entry.Decision.class,
              "decision",
              (d, o) -> {
                o.put("about", d.about()).put("choice", d.choice());
                ObjectNode numbers = o.putObject("numbers");
                d.numbers().forEach(numbers::put);
                o.put("why", d.why());
              },
              o ->
                  new Entry.Decision(
                      o.text("about", ""),
                      o.text("choice"),
                      numbers(o.object("numbers")),
                      o.text("why", "")),
              d ->
                  "decided: "
                      + d.choice()
                      + (d.about().isEmpty() ? "" : " for " + d.about())
                      + Fields.tail(d.why())),
          new Kind<>(
              Entry.Stack.class,
              "stack",
              (s, o) -> {
                o.put("name", s.name());
                s.members().forEach(o.putArray("members")::add);
                o.put("verdict", s.verdict().key()).put("text", s.text());
              },
              o ->
                  new Entry.Stack(
                      o.text("name"),
                      o.words("members"),
                      Verdict.ofKey(o.text("verdict")),
                      o.text("text", "")),
              s ->
                  s.name()
                      + " of "
                      + String.join(", ", s.members())
                      + switch (s.verdict()) {
                        case WITHIN -> " works together";
                        case CLOSE -> " together, not settled";
                        case OUT -> " does not work together";
                      }
                      + Fields.tail(s.text())));

  private ReviseKinds() {}

  private static SequencedMap<String, Double> numbers(JsonObject o) {
    SequencedMap<String, Double> all = new LinkedHashMap<>();
    o.keys().forEach(k -> all.put(k, o.number(k)));
    return all;
  }

  private static String words(Entry.Erratum e) {
    return (e.severity().equals("wish") ? "wish " : "erratum ")
        + e.id()
        + ": "
        + e.title()
        + (e.bodge().isEmpty() ? "" : " \u00b7 bodge " + String.join("; ", e.bodge()));
  }

  private static void write(Entry.Erratum e, ObjectNode o) {
    o.put("id", e.id()).put("title", e.title()).put("design", e.design());
    e.revisions().forEach(o.putArray("revisions")::add);
    o.put("fault", e.fault());
    e.places().forEach(o.putArray("places")::add);
    o.put("severity", e.severity());
    e.bodge().forEach(o.putArray("bodge")::add);
    o.put("proof", e.proof()).put("fix", e.fix());
    e.taughtBy().forEach(o.putArray("taughtBy")::add);
  }

  private static Entry.Erratum read(JsonObject o) {
    return new Entry.Erratum(
        o.text("id"),
        o.text("title"),
        o.text("design"),
        o.words("revisions"),
        o.text("fault", ""),
        o.words("places"),
        o.text("severity"),
        o.words("bodge"),
        o.text("proof", ""),
        o.text("fix", ""),
        o.numbers("taughtBy").stream().map(Double::longValue).toList());
  }
}
