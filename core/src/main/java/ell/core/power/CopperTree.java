package ell.core.power;

import ell.core.board.Joint;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/// Copper of a net of which only the joints are known: tracks of several widths, laid square, that
/// join each joint to the nearest one that is joined already. For simulated boards.
public final class CopperTree {
  /// Ohms of a square of 35 µm copper, at 1.724e-8 Ω·m (IACS).
  private static final double SQUARE_OHM = 1.724e-8 / 35e-6;

  private static final double[] WIDTHS_MM = {0.3, 0.5, 0.5, 1, 2};

  private final List<Joint> joints;
  private final int[] from;
  private final double[] ohms;

  /// @param joints of one net
  /// @param random the widths
  public CopperTree(List<Joint> joints, Random random) {
    this.joints = List.copyOf(joints);
    int n = joints.size();
    from = new int[n];
    ohms = new double[n];
    double[] near = new double[n];
    int[] by = new int[n];
    boolean[] in = new boolean[n];
    java.util.Arrays.fill(near, Double.POSITIVE_INFINITY);
    for (int step = 0, at = 0; step < n; step++) {
      in[at] = true;
      int next = -1;
      for (int j = 0; j < n; j++) {
        if (in[j]) {
          continue;
        }
        double mm = square(joints.get(at), joints.get(j));
        if (mm < near[j]) {
          near[j] = mm;
          by[j] = at;
        }
        next = next < 0 || near[j] < near[next] ? j : next;
      }
      if (next >= 0) {
        from[next] = by[next];
        ohms[next] = SQUARE_OHM * near[next] / WIDTHS_MM[random.nextInt(WIDTHS_MM.length)];
        at = next;
      }
    }
  }

  private static double square(Joint a, Joint b) {
    return Math.abs(a.xMm() - b.xMm()) + Math.abs(a.yMm() - b.yMm());
  }

  /// Ohms along the copper between two of its joints.
  ///
  /// @throws IllegalArgumentException when one is not on it
  public double ohms(Joint a, Joint b) {
    List<Integer> up = up(index(a));
    int at = index(b);
    double sum = 0;
    while (!up.contains(at)) {
      sum += ohms[at];
      at = from[at];
    }
    for (int i : up) {
      if (i == at) {
        return sum;
      }
      sum += ohms[i];
    }
    throw new IllegalStateException("the copper is no tree");
  }

  private int index(Joint j) {
    for (int i = 0; i < joints.size(); i++) {
      if (joints.get(i).place().equals(j.place())) {
        return i;
      }
    }
    throw new IllegalArgumentException(j.place() + " is not on this copper");
  }

  /// A joint and those between it and the first one.
  private List<Integer> up(int at) {
    List<Integer> up = new ArrayList<>(List.of(at));
    while (at != 0) {
      at = from[at];
      up.add(at);
    }
    return up;
  }
}
