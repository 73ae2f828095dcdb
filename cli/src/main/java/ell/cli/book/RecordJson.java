package ell.cli.book;

import ell.cli.shell.Json;
import ell.core.record.BoardRecord;
import ell.core.record.Section;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// A record as JSON: its sections with their rows.
final class RecordJson {
  private RecordJson() {}

  static ObjectNode of(BoardRecord r) {
    ObjectNode o =
        Json.object()
            .put("kind", r.kind())
            .put("about", r.board())
            .put("revision", r.revision())
            .put("build", r.build())
            .put("standing", r.standing())
            .put("asOf", r.printed())
            .put("seal", r.seal());
    ArrayNode sections = o.putArray("sections");
    for (Section s : r.sections()) {
      ObjectNode x = sections.addObject().put("title", s.title()).put("note", s.note());
      ArrayNode rows = x.putArray("rows");
      s.rows().forEach(row -> rows.add(row(row)));
    }
    return o;
  }

  /// One row of a section.
  private static ObjectNode row(Section.Row row) {
    ObjectNode o = Json.object();
    switch (row) {
      case Section.Cells c -> {
        Json.strings(o, "cells", c.cells());
        c.verdict().ifPresent(v -> o.put("verdict", v.key()));
      }
      case Section.Strip s -> {
        o.put("place", s.place());
        s.value().ifPresent(v -> Json.number(o, "value", v));
        o.put("unit", s.unit().symbol());
        s.limits()
            .ifPresent(l -> {
              Json.number(o, "low", l.low());
              Json.number(o, "high", l.high());
            });
        s.uncertainty().ifPresent(u -> o.put("uncertainty", u));
        s.verdict().ifPresent(v -> o.put("verdict", v.key()));
      }
      case Section.Drawing d -> {
        o.put("drawing", d.words());
        Json.strings(o, "marks", d.marks().stream().map(Section.Drawing.Label::text).toList());
      }
      case Section.Picture p ->
          o.put("place", p.place()).put("picture", p.name()).put("sha256", p.sha256());
    }
    return o;
  }
}
