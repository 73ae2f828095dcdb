package ell.core.circuit;

import java.util.Arrays;

/// Where the elements of a circuit write what they do: conductances and currents of the nodal
/// equations. An element writes the same things in the same order each time, so that a place in the
/// matrix is looked up once only.
final class Stamp {
  private final int nodes;
  private int[] rows;
  private int[] columns;
  private int used;
  private boolean learning = true;
  double[] slots;
  final double[] right;

  Stamp(int nodes) {
    this.nodes = nodes;
    rows = new int[8 * nodes + 64];
    columns = new int[rows.length];
    slots = new double[rows.length];
    right = new double[nodes];
  }

  void begin() {
    used = 0;
    Arrays.fill(right, 0);
  }

  /// The pattern, once everything was written for the first time.
  SparseLu matrix() {
    learning = false;
    rows = Arrays.copyOf(rows, used);
    columns = Arrays.copyOf(columns, used);
    slots = Arrays.copyOf(slots, used);
    return new SparseLu(nodes, rows, columns);
  }

  private void put(int row, int column, double v) {
    if (learning) {
      if (used == rows.length) {
        rows = Arrays.copyOf(rows, 2 * used);
        columns = Arrays.copyOf(columns, 2 * used);
        slots = Arrays.copyOf(slots, 2 * used);
      }
      rows[used] = row;
      columns[used] = column;
    }
    slots[used++] = v;
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
    for (int i = 0; i < out.length; i++) {
      out[i] = -right[i];
    }
    for (int i = 0; i < used; i++) {
      out[rows[i]] += slots[i] * v[columns[i]];
    }
  }

  /// The sum of the currents at each node by size, the measure of what is small there.
  void sizes(double[] v, double[] out) {
    for (int i = 0; i < out.length; i++) {
      out[i] = Math.abs(right[i]);
    }
    for (int i = 0; i < used; i++) {
      out[rows[i]] += Math.abs(slots[i] * v[columns[i]]);
    }
  }
}
