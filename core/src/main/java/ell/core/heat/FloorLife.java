package ell.core.heat;

import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.quantity.Check;
import ell.core.quantity.Verdict;
import ell.core.sheet.Worked;
import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/// How long parts that draw water from the air have been out of their dry bag. Source: J-STD-033
/// floor life at 30 °C and 60 % relative humidity, from memory; the label on the bag rules.
///
/// @param level such as `3`
/// @param open out of a bag in all, second
/// @param limit second, infinite for level 1, 0 for level 6
public record FloorLife(String level, double open, double limit) {
  private static final double HOUR = 3600;
  private static final Map<String, Double> LIMITS = new LinkedHashMap<>();

  static {
    LIMITS.put("1", Double.POSITIVE_INFINITY);
    LIMITS.put("2", 365 * 24 * HOUR);
    LIMITS.put("2a", 28 * 24 * HOUR);
    LIMITS.put("3", 168 * HOUR);
    LIMITS.put("4", 72 * HOUR);
    LIMITS.put("5", 48 * HOUR);
    LIMITS.put("5a", 24 * HOUR);
    LIMITS.put("6", 0.0);
  }

  /// The levels, driest need last.
  public static List<String> levels() {
    return List.copyOf(LIMITS.keySet());
  }

  /// Whether there is such a level.
  public static boolean isLevel(String level) {
    return LIMITS.containsKey(level.toLowerCase(Locale.ROOT));
  }

  /// Works it out.
  ///
  /// @param open second
  /// @throws IllegalArgumentException when there is no such level, or `open` is below 0
  public static FloorLife of(String level, double open) {
    Double limit = LIMITS.get(level.toLowerCase(Locale.ROOT));
    if (limit == null) {
      throw new IllegalArgumentException(
          "a moisture level is one of "
              + String.join(", ", LIMITS.keySet())
              + ", got '"
              + level
              + "'");
    }
    return new FloorLife(level.toLowerCase(Locale.ROOT), Check.notNegative(open, "open"), limit);
  }

  /// Folds the bags of a code; a level that was never said is 3, the most usual.
  ///
  /// @param log of all boards by time, struck entries left out
  /// @return open time up to now, by instants; baking is a note of the maker's and resets nothing
  public static FloorLife fold(String code, List<Logged> log, Instant now) {
    String level = "3";
    Duration open = Duration.ZERO;
    Instant since = null;
    for (Logged l : log) {
      if (l.entry() instanceof Entry.Bag b && b.code().equals(code)) {
        Instant at = l.at().toInstant();
        level = b.level().isEmpty() ? level : b.level();
        if (since != null) {
          open = open.plus(Duration.between(since, at));
        }
        since = b.open() ? at : null;
      }
    }
    if (since != null) {
      open = open.plus(Duration.between(since, now));
    }
    return of(level, Math.max(0, open.toSeconds()));
  }

  /// Seconds that are left, not below 0.
  public double left() {
    return Math.max(0, limit - open);
  }

  /// Within; close in the last tenth; out beyond, and always for level 6.
  public Verdict verdict() {
    return limit == 0 || open > limit
        ? Verdict.OUT
        : open > 0.9 * limit ? Verdict.CLOSE : Verdict.WITHIN;
  }

  /// The working.
  public Worked.Builder on(Worked.Builder s) {
    s.line(
            "limit",
            "floor life of level " + level,
            Double.isInfinite(limit) ? "unlimited" : hours(limit))
        .line("open", "out of the bag in all", hours(open))
        .line("left", "limit − open", Double.isInfinite(limit) ? "unlimited" : hours(left()));
    if (verdict() == Verdict.OUT) {
      s.line(
          "advice",
          "",
          limit == 0
              ? "bake before use and reflow within the time of the label"
              : "bake before it is reflowed, as the label says");
    }
    return s.assume("at most 30 °C and 60 % humidity; the label on the bag rules")
        .caution("Not every reel or tray may be baked: the label and the data sheet say so.");
  }

  /// A length of time as hours or days.
  public static String hours(double s) {
    return s >= 48 * HOUR
        ? String.format(Locale.ROOT, "%.1f days", s / HOUR / 24)
        : String.format(Locale.ROOT, "%.1f h", s / HOUR);
  }
}
