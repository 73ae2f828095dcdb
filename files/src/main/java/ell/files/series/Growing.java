package ell.files.series;

import java.util.ArrayList;
import java.util.List;

/// Numbers of which nobody knows how many will come: kept in blocks, so that what is there is not
/// copied each time that there are more.
final class Growing {
  private static final int BLOCK = 1 << 13;

  private final List<double[]> full = new ArrayList<>();
  private double[] block = new double[BLOCK];
  private int used;

  void add(double v) {
    if (used == BLOCK) {
      full.add(block);
      block = new double[BLOCK];
      used = 0;
    }
    block[used++] = v;
  }

  /// All of them, once; nothing is left behind.
  double[] take() {
    double[] all = new double[full.size() * BLOCK + used];
    for (int i = 0; i < full.size(); i++) {
      System.arraycopy(full.set(i, null), 0, all, i * BLOCK, BLOCK);
    }
    System.arraycopy(block, 0, all, full.size() * BLOCK, used);
    full.clear();
    used = 0;
    return all;
  }
}
