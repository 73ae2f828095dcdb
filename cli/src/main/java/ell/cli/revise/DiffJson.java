package ell.cli.revise;

import ell.cli.shell.Json;
import ell.core.board.NetDifference;
import ell.core.revise.ChangeCheck;
import ell.core.revise.difference.LayerDifference;
import ell.core.revise.difference.RevisionDifference;
import java.util.List;
import java.util.Map;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// The shape of `diff`. Lengths in metre, turns in degree.
final class DiffJson {
  private DiffJson() {}

  static ObjectNode of(RevisionDifference d, List<LayerDifference> layers, ChangeCheck c) {
    ObjectNode o = Json.object();
    o.put("from", d.first()).put("to", d.second()).put("same", d.same()).put("exact", d.exact());
    ObjectNode parts = o.putObject("parts");
    Json.strings(parts, "added", d.added());
    Json.strings(parts, "removed", d.removed());
    changed(parts.putArray("value"), d.value());
    changed(parts.putArray("package"), d.packages());
    changed(parts.putArray("fitted"), d.fitted());
    ArrayNode moved = parts.putArray("moved");
    for (RevisionDifference.Moved m : d.moved()) {
      ObjectNode x =
          moved
              .addObject()
              .put("part", m.part())
              .put("dx", m.dxMm() / 1000)
              .put("dy", m.dyMm() / 1000)
              .put("turned", m.turnedDeg());
      m.side().ifPresent(s -> x.put("side", s.key()));
    }
    names(parts.putArray("renumbered"), d.renumbered());
    ObjectNode nets = o.putObject("nets");
    names(nets.putArray("renamed"), d.renamed());
    ArrayNode joints = nets.putArray("joints");
    for (NetDifference.Moved j : d.joints()) {
      joints.addObject().put("place", j.place()).put("from", j.from()).put("to", j.to());
    }
    Json.strings(nets, "added", d.netsAdded());
    Json.strings(nets, "removed", d.netsRemoved());
    ArrayNode drawn = o.putArray("layers");
    for (LayerDifference l : layers) {
      ObjectNode x =
          drawn
              .addObject()
              .put("layer", l.layer())
              .put("added", l.added())
              .put("removed", l.removed())
              .put("changed", l.changed());
      Json.strings(x, "parts", l.parts());
      if (!l.told().isEmpty()) {
        x.put("told", l.told());
      }
    }
    check(o, c);
    Json.strings(o, "told", d.told());
    return o;
  }

  /// The change list, held against the drawing.
  static void check(ObjectNode o, ChangeCheck c) {
    ArrayNode changes = o.putArray("changes");
    for (ChangeCheck.Change x : c.changes()) {
      ObjectNode one =
          changes
              .addObject()
              .put("id", x.item().id())
              .put("title", x.item().title())
              .put("state", x.state().key());
      Json.strings(one, "evidence", x.evidence());
    }
    Json.strings(o, "unexplained", c.unexplained());
  }

  private static void changed(ArrayNode a, List<RevisionDifference.Changed> all) {
    all.forEach(v -> a.addObject().put("part", v.part()).put("from", v.from()).put("to", v.to()));
  }

  private static void names(ArrayNode a, Map<String, String> by) {
    by.forEach((from, to) -> a.addObject().put("from", from).put("to", to));
  }
}
