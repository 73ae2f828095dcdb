package ell.core.entry;

import java.util.List;

/// Jigs.
final class JigKinds {
  static final List<Kind<?>> ROWS =
      List.of(
          new Kind<>(
              Entry.Jig.class,
              "jig",
              (j, o) ->
                  o.put("jig", j.jig())
                      .put("what", j.what())
                      .put("place", j.place())
                      .put("count", j.count())
                      .put("good", j.good())
                      .put("text", j.text()),
              o ->
                  new Entry.Jig(
                      o.text("jig"),
                      o.text("what"),
                      o.text("place", ""),
                      (int) o.number("count", 1),
                      o.flag("good"),
                      o.text("text", "")),
              JigKinds::words));

  private JigKinds() {}

  private static String words(Entry.Jig j) {
    String jig = "jig " + j.jig();
    return switch (j.what()) {
      case "built" -> jig + " built for " + j.text();
      case "closed" ->
          jig + (j.count() == 1 ? " closed over the board" : " closed " + j.count() + " times");
      case "checked" -> jig + " checked, " + (j.good() ? "good" : j.text() + " at " + j.place());
      case "probe" -> jig + ": another probe at " + j.place();
      default -> jig + " " + j.what() + Fields.tail(j.text());
    };
  }
}
