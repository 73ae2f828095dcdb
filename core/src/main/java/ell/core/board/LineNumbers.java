package ell.core.board;

import java.util.AbstractList;
import java.util.Arrays;
import java.util.RandomAccess;

/// Line numbers of a file, held compactly: a large netlist has one for each of hundreds of
/// thousands of joints. Immutable.
public final class LineNumbers extends AbstractList<Integer> implements RandomAccess {
  private final int[] lines;

  private LineNumbers(int[] lines) {
    this.lines = lines;
  }

  /// The first `size` numbers of an array, copied.
  public static LineNumbers of(int[] lines, int size) {
    return new LineNumbers(Arrays.copyOf(lines, size));
  }

  @Override
  public Integer get(int index) {
    return lines[index];
  }

  @Override
  public int size() {
    return lines.length;
  }
}
