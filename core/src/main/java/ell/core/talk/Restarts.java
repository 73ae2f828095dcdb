package ell.core.talk;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;

/// How often a board began anew while it was listened to, by its banner.
///
/// @param count of beginnings after the first
/// @param period mean seconds from one to the next, NaN when there are none
/// @param regular whether they come evenly: a watchdog or a supply that gives way, not a bad plug
/// @param banner the line that it was told by
public record Restarts(int count, double period, boolean regular, String banner) {
  /// Spread over mean up to which they come evenly; typical, no source.
  private static final double EVEN = 0.25;

  /// Nothing was heard twice.
  public static final Restarts NONE = new Restarts(0, Double.NaN, false, "");

  /// A line that was heard.
  ///
  /// @param seconds since the line was opened
  public record Timed(double seconds, String text) {}

  /// Counts.
  ///
  /// @param banner its pattern; without one, the first line that was heard counts when it comes
  ///   again and again
  public static Restarts of(List<Timed> lines, Optional<String> banner) {
    Optional<String> what = banner.filter(b -> !b.isEmpty());
    String first =
        lines.stream()
            .map(l -> l.text().strip())
            .filter(t -> t.length() > 3)
            .findFirst()
            .orElse("");
    if (first.isEmpty()) {
      return NONE;
    }
    Pattern p = what.map(Pattern::compile).orElse(Pattern.compile(Pattern.quote(first)));
    List<Double> at = new ArrayList<>();
    String told = first;
    for (Timed l : lines) {
      if (p.matcher(l.text()).find()) {
        told = at.isEmpty() ? l.text().strip() : told;
        at.add(l.seconds());
      }
    }
    // without a pattern, a line that comes twice may be an answer given twice
    if (at.size() < (what.isPresent() ? 2 : 3)) {
      return NONE;
    }
    double mean = (at.getLast() - at.getFirst()) / (at.size() - 1);
    double sum = 0;
    for (int i = 1; i < at.size(); i++) {
      sum += Math.pow(at.get(i) - at.get(i - 1) - mean, 2);
    }
    boolean even = at.size() > 2 && Math.sqrt(sum / (at.size() - 1)) < EVEN * mean;
    return new Restarts(at.size() - 1, mean, even, told);
  }
}
