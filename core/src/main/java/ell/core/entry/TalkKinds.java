package ell.core.entry;

import ell.core.json.JsonObject;
import ell.core.quantity.Verdict;
import java.util.List;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// What was said over lines, what boards know of themselves, what is seen of chains.
final class TalkKinds {
  static final List<Kind<?>> ROWS =
      List.of(
          new Kind<>(Entry.Talk.class, "talk", TalkKinds::write, TalkKinds::read, TalkKinds::words),
          new Kind<>(
              Entry.Knows.class,
              "knows",
              (k, o) ->
                  o.put("memory", k.memory())
                      .put("serial", k.serial())
                      .put("revision", k.revision()),
              o -> new Entry.Knows(o.text("memory"), o.text("serial"), o.text("revision")),
              k -> k.memory() + " holds number " + k.serial() + ", revision " + k.revision()),
          new Kind<>(
              Entry.ChainLook.class,
              "chain",
              (c, o) ->
                  o.put("chain", c.chain()).put("elements", c.elements()).put("seen", c.seen()),
              o -> new Entry.ChainLook(o.text("chain"), (int) o.number("elements"), o.text("seen")),
              c -> "chain from " + c.chain() + " \u00b7 " + c.seen()));

  private TalkKinds() {}

  private static String words(Entry.Talk t) {
    if (t.line().isEmpty() && t.script().isEmpty()) {
      return t.operation()
          + " done by hand"
          + (t.told().isEmpty() ? "" : " \u00b7 " + t.told().getFirst());
    }
    StringBuilder s = new StringBuilder(t.script().isEmpty() ? "line " + t.line() : t.script());
    t.verdict()
        .ifPresent(v -> s.append(" \u00b7 ").append(v == Verdict.WITHIN ? "done" : failed(t)));
    if (!t.firmware().isEmpty()) {
      s.append(" \u00b7 firmware ").append(t.firmware());
    }
    if (t.restarts() > 0) {
      s.append(" \u00b7 began anew ")
          .append(t.restarts())
          .append(t.restarts() == 1 ? " time" : " times");
    }
    s.append(" \u00b7 ").append(t.heard()).append(t.heard() == 1 ? " byte heard" : " bytes heard");
    return s.toString();
  }

  private static String failed(Entry.Talk t) {
    return t.steps().stream()
        .filter(x -> x.verdict() != Verdict.WITHIN)
        .reduce((a, b) -> b)
        .map(x -> "not done, step " + x.number())
        .orElse("not done");
  }

  private static void write(Entry.Talk t, ObjectNode o) {
    o.put("line", t.line())
        .put("script", t.script())
        .put("operation", t.operation())
        .put("seconds", t.seconds())
        .put("sent", t.sent())
        .put("heard", t.heard())
        .put("sha256", t.sha256())
        .put("beside", t.beside())
        .put("firmware", t.firmware())
        .put("restarts", t.restarts())
        .put("lost", t.lost());
    ArrayNode steps = o.putArray("steps");
    for (Entry.Talk.Step s : t.steps()) {
      steps
          .addObject()
          .put("number", s.number())
          .put("sent", s.sent())
          .put("expected", s.expected())
          .put("got", s.got())
          .put("seconds", s.seconds())
          .put("verdict", s.verdict().key());
    }
    t.verdict().ifPresent(v -> o.put("verdict", v.key()));
    t.told().forEach(o.putArray("told")::add);
  }

  private static Entry.Talk read(JsonObject o) {
    return new Entry.Talk(
        o.text("line"),
        o.text("script", ""),
        o.text("operation", ""),
        o.number("seconds", 0),
        (long) o.number("sent", 0),
        (long) o.number("heard", 0),
        o.text("sha256", ""),
        o.text("beside", ""),
        o.text("firmware", ""),
        (int) o.number("restarts", 0),
        (long) o.number("lost", 0),
        o.objects("steps").stream()
            .map(s ->
                new Entry.Talk.Step(
                    (int) s.number("number"),
                    s.text("sent", ""),
                    s.text("expected", ""),
                    s.text("got", ""),
                    s.number("seconds", 0),
                    Verdict.ofKey(s.text("verdict"))))
            .toList(),
        Fields.verdict(o),
        o.words("told"));
  }
}
