package ell.core.circuit;

/// A sparse matrix of one pattern, factored again and again with other values. Pivots are taken
/// from the diagonal, which the nodes of a circuit with resistance everywhere allow; what the
/// solution misses is told by whoever holds it against the matrix.
///
/// A library would order and allocate anew for each of some thousand solves of a transient.
final class SparseLu {
  private static final double LEAST_PIVOT = 1e-18;

  private final Pattern at;
  private final double[] value;
  private final double[] work;
  private final double[] held;

  SparseLu(Pattern pattern) {
    at = pattern;
    value = new double[pattern.column.length];
    work = new double[pattern.size];
    held = new double[pattern.size];
  }

  /// Factors the matrix of these values by place, which stay.
  void factor(double[] values) {
    int[] column = at.column;
    for (int i = 0; i < at.size; i++) {
      int begin = at.rowStart[i];
      int end = at.rowStart[i + 1];
      for (int k = begin; k < end; k++) {
        work[column[k]] = values[k];
      }
      for (int k = begin; k < at.diagonal[i]; k++) {
        int c = column[k];
        double factor = work[c] * value[at.diagonal[c]]; // which holds one over the pivot
        work[c] = factor;
        if (factor != 0) {
          for (int m = at.diagonal[c] + 1; m < at.rowStart[c + 1]; m++) {
            work[column[m]] -= factor * value[m];
          }
        }
      }
      for (int k = begin; k < end; k++) {
        value[k] = work[column[k]];
      }
      double pivot = value[at.diagonal[i]];
      value[at.diagonal[i]] = 1 / (Math.abs(pivot) < LEAST_PIVOT ? LEAST_PIVOT : pivot);
    }
  }

  /// Solves with the last factors.
  ///
  /// @param right by node; stays
  /// @param out by node
  void solve(double[] right, double[] out) {
    int[] column = at.column;
    for (int i = 0; i < at.size; i++) {
      double sum = right[at.node[i]];
      for (int k = at.rowStart[i]; k < at.diagonal[i]; k++) {
        sum -= value[k] * held[column[k]];
      }
      held[i] = sum;
    }
    for (int i = at.size - 1; i >= 0; i--) {
      double sum = held[i];
      for (int k = at.diagonal[i] + 1; k < at.rowStart[i + 1]; k++) {
        sum -= value[k] * held[column[k]];
      }
      held[i] = sum * value[at.diagonal[i]];
      out[at.node[i]] = held[i];
    }
  }
}
