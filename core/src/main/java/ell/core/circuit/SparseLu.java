package ell.core.circuit;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.PriorityQueue;
import java.util.TreeSet;

/// A sparse matrix of one pattern, factored again and again with other values. The order of the
/// unknowns is found once: the node with the fewest neighbours first (Tinney and Walker, 1967).
/// Pivots are taken from the diagonal, which the nodes of a circuit with resistance everywhere
/// allow; what the solution misses is told by whoever holds it against the matrix.
///
/// A library would order and allocate anew for each of some thousand solves of a transient.
final class SparseLu {
  private static final double LEAST_PIVOT = 1e-18;

  private final int n;
  private final int[] place; // of a node in the order
  private final int[] rowStart; // of the factors, columns ascending in a row
  private final int[] column;
  private final int[] diagonal;
  private final double[] value;
  private final int[] slotRow; // place of each slot of the matrix
  private final int[] slotColumn;
  private final int[] slotStart; // slots by row
  private final int[] slotOrder;
  private final double[] work;
  private final double[] held;

  /// @param n unknowns
  /// @param rows of each slot; slots may share a place, and are added
  /// @param columns of each slot
  SparseLu(int n, int[] rows, int[] columns) {
    this.n = n;
    place = order(n, rows, columns);
    slotRow = new int[rows.length];
    slotColumn = new int[rows.length];
    for (int i = 0; i < rows.length; i++) {
      slotRow[i] = place[rows[i]];
      slotColumn[i] = place[columns[i]];
    }
    slotStart = new int[n + 1];
    for (int r : slotRow) {
      slotStart[r + 1]++;
    }
    for (int i = 0; i < n; i++) {
      slotStart[i + 1] += slotStart[i];
    }
    int[] next = Arrays.copyOf(slotStart, n);
    slotOrder = new int[rows.length];
    for (int i = 0; i < rows.length; i++) {
      slotOrder[next[slotRow[i]]++] = i;
    }
    List<TreeSet<Integer>> fill = filled(n, slotRow, slotColumn);
    rowStart = new int[n + 1];
    for (int i = 0; i < n; i++) {
      rowStart[i + 1] = rowStart[i] + fill.get(i).size();
    }
    column = new int[rowStart[n]];
    diagonal = new int[n];
    int at = 0;
    for (int i = 0; i < n; i++) {
      for (int c : fill.get(i)) {
        if (c == i) {
          diagonal[i] = at;
        }
        column[at++] = c;
      }
    }
    value = new double[column.length];
    work = new double[n];
    held = new double[n];
  }

  private record Seat(int node, int neighbours) {}

  private static int[] order(int n, int[] rows, int[] columns) {
    List<TreeSet<Integer>> near = new ArrayList<>(n);
    for (int i = 0; i < n; i++) {
      near.add(new TreeSet<>());
    }
    for (int i = 0; i < rows.length; i++) {
      if (rows[i] != columns[i]) {
        near.get(rows[i]).add(columns[i]);
        near.get(columns[i]).add(rows[i]);
      }
    }
    PriorityQueue<Seat> queue =
        new PriorityQueue<>((a, b) -> Integer.compare(a.neighbours(), b.neighbours()));
    for (int i = 0; i < n; i++) {
      queue.add(new Seat(i, near.get(i).size()));
    }
    int[] place = new int[n];
    Arrays.fill(place, -1);
    int at = 0;
    while (!queue.isEmpty()) {
      Seat s = queue.poll();
      if (place[s.node()] >= 0 || s.neighbours() != near.get(s.node()).size()) {
        continue; // it was seated anew since
      }
      place[s.node()] = at++;
      int[] ring = near.get(s.node()).stream().mapToInt(Integer::intValue).toArray();
      for (int a : ring) {
        TreeSet<Integer> own = near.get(a);
        own.remove(s.node());
        for (int b : ring) {
          if (a != b) {
            own.add(b);
          }
        }
        queue.add(new Seat(a, own.size()));
      }
    }
    return place;
  }

  /// What each row holds once it is factored, the other half of the pattern included.
  private static List<TreeSet<Integer>> filled(int n, int[] rows, int[] columns) {
    List<TreeSet<Integer>> fill = new ArrayList<>(n);
    for (int i = 0; i < n; i++) {
      fill.add(new TreeSet<>(List.of(i)));
    }
    for (int i = 0; i < rows.length; i++) {
      fill.get(rows[i]).add(columns[i]);
      fill.get(columns[i]).add(rows[i]);
    }
    for (int i = 0; i < n; i++) {
      Integer[] ring = fill.get(i).tailSet(i, false).toArray(Integer[]::new);
      for (Integer a : ring) {
        for (Integer b : ring) {
          fill.get(a).add(b);
        }
      }
    }
    return fill;
  }

  /// Factors the matrix with these values in its slots.
  void factor(double[] slots) {
    for (int i = 0; i < n; i++) {
      for (int k = slotStart[i]; k < slotStart[i + 1]; k++) {
        int slot = slotOrder[k];
        work[slotColumn[slot]] += slots[slot];
      }
      for (int k = rowStart[i]; k < diagonal[i]; k++) {
        int c = column[k];
        double factor = work[c] * value[diagonal[c]]; // which holds one over the pivot
        work[c] = factor;
        if (factor != 0) {
          for (int m = diagonal[c] + 1; m < rowStart[c + 1]; m++) {
            work[column[m]] -= factor * value[m];
          }
        }
      }
      for (int k = rowStart[i]; k < rowStart[i + 1]; k++) {
        value[k] = work[column[k]];
        work[column[k]] = 0;
      }
      double pivot = value[diagonal[i]];
      value[diagonal[i]] = 1 / (Math.abs(pivot) < LEAST_PIVOT ? LEAST_PIVOT : pivot);
    }
  }

  /// Solves with the last factors.
  ///
  /// @param right by node; stays
  /// @param out by node
  void solve(double[] right, double[] out) {
    for (int i = 0; i < n; i++) {
      held[place[i]] = right[i];
    }
    for (int i = 0; i < n; i++) {
      double sum = held[i];
      for (int k = rowStart[i]; k < diagonal[i]; k++) {
        sum -= value[k] * held[column[k]];
      }
      held[i] = sum;
    }
    for (int i = n - 1; i >= 0; i--) {
      double sum = held[i];
      for (int k = diagonal[i] + 1; k < rowStart[i + 1]; k++) {
        sum -= value[k] * held[column[k]];
      }
      held[i] = sum * value[diagonal[i]];
    }
    for (int i = 0; i < n; i++) {
      out[i] = held[place[i]];
    }
  }
}
