package ell.core.entry;

import static ell.core.entry.Fields.tail;

import java.util.List;

/// What was seen at a place, and what was done there: defects, actions, joints that are good,
/// photographs.
final class FindingKinds {
  static final List<Kind<?>> ROWS =
      List.of(
          new Kind<>(
              Entry.Defect.class,
              "defect",
              (d, o) -> o.put("place", d.place()).put("defect", d.defect()).put("text", d.text()),
              o -> new Entry.Defect(o.text("place"), o.text("defect"), o.text("text")),
              d -> d.place() + " " + d.defect() + tail(d.text())),
          new Kind<>(
              Entry.Action.class,
              "action",
              (a, o) ->
                  o.put("place", a.place())
                      .put("action", a.action())
                      .put("heat", a.heat())
                      .put("text", a.text()),
              o ->
                  new Entry.Action(
                      o.text("place"), o.text("action"), o.flag("heat"), o.text("text")),
              a -> a.place() + " " + a.action() + tail(a.text())),
          new Kind<>(
              Entry.Seen.class,
              "seen",
              (s, o) -> s.places().forEach(o.putArray("places")::add),
              o -> new Entry.Seen(o.words("places")),
              s ->
                  s.places().size() == 1
                      ? s.places().getFirst() + " looks good"
                      : s.places().size() + " joints look good, the last " + s.places().getLast()),
          new Kind<>(
              Entry.Photo.class,
              "photo",
              (p, o) -> o.put("place", p.place()).put("name", p.name()).put("sha256", p.sha256()),
              o -> new Entry.Photo(o.text("place"), o.text("name"), o.text("sha256")),
              p -> p.place() + " photograph " + p.name()));

  private FindingKinds() {}
}
