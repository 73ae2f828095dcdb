package ell.core.print;

import ell.core.json.JsonObject;
import ell.core.quantity.Check;
import java.time.Duration;

/// What a jar's own data sheet allows. Where nobody typed it in, values are typical, no source.
///
/// @param warm how long it warms closed before it is opened
/// @param foil how long paste may lie on the foil
/// @param out how long it may be out of the cold in all
/// @param typical whether these are guesses
public record JarRules(Duration warm, Duration foil, Duration out, boolean typical) {
  /// Where no data sheet was typed in: 4 h, 8 h, 7 days.
  public static final JarRules TYPICAL =
      new JarRules(Duration.ofHours(4), Duration.ofHours(8), Duration.ofDays(7), true);

  /// Reads `{"warmHours":4,"foilHours":8,"outHours":168}`; what is left out is typical.
  ///
  /// @throws IllegalArgumentException with a sentence
  public static JarRules read(JsonObject o) {
    return new JarRules(
        hours(o, "warmHours", TYPICAL.warm()),
        hours(o, "foilHours", TYPICAL.foil()),
        hours(o, "outHours", TYPICAL.out()),
        false);
  }

  private static Duration hours(JsonObject o, String key, Duration otherwise) {
    double h = o.number(key, otherwise.toSeconds() / 3600.0);
    return Duration.ofSeconds(Math.round(3600 * Check.inRange(h, 0, 1e5, key)));
  }
}
