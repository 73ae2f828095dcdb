package ell.core.power;

import ell.core.board.Part;
import java.util.Locale;
import java.util.OptionalDouble;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// The current that the words of a part name: `600 mA`, `1A`, `1.5 A`. Common practice, no source.
final class RatedAmps {
  private static final Pattern AMPS =
      Pattern.compile("(?<![\\w.])(\\d{1,4}(?:[.,]\\d{1,2})?)\\s?(M?)A(?![A-Z0-9H])");

  private RatedAmps() {}

  /// Ampere, empty when none or several are named.
  static OptionalDouble of(Part p) {
    Matcher m = AMPS.matcher((p.value() + " ; " + p.description()).toUpperCase(Locale.ROOT));
    double found = Double.NaN;
    while (m.find()) {
      double a =
          Double.parseDouble(m.group(1).replace(',', '.')) * (m.group(2).isEmpty() ? 1 : 1e-3);
      if (!Double.isNaN(found) && found != a) {
        return OptionalDouble.empty();
      }
      found = a;
    }
    return found > 0 && found <= 100 ? OptionalDouble.of(found) : OptionalDouble.empty();
  }
}
