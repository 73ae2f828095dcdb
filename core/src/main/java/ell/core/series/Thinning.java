package ell.core.series;

import java.util.Arrays;

/// A series made small enough to draw without losing a spike: of the readings that fall in one
/// column of the picture the first, the least, the greatest and the last are kept, in their order
/// of time. A line through what is kept covers the same pixels as a line through all.
public final class Thinning {
  private Thinning() {}

  /// Which readings to draw, as rising indices.
  ///
  /// @param s the series
  /// @param from second at the left edge
  /// @param to second at the right edge, greater
  /// @param columns of the picture, at least 1
  /// @return at most `4 * (columns + 2)`; with the nearest reading beyond either edge, so that the
  ///   line runs to the edge
  /// @throws IllegalArgumentException when there is no width
  public static int[] of(Series s, double from, double to, int columns) {
    if (columns < 1 || !(to > from)) {
      throw new IllegalArgumentException("no width: " + from + " s to " + to + " s on " + columns);
    }
    int first = Math.max(0, s.firstFrom(from) - 1);
    int end = Math.min(s.size(), s.firstFrom(to) + 1);
    if (end - first <= 4L * columns) {
      int[] all = new int[Math.max(0, end - first)];
      Arrays.setAll(all, i -> first + i);
      return all;
    }
    int[] kept = new int[4 * (columns + 2)];
    int n = 0;
    int i = first;
    while (i < end) {
      long column = column(s.second(i), from, to, columns);
      int low = i;
      int high = i;
      int j = i;
      while (j < end && column(s.second(j), from, to, columns) == column) {
        low = s.value(j) < s.value(low) ? j : low;
        high = s.value(j) > s.value(high) ? j : high;
        j++;
      }
      n = keep(kept, n, i);
      n = keep(kept, n, Math.min(low, high));
      n = keep(kept, n, Math.max(low, high));
      n = keep(kept, n, j - 1);
      i = j;
    }
    return Arrays.copyOf(kept, n);
  }

  private static long column(double t, double from, double to, int columns) {
    return Math.clamp((long) Math.floor((t - from) / (to - from) * columns), -1, columns);
  }

  private static int keep(int[] kept, int n, int i) {
    if (n > 0 && kept[n - 1] >= i) {
      return n;
    }
    kept[n] = i;
    return n + 1;
  }
}
