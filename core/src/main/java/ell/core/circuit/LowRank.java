package ell.core.circuit;

import java.util.Arrays;

/// Solves with a factored matrix of which a few places are different: by the formula of Sherman,
/// Morrison and Woodbury, over the columns of its inverse at the rows that changed, which are kept.
///
/// Unknowns beyond those of the matrix are joined to nothing but the reference, by [Newton#LEAK].
final class LowRank {
  /// More rows are not few.
  static final int MOST = 96;

  private final SparseLu base;
  private final int n;
  private final double[][] columns;
  private final double[] unit;
  private final int[] local;
  private final int[] rows = new int[MOST];
  private int count;
  private final double[][] change = new double[MOST][MOST];
  private final double[][] small = new double[MOST][MOST + 1];
  private final double[] out;
  private final int[] used = new int[MOST];

  LowRank(SparseLu base, int n, int more) {
    this.base = base;
    this.n = n;
    columns = new double[n][];
    unit = new double[n];
    out = new double[n];
    local = new int[n + more];
    Arrays.fill(local, -1);
  }

  /// Begins with no change.
  void begin() {
    for (int i = 0; i < count; i++) {
      local[rows[i]] = -1;
      Arrays.fill(change[i], 0, count, 0);
    }
    count = 0;
  }

  private int local(int node) {
    if (local[node] < 0) {
      local[node] = count;
      rows[count++] = node;
    }
    return local[node];
  }

  /// Whether two more nodes may be changed.
  boolean room() {
    return count < MOST - 2;
  }

  /// Adds to a place.
  void add(int row, int column, double v) {
    int r = local(row);
    int c = local(column);
    change[r][c] += v;
  }

  /// A column of the inverse of the matrix as it was factored.
  double[] column(int node) {
    if (columns[node] == null) {
      unit[node] = 1;
      double[] c = new double[n];
      base.solve(unit, c);
      unit[node] = 0;
      columns[node] = c;
    }
    return columns[node];
  }

  private double inverse(int row, int column) {
    if (column >= n) {
      return row == column ? 1 / Newton.LEAK : 0;
    }
    return row >= n ? 0 : column(column)[row];
  }

  /// Solves.
  ///
  /// @param right by node, those beyond the matrix too
  /// @param x as many; the result
  /// @return false when it has no solution
  boolean solve(double[] right, double[] x) {
    base.solve(right, out);
    System.arraycopy(out, 0, x, 0, n);
    for (int i = n; i < right.length; i++) {
      x[i] = right[i] / Newton.LEAK;
    }
    if (count == 0) {
      return true;
    }
    for (int i = 0; i < count; i++) {
      double[] row = small[i];
      double sum = 0;
      int some = 0;
      for (int c = 0; c < count; c++) {
        if (change[i][c] != 0) {
          sum += change[i][c] * x[rows[c]];
          used[some++] = c;
        }
      }
      for (int k = 0; k < count; k++) {
        double s = i == k ? 1 : 0;
        for (int c = 0; c < some; c++) {
          s += change[i][used[c]] * inverse(rows[used[c]], rows[k]);
        }
        row[k] = s;
      }
      row[count] = sum;
    }
    if (!eliminate()) {
      return false;
    }
    for (int k = 0; k < count; k++) {
      double w = small[k][count];
      if (w == 0) {
        continue;
      }
      if (rows[k] >= n) {
        x[rows[k]] -= w / Newton.LEAK;
        continue;
      }
      double[] c = column(rows[k]);
      for (int i = 0; i < n; i++) {
        x[i] -= w * c[i];
      }
    }
    return true;
  }

  private boolean eliminate() {
    for (int k = 0; k < count; k++) {
      int best = k;
      for (int i = k + 1; i < count; i++) {
        if (Math.abs(small[i][k]) > Math.abs(small[best][k])) {
          best = i;
        }
      }
      double[] pivot = small[best];
      small[best] = small[k];
      small[k] = pivot;
      if (!(Math.abs(pivot[k]) > 1e-300)) {
        return false;
      }
      for (int i = k + 1; i < count; i++) {
        double f = small[i][k] / pivot[k];
        if (f != 0) {
          for (int c = k + 1; c <= count; c++) {
            small[i][c] -= f * pivot[c];
          }
        }
      }
    }
    for (int k = count - 1; k >= 0; k--) {
      double sum = small[k][count];
      for (int c = k + 1; c < count; c++) {
        sum -= small[k][c] * small[c][count];
      }
      small[k][count] = sum / small[k][k];
    }
    return true;
  }
}
