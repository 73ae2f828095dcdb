package ell.core.power;

import ell.core.board.Part;
import java.util.Locale;
import java.util.OptionalDouble;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// The output that the words of a regulator name: `3V3`, `5.0V`, `LIN 3.3`. A bare number without a
/// point or a V names nothing, for it may be a type. Common practice, no source.
final class RegulatorVolts {
  private static final Pattern NAMED =
      Pattern.compile(
          "(?<![\\d.])(?:(\\d{1,2})V(\\d)(?!\\d)|(\\d{1,2}\\.\\d{1,2})\\s?V?\\b|(\\d{1,2})\\s?V\\b)");

  private RegulatorVolts() {}

  /// Volts, empty when none or several are named.
  static OptionalDouble of(Part p) {
    Matcher m =
        NAMED.matcher(
            (p.value() + " ; " + p.code() + " ; " + p.description()).toUpperCase(Locale.ROOT));
    double v = Double.NaN;
    while (m.find()) {
      double one =
          m.group(1) != null
              ? Double.parseDouble(m.group(1) + "." + m.group(2))
              : Double.parseDouble(m.group(3) != null ? m.group(3) : m.group(4));
      if (!Double.isNaN(v) && v != one) {
        return OptionalDouble.empty();
      }
      v = one;
    }
    return v > 0 && v <= 48 ? OptionalDouble.of(v) : OptionalDouble.empty();
  }
}
