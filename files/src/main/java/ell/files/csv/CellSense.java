package ell.files.csv;

import java.util.List;
import java.util.regex.Pattern;

/// What the cells of a column look like, as the share of its cells that do. A heading may lie or
/// say nothing; what stands below it seldom does. Common practice, no source.
final class CellSense {
  private static final Pattern REFERENCES =
      Pattern.compile("(?:[A-Za-z]{1,5}+\\d{1,5}+[A-Za-z]?+|[-,;/.–—… ]|\\d{1,5}+)++");
  private static final Pattern FIRST = Pattern.compile("[A-Za-z]{1,5}+\\d{1,5}+[A-Za-z]?+\\b.*+");
  private static final Pattern VALUE =
      Pattern.compile(
          "(?i)[±+-]?+(?:\\d++(?:[.,]\\d++)?+|[.,]\\d++) ?+(?:[pnuµμmkMGR]|meg)?+(?:F|H|Hz|Ω|ohms?|R|V|A|W)?+"
              + "(?:[ /,;@(].*+)?+|(?i)\\d++[pnuµμrkmvhf]\\d++(?:[ /,;@(].*+)?+");
  private static final Pattern BARE = Pattern.compile("\\d{1,4}+");
  private static final Pattern PACKAGE =
      Pattern.compile(
          "(?i)(?:[^:]*+:)?+(?:[a-z]{1,5}+[_-]?+)?+(?:01005|0201|0402|0603|0805|1206|1210|1808|1812|2010|2512)"
              + "(?:[_ -].*+)?+"
              + "|(?i)(?:[^:]*+:)?+(?:[a-z]{1,2}_)?+(?:sot|soic|so|sop|ssop|tssop|msop|vssop|qfn|dfn|vqfn|wqfn|qfp|lqfp|tqfp|bga|wlcsp|"
              + "dip|pdip|to|sod|sma|smb|smc|do|sc|melf|minimelf|hc49|dpak|d2pak|lga|plcc|usb|sip)"
              + "[-_ ]?+\\d*+(?:[-_ x.()].*+)?+");

  private static final int SHORT = 3;
  private static final double DIFFERENT = 0.95;

  private CellSense() {}

  /// The share of cells that look like what a column of that meaning holds.
  ///
  /// @param cells that are not blank
  /// @return 0...1; NaN when cells of that meaning cannot be told by their looks, or there are none
  static double share(ColumnMeaning m, List<String> cells) {
    if (cells.isEmpty()) {
      return Double.NaN;
    }
    Pattern p =
        switch (m) {
          case REFERENCE -> REFERENCES;
          case VALUE -> VALUE;
          case PACKAGE -> PACKAGE;
          default -> null;
        };
    if (p == null) {
      return Double.NaN;
    }
    long like =
        cells.stream()
            .filter(c -> p.matcher(c).matches())
            .filter(c -> m != ColumnMeaning.REFERENCE || FIRST.matcher(c).matches())
            .filter(c -> m != ColumnMeaning.VALUE || !BARE.matcher(c).matches())
            .count();
    return (double) like / cells.size();
  }

  /// Whether cells only count the rows: 1, 2, 3, each one more than the one before.
  static boolean running(List<String> cells) {
    long before = Long.MIN_VALUE;
    for (String c : cells) {
      String t = c.endsWith(".") ? c.substring(0, c.length() - 1) : c;
      if (!t.matches("\\d{1,6}+")) {
        return false;
      }
      long n = Long.parseLong(t);
      if (before != Long.MIN_VALUE && n != before + 1) {
        return false;
      }
      before = n;
    }
    return cells.size() > 1 && before <= cells.size();
  }

  /// Whether cells may be codes to order by: no running numbers, and nearly all of them different:
  /// parts that share a code would be one.
  static boolean codes(List<String> cells) {
    return !running(cells)
        && cells.stream().distinct().count() >= DIFFERENT * cells.size()
        && cells.stream().anyMatch(c -> c.length() > SHORT);
  }
}
