package ell.cli.pulse;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.JsonText;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import java.io.PrintWriter;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// A capture that was kept, as text or as JSON.
record CaptureText(PrintWriter out, boolean json) {
  /// Prints it.
  ///
  /// @return the exit code: a capture that is out did not hold
  int print(Logged l) {
    Entry.Capture c = (Entry.Capture) l.entry();
    if (json) {
      ObjectNode o = object(c);
      o.put("board", l.board()).put("entry", l.number());
      out.println(JsonText.of(o));
    } else {
      c.told().forEach(t -> out.println("first: " + t));
      out.println("entry " + l.number() + " · " + EntryWords.of(c));
      for (Entry.Capture.Measure m : c.measures()) {
        out.printf(
            "  %-12s %s%s%s%n",
            m.name(),
            EngineeringNumber.print(m.value(), m.unit(), 4),
            Double.isFinite(m.uncertainty()) && m.unit() != Unit.ONE
                ? " ± " + EngineeringNumber.print(m.uncertainty(), m.unit(), 2)
                : "",
            m.limits()
                .map(x -> "  " + x.text(m.unit(), 4) + " · " + m.verdict().get().words())
                .orElse(""));
      }
    }
    return c.verdict().filter(v -> v != Verdict.WITHIN).isPresent() ? Exit.NOT_HELD : Exit.DONE;
  }

  /// A capture as an object: `channels` as `wave` has them, `measures` with limits.
  static ObjectNode object(Entry.Capture c) {
    ObjectNode o =
        Json.object()
            .put("place", c.place())
            .put("name", c.name())
            .put("with", c.with())
            .put("says", c.says());
    c.verdict().ifPresent(v -> o.put("verdict", v.key()));
    ObjectNode channel = o.putArray("channels").addObject().put("name", c.channel());
    for (Entry.Capture.Measure m : c.measures()) {
      channel.put(m.name(), m.value());
      Json.number(channel, m.name() + "U", m.uncertainty());
    }
    c.measure("low")
        .ifPresent(low ->
            channel.putArray("levels").add(low.value()).add(c.measure("high").orElse(low).value()));
    ArrayNode measures = o.putArray("measures");
    for (Entry.Capture.Measure m : c.measures()) {
      ObjectNode one =
          measures
              .addObject()
              .put("name", m.name())
              .put("value", m.value())
              .put("unit", m.unit().symbol());
      Json.number(one, "uncertainty", m.uncertainty());
      m.limits()
          .ifPresent(x -> {
            Json.number(one, "low", x.low());
            Json.number(one, "high", x.high());
          });
      m.verdict().ifPresent(v -> one.put("verdict", v.key()));
    }
    Json.strings(o, "suspicions", c.told());
    return o;
  }
}
