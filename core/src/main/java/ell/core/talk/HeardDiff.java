package ell.core.talk;

import java.util.ArrayList;
import java.util.List;

/// What was heard against what a healthy board says, line by line.
///
/// @param lines in order
public record HeardDiff(List<Line> lines) {
  private static final int MOST = 2000;

  public HeardDiff {
    lines = List.copyOf(lines);
  }

  /// How a line stands.
  public enum How {
    /// In both, but for its numbers.
    SAME,
    /// A healthy board says it, this one does not.
    MISSING,
    /// This one says it, a healthy one does not.
    MORE
  }

  /// A line.
  public record Line(How how, String text) {
    /// As it is printed.
    public String words() {
      return switch (how) {
        case SAME -> "  " + text;
        case MISSING -> "- " + text;
        case MORE -> "+ " + text;
      };
    }
  }

  /// Compares; numbers may differ, empty lines do not count. Of very long texts the first 2,000
  /// lines.
  public static HeardDiff of(String healthy, String heard) {
    List<String> a = lines(healthy);
    List<String> b = lines(heard);
    int[][] same = new int[a.size() + 1][b.size() + 1];
    for (int i = a.size() - 1; i >= 0; i--) {
      for (int j = b.size() - 1; j >= 0; j--) {
        same[i][j] =
            alike(a.get(i), b.get(j))
                ? same[i + 1][j + 1] + 1
                : Math.max(same[i + 1][j], same[i][j + 1]);
      }
    }
    List<Line> all = new ArrayList<>();
    int i = 0;
    int j = 0;
    while (i < a.size() || j < b.size()) {
      if (i < a.size() && j < b.size() && alike(a.get(i), b.get(j))) {
        all.add(new Line(How.SAME, b.get(j)));
        i++;
        j++;
      } else if (j == b.size() || i < a.size() && same[i + 1][j] >= same[i][j + 1]) {
        all.add(new Line(How.MISSING, a.get(i++)));
      } else {
        all.add(new Line(How.MORE, b.get(j++)));
      }
    }
    return new HeardDiff(all);
  }

  /// Whether nothing is missing and nothing more is said.
  public boolean same() {
    return lines.stream().allMatch(l -> l.how() == How.SAME);
  }

  private static boolean alike(String a, String b) {
    return numberless(a).equals(numberless(b));
  }

  private static String numberless(String s) {
    return s.replaceAll("\\d+(?:[.,]\\d+)?", "#");
  }

  private static List<String> lines(String text) {
    return text.lines().map(String::strip).filter(l -> !l.isEmpty()).limit(MOST).toList();
  }
}
