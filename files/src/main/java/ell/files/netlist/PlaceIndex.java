package ell.files.netlist;

import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;

/// Which record first named a joint: part and pin by their numbers, to the index of the record.
/// Parts stand together in a netlist, so each has a small row of its pins; pins of high numbers,
/// which only strange files have, go to a map so that no row grows without bound.
final class PlaceIndex {
  private static final int IN_ROW = 4096;
  private static final int FEW = 8;
  private static final int MANY = 64;

  private int[][] rows = new int[1 << 10][];

  /// The highest pin since the last row was made: neighbours often have as many.
  private int highest;

  private final Map<Long, Integer> others = new HashMap<>();

  /// Remembers the first record of a joint.
  ///
  /// @return the record that named it before, -1 when this is the first
  int putIfAbsent(int part, int pin, int index) {
    if (pin >= IN_ROW) {
      Integer before = others.putIfAbsent((long) part << 32 | pin, index);
      return before == null ? -1 : before;
    }
    if (part >= rows.length) {
      rows = Arrays.copyOf(rows, Math.max(part + 1, 2 * rows.length));
    }
    int[] row = rows[part];
    if (row == null || pin >= row.length) {
      if (row == null) {
        row = new int[Math.max(pin, Math.min(highest, MANY)) + 1];
        highest = 0;
      } else {
        row = Arrays.copyOf(row, pin + pin / 2 + FEW);
      }
      rows[part] = row;
    }
    highest = Math.max(highest, pin);
    int before = row[pin] - 1;
    if (before < 0) {
      row[pin] = index + 1;
    }
    return before;
  }
}
