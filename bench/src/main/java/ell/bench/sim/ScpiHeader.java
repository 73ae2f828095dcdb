package ell.bench.sim;

import ell.bench.sim.ScpiStatus.Refused;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// A command's header: `MEASure:VOLTage[:DC]?` is `MEAS:VOLT?`, `measure:voltage:dc?` and what lies
/// between, each word in its long or its short form and nothing between them, with or without the
/// suffix 1. Source: SCPI-99 volume 1, 6.2.1 to 6.2.5 (from memory).
final class ScpiHeader {
  private final Pattern pattern;

  /// @param header upper case is the short form, brackets hold what may be left out
  ScpiHeader(String header) {
    StringBuilder s = new StringBuilder("(?i)");
    for (int i = 0; i < header.length(); ) {
      char c = header.charAt(i);
      if (Character.isUpperCase(c)) {
        int upper = i;
        while (upper < header.length() && Character.isUpperCase(header.charAt(upper))) {
          upper++;
        }
        int lower = upper;
        while (lower < header.length() && Character.isLowerCase(header.charAt(lower))) {
          lower++;
        }
        s.append(header, i, upper);
        if (lower > upper) {
          s.append("(?:").append(header, upper, lower).append(")?");
        }
        s.append("\\d*");
        i = lower;
        continue;
      }
      s.append(c == '[' ? "(?:" : c == ']' ? ")?" : c == '?' ? "\\?" : String.valueOf(c));
      i++;
    }
    pattern = Pattern.compile(s.toString());
  }

  /// Whether a whole header, from the root, means this command.
  ///
  /// @throws Refused when it does, and speaks of a channel that is not there
  boolean is(String header) {
    if (!pattern.matcher(header).matches()) {
      return false;
    }
    Matcher suffix = SUFFIX.matcher(header);
    while (suffix.find()) {
      if (!suffix.group().equals("1")) {
        throw new Refused(-114, "Header suffix out of range");
      }
    }
    return true;
  }

  private static final Pattern SUFFIX = Pattern.compile("\\d+");
}
