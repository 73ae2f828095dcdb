package ell.core.entry;

import java.util.List;
import java.util.Locale;
import tools.jackson.databind.node.ArrayNode;

/// How boards behave, and where their faults were found.
final class TraceKinds {
  static final List<Kind<?>> ROWS =
      List.of(
          new Kind<>(
              Entry.Symptom.class,
              "symptom",
              (s, o) ->
                  o.put("place", s.place())
                      .put("what", s.what())
                      .put("shows", s.shows())
                      .put("times", s.times())
                      .put("of", s.of()),
              o ->
                  new Entry.Symptom(
                      o.text("place", ""),
                      o.text("what"),
                      o.text("shows"),
                      (int) o.number("times", 1),
                      (int) o.number("of", 1)),
              TraceKinds::words),
          new Kind<>(
              Entry.Found.class,
              "found",
              (f, o) -> {
                o.put("fault", f.fault())
                    .put("place", f.place())
                    .put("design", f.design())
                    .put("chance", f.chance());
                ArrayNode evidence = o.putArray("evidence");
                f.evidence().forEach(evidence::add);
                f.todo().forEach(o.putArray("todo")::add);
                f.again().forEach(o.putArray("again")::add);
              },
              o ->
                  new Entry.Found(
                      o.text("fault"),
                      o.text("place", ""),
                      o.flag("design"),
                      o.number("chance", 1),
                      o.numbers("evidence").stream().map(Double::longValue).toList(),
                      o.words("todo"),
                      o.words("again")),
              f ->
                  "found: "
                      + f.fault()
                      + (f.chance() < 1
                          ? String.format(Locale.ROOT, ", %.0f %% sure", 100 * f.chance())
                          : "")));

  private TraceKinds() {}

  private static String words(Entry.Symptom s) {
    String at = s.place().isEmpty() ? "" : s.place() + " ";
    return switch (s.what()) {
      case "comes" -> at + "comes and goes, bad " + s.times() + " of " + s.of();
      case "lamp" -> at + s.shows();
      case "touch" -> at + "feels " + s.shows();
      case "talks" -> "heard: " + s.shows();
      case "swapped" -> at + "swapped, " + s.shows();
      default -> s.shows() + " while " + at + "is " + s.what();
    };
  }
}
