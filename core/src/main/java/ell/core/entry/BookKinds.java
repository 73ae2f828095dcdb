package ell.core.entry;

import static ell.core.entry.Fields.tail;

import java.util.List;
import tools.jackson.databind.node.ObjectNode;

/// What is said of the book itself and of those who write in it: notes, rules set aside, who is at
/// the bench, entries taken back.
final class BookKinds {
  static final List<Kind<?>> ROWS =
      List.of(
          new Kind<>(
              Entry.Note.class,
              "note",
              (n, o) -> o.put("text", n.text()),
              o -> new Entry.Note(o.text("text")),
              Entry.Note::text),
          new Kind<>(
              Entry.Override.class,
              "override",
              (v, o) -> o.put("rule", v.rule()).put("why", v.why()),
              o -> new Entry.Override(o.text("rule"), o.text("why")),
              v -> v.rule() + " set aside" + tail(v.why())),
          // the word in files is older than the name
          new Kind<>(
              Entry.Operator.class,
              "hands",
              BookKinds::write,
              o -> new Entry.Operator(o.text("who"), o.flag("helper", false)),
              h -> "at the bench: " + h.who() + (h.helper() ? ", who helps" : "")),
          new Kind<>(
              Entry.Strike.class,
              "strike",
              (s, o) -> o.put("target", s.target()).put("why", s.why()),
              o -> new Entry.Strike((long) o.number("target"), o.text("why")),
              s -> "strikes " + s.target() + tail(s.why())));

  private BookKinds() {}

  private static void write(Entry.Operator h, ObjectNode o) {
    o.put("who", h.who());
    if (h.helper()) {
      o.put("helper", true);
    }
  }
}
