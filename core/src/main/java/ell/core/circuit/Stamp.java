package ell.core.circuit;

import java.util.Arrays;

/// Where the elements of a circuit write what they do: conductances and currents of the nodal
/// equations. An element writes the same things in the same order each time, so that a place in the
/// matrix is looked up once only.
///
/// What is written first and does not change while a moment is solved is held, and need not be
/// written again.
class Stamp {
  private final int nodes;
  private final double[] heldRight;
  private Pattern pattern;
  private int[] rows = {};
  private int[] columns = {};
  private int used;
  private int heldUsed;
  private double[] held = {};

  /// By place in the pattern.
  double[] values = {};

  final double[] right;

  /// @param known the pattern of a circuit that was written before, null for one that was not
  Stamp(int nodes, Pattern known) {
    this.nodes = nodes;
    right = new double[nodes];
    heldRight = new double[nodes];
    pattern = known;
    if (known == null) {
      rows = new int[8 * nodes + 64];
      columns = new int[rows.length];
    } else {
      room();
    }
  }

  private void room() {
    values = new double[pattern.column.length];
    held = new double[values.length];
  }

  /// The pattern, once everything was written for the first time.
  Pattern pattern() {
    if (pattern == null) {
      pattern = new Pattern(nodes, rows, columns, used);
      rows = new int[0];
      columns = rows;
      room();
    }
    return pattern;
  }

  /// Begins anew, with nothing held.
  void begin() {
    used = 0;
    Arrays.fill(values, 0);
    Arrays.fill(right, 0);
  }

  /// Begins anew with the conductances that are held, and no currents.
  void beginCurrents() {
    used = heldUsed;
    System.arraycopy(held, 0, values, 0, held.length);
    Arrays.fill(right, 0);
  }

  /// Holds what was written since it was begun.
  void hold() {
    heldUsed = used;
    System.arraycopy(values, 0, held, 0, held.length);
    System.arraycopy(right, 0, heldRight, 0, right.length);
  }

  /// Begins anew with what is held.
  void again() {
    used = heldUsed;
    System.arraycopy(held, 0, values, 0, held.length);
    System.arraycopy(heldRight, 0, right, 0, right.length);
  }

  /// Adds to a place of the matrix.
  void put(int row, int column, double v) {
    if (pattern != null) {
      values[pattern.places[used++]] += v;
      return;
    }
    if (used == rows.length) {
      rows = Arrays.copyOf(rows, 2 * used);
      columns = Arrays.copyOf(columns, 2 * used);
    }
    rows[used] = row;
    columns[used++] = column;
  }

  /// Siemens between two nodes.
  void conduct(int a, int b, double g) {
    if (a == b) {
      return;
    }
    if (a >= 0) {
      put(a, a, g);
    }
    if (b >= 0) {
      put(b, b, g);
    }
    if (a >= 0 && b >= 0) {
      put(a, b, -g);
      put(b, a, -g);
    }
  }

  /// A current from `a` to `b` of `g` for each volt between `plus` and `minus`.
  void control(int a, int b, int plus, int minus, double g) {
    if (a == b || plus == minus) {
      return;
    }
    if (a >= 0) {
      if (plus >= 0) {
        put(a, plus, g);
      }
      if (minus >= 0) {
        put(a, minus, -g);
      }
    }
    if (b >= 0) {
      if (plus >= 0) {
        put(b, plus, -g);
      }
      if (minus >= 0) {
        put(b, minus, g);
      }
    }
  }

  /// Amperes from `a` through the element to `b`, whatever the volts.
  void pull(int a, int b, double amps) {
    if (a >= 0) {
      right[a] -= amps;
    }
    if (b >= 0) {
      right[b] += amps;
    }
  }

  /// What flows out of each node too much at these volts: zero where Kirchhoff's law holds.
  void residual(double[] v, double[] out) {
    for (int i = 0; i < nodes; i++) {
      int node = pattern.node[i];
      double sum = -right[node];
      for (int k = pattern.rowStart[i]; k < pattern.rowStart[i + 1]; k++) {
        sum += values[k] * v[pattern.columnNode[k]];
      }
      out[node] = sum;
    }
  }

  /// The sum of the currents at each node by size, the measure of what is small there.
  void sizes(double[] v, double[] out) {
    for (int i = 0; i < nodes; i++) {
      int node = pattern.node[i];
      double sum = Math.abs(right[node]);
      for (int k = pattern.rowStart[i]; k < pattern.rowStart[i + 1]; k++) {
        sum += Math.abs(values[k] * v[pattern.columnNode[k]]);
      }
      out[node] = sum;
    }
  }
}
