package ell.core.circuit;

import java.util.Arrays;
import java.util.PriorityQueue;

/// Which places of a sparse matrix are not nothing, those included that become so when it is
/// factored, and the order in which its unknowns are: the node with the fewest neighbours first
/// (Tinney and Walker, 1967). Both halves of the matrix have the same places.
///
/// Found once for a circuit; a matrix of this pattern is an array of numbers by place.
final class Pattern {
  final int size;

  /// The node at each row of the order.
  final int[] node;

  /// Where each node is in the order.
  private final int[] seat;

  /// Where each row begins among the places; one more for the end. Columns ascend in a row.
  final int[] rowStart;

  /// The column of each place, by the order.
  final int[] column;

  /// The node of each place's column.
  final int[] columnNode;

  /// The place of each row's diagonal.
  final int[] diagonal;

  /// The place to which each entry goes that it was made from.
  final int[] places;

  /// @param n unknowns
  /// @param rows of each entry; entries may share a place, and are added
  /// @param columns of each entry
  /// @param entries how many of them there are
  Pattern(int n, int[] rows, int[] columns, int entries) {
    size = n;
    Neighbours near = new Neighbours(n, rows, columns, entries);
    seat = new int[n];
    node = near.order(seat);
    int[] length = new int[n];
    for (int i = 0; i < n; i++) {
      int[] above = near.above[node[i]];
      length[i] += 1 + above.length;
      for (int k = 0; k < above.length; k++) {
        above[k] = seat[above[k]];
        length[above[k]]++;
      }
      Arrays.sort(above);
    }
    rowStart = new int[n + 1];
    for (int i = 0; i < n; i++) {
      rowStart[i + 1] = rowStart[i] + length[i];
    }
    column = new int[rowStart[n]];
    diagonal = new int[n];
    int[] next = Arrays.copyOf(rowStart, n);
    for (int i = 0; i < n; i++) {
      diagonal[i] = next[i]; // the rows before have put all that is left of it
      column[next[i]++] = i;
      for (int c : near.above[node[i]]) {
        column[next[i]++] = c;
        column[next[c]++] = i;
      }
    }
    columnNode = new int[column.length];
    for (int k = 0; k < column.length; k++) {
      columnNode[k] = node[column[k]];
    }
    places = new int[entries];
    for (int i = 0; i < entries; i++) {
      int row = seat[rows[i]];
      places[i] = Arrays.binarySearch(column, rowStart[row], rowStart[row + 1], seat[columns[i]]);
    }
  }

  /// The place of a row and a column, by their nodes; below 0 where it has none.
  int place(int row, int columnOf) {
    return Arrays.binarySearch(
        column, rowStart[seat[row]], rowStart[seat[row] + 1], seat[columnOf]);
  }

  /// Who is joined to whom, while nodes are taken out one after the other.
  private static final class Neighbours {
    private final int n;
    private final int[][] near;
    private final int[] count;
    private final int[] seen;
    private int mark;

    /// The neighbours that each node had when it was taken out.
    final int[][] above;

    Neighbours(int n, int[] rows, int[] columns, int entries) {
      this.n = n;
      near = new int[n][4];
      count = new int[n];
      seen = new int[n];
      above = new int[n][];
      for (int i = 0; i < entries; i++) {
        if (rows[i] != columns[i]) {
          add(rows[i], columns[i]);
          add(columns[i], rows[i]);
        }
      }
      for (int i = 0; i < n; i++) {
        Arrays.sort(near[i], 0, count[i]);
        int kept = 0;
        for (int k = 0; k < count[i]; k++) {
          if (kept == 0 || near[i][kept - 1] != near[i][k]) {
            near[i][kept++] = near[i][k];
          }
        }
        count[i] = kept;
      }
    }

    private void add(int to, int which) {
      if (count[to] == near[to].length) {
        near[to] = Arrays.copyOf(near[to], 2 * count[to]);
      }
      near[to][count[to]++] = which;
    }

    /// Takes all of them out.
    ///
    /// @param seat where each comes to; filled
    int[] order(int[] seat) {
      PriorityQueue<Long> queue = new PriorityQueue<>(2 * n + 1);
      for (int i = 0; i < n; i++) {
        queue.add(ticket(i));
      }
      int[] order = new int[n];
      int at = 0;
      while (at < n) {
        long ticket = queue.remove();
        int s = (int) ticket;
        if (above[s] != null || ticket != ticket(s)) {
          continue; // it has another since
        }
        int[] ring = Arrays.copyOf(near[s], count[s]);
        above[s] = ring;
        seat[s] = at;
        order[at++] = s;
        for (int a : ring) {
          join(a, s, ring);
          queue.add(ticket(a));
        }
      }
      return order;
    }

    /// Few neighbours first; of as many, the node that came first.
    private long ticket(int i) {
      return (long) count[i] << Integer.SIZE | i;
    }

    /// Joins a node to a ring in place of the one that goes.
    private void join(int a, int goes, int[] ring) {
      mark++;
      seen[a] = mark;
      int kept = 0;
      for (int k = 0; k < count[a]; k++) {
        int b = near[a][k];
        if (b != goes) {
          seen[b] = mark;
          near[a][kept++] = b;
        }
      }
      count[a] = kept;
      for (int b : ring) {
        if (seen[b] != mark) {
          add(a, b);
        }
      }
    }
  }
}
