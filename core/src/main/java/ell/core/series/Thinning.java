package ell.core.series;

import java.util.Arrays;

/// A series made small enough to draw without losing a spike: of the readings that fall in one
/// column of the picture the first, the least, the greatest and the last are kept, in their order
/// of time. A line through what is kept covers the same pixels as a line through all.
public final class Thinning {
  /// From so many readings on a pyramid is worth making.
  private static final int MANY = 200_000;

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
    if (s.even() && end - first > MANY) {
      return byPyramid(s, from, to, columns, first, end);
    }
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

  /// Many samples that are evenly apart: the extremes of each column by the pyramid, at the place
  /// of its first and last sample.
  private static int[] byPyramid(
      Series s, double from, double to, int columns, int first, int end) {
    Samples all = s.samples();
    Pyramid p = s.pyramid();
    int[] kept = new int[4 * (columns + 2)];
    int n = 0;
    double wide = (to - from) / columns;
    int i = first;
    for (int c = 0; c < columns && i < end; c++) {
      int until = c == columns - 1 ? end : Math.min(end, s.firstFrom(from + (c + 1) * wide));
      if (until <= i) {
        continue;
      }
      int low = find(all, p, i, until, 0);
      int high = find(all, p, i, until, 1);
      n = keep(kept, n, i);
      n = keep(kept, n, Math.min(low, high));
      n = keep(kept, n, Math.max(low, high));
      n = keep(kept, n, until - 1);
      i = until;
    }
    return Arrays.copyOf(kept, n);
  }

  /// Where the least or the greatest of a stretch is: the stretch is halved until it is short.
  private static int find(Samples s, Pyramid p, int from, int to, int which) {
    int a = from;
    int b = to;
    float wanted = p.range(s, a, b)[which];
    while (b - a > 2 * Pyramid.BLOCK) {
      // at the border of a block, so that no sample has to be looked at
      int middle = (a + b) / 2 / Pyramid.BLOCK * Pyramid.BLOCK;
      if (p.range(s, a, middle)[which] == wanted) {
        b = middle;
      } else {
        a = middle;
      }
    }
    for (int i = a; i < b; i++) {
      if (s.at(i) == wanted) {
        return i;
      }
    }
    return a;
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
