package ell.bench.sim;

import java.util.regex.Pattern;

/// SCPI header patterns: `MEASure:VOLTage[:DC]?` matches `MEAS:VOLT?`, `measure:voltage:dc?` and
/// what lies between. Source: SCPI-99, 6.2 (long and short forms).
final class Pattern488 {
  private Pattern488() {}

  /// A regular expression for a header and, for commands, one argument.
  static Pattern of(String header) {
    StringBuilder s = new StringBuilder("(?i):?");
    for (int i = 0; i < header.length(); ) {
      char c = header.charAt(i);
      if (Character.isLowerCase(c)) {
        int j = i;
        while (j < header.length() && Character.isLowerCase(header.charAt(j))) {
          j++;
        }
        s.append("(?:").append(header, i, j).append(")?");
        i = j;
        continue;
      }
      s.append(
          c == '[' ? "(?:" : c == ']' ? ")?" : c == '?' || c == '*' ? "\\" + c : String.valueOf(c));
      i++;
    }
    return Pattern.compile(s.append("(?:\\s+(.*))?").toString());
  }
}
