package ell.core.order;

import ell.core.record.Section;
import ell.core.record.Section.Row;
import ell.core.record.Section.Tone;
import java.util.ArrayList;
import java.util.List;

/// What a board's record says of its building: every step, done or open.
public final class OrderSection {
  private OrderSection() {}

  /// The section.
  public static Section of(BuildOrder order, OrderFacts facts) {
    List<Row> rows = new ArrayList<>();
    for (Step s : order.steps()) {
      boolean done = facts.done(s);
      rows.add(
          Section.cells(
              done ? Tone.PLAIN : Tone.SOFT,
              String.valueOf(s.number()),
              done ? "done" : "open",
              s.action().words(),
              s.gate()
                  .map(g -> "gate " + g)
                  .orElse(
                      s.parts().isEmpty()
                          ? s.side().key() + " side"
                          : String.join(" ", s.parts()))));
    }
    return new Section(
        "Steps",
        facts.done(order) + " of " + order.steps().size() + " done",
        List.of(0.06, 0.07, 0.14, 0.73),
        rows);
  }
}
