package ell.core.circuit;

import java.util.Arrays;

/// What elements write at some volts, an entry after the other, and the current that it makes flow
/// out of each node.
final class Written extends Stamp {
  int[] row = new int[1024];
  int[] column = new int[1024];
  double[] value = new double[1024];
  int count;
  private double[] volts = {};
  private double[] out = {};

  Written() {
    super(0, null);
  }

  /// Begins anew.
  ///
  /// @param v volts by node
  /// @param flows by node, added to
  void begin(double[] v, double[] flows) {
    count = 0;
    volts = v;
    out = flows;
  }

  @Override
  void put(int r, int c, double v) {
    if (count == row.length) {
      row = Arrays.copyOf(row, 2 * count);
      column = Arrays.copyOf(column, 2 * count);
      value = Arrays.copyOf(value, 2 * count);
    }
    row[count] = r;
    column[count] = c;
    value[count++] = v;
    out[r] += v * volts[c];
  }

  @Override
  void pull(int a, int b, double amps) {
    if (a >= 0) {
      out[a] += amps;
    }
    if (b >= 0) {
      out[b] -= amps;
    }
  }
}
