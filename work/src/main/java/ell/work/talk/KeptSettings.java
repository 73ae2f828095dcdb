package ell.work.talk;

import ell.bench.link.BenchException;
import ell.core.statistic.Counts;
import ell.core.talk.Script;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;

/// How many settings were sent to a board, and how many it kept.
///
/// @param gone names of those that it did not keep
record KeptSettings(int sent, int kept, List<String> gone) {
  private static final double CONFIDENCE = 0.95;
  private static final Optional<String> A_LINE = Optional.of("[^\\r\\n]+[\\r\\n]");

  KeptSettings {
    gone = List.copyOf(gone);
  }

  /// Sends them one by one, then asks for each.
  static KeptSettings of(Script.Act.Settings t, Hearing h, double within)
      throws BenchException, InterruptedException {
    for (Map.Entry<String, String> e : t.values().entrySet()) {
      h.say(named(t.set(), e), A_LINE, within);
    }
    List<String> gone = new ArrayList<>();
    for (Map.Entry<String, String> e : t.values().entrySet()) {
      String value = Pattern.quote(h.filled(e.getValue()));
      Hearing.Outcome o =
          h.say(
              named(t.get(), e),
              Optional.of("(?<![A-Za-z0-9.])" + value + "\\s*?[\\r\\n]"),
              within);
      if (!o.good()) {
        gone.add(e.getKey());
      }
    }
    return new KeptSettings(t.values().size(), t.values().size() - gone.size(), gone);
  }

  private static String named(String template, Map.Entry<String, String> e) {
    return template.replace("{name}", e.getKey()).replace("{value}", e.getValue());
  }

  boolean all() {
    return kept == sent;
  }

  /// With what the count says of the chance (exact interval of Clopper and Pearson).
  String words() {
    if (all()) {
      return "all " + sent + " kept";
    }
    Counts.Interval i = Counts.exact(sent - kept, sent, CONFIDENCE);
    return String.format(
        Locale.ROOT,
        "%d were sent, %d were kept (not %s): a write is lost with a chance of %.0f...%.0f %%; once"
            + " mended, %d clean writes in a row say with 95 %% that it is gone",
        sent,
        kept,
        String.join(", ", gone),
        100 * i.low(),
        100 * i.high(),
        Counts.cleanTrials((sent - kept) / (double) sent, CONFIDENCE));
  }
}
