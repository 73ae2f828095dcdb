package ell.core.prove;

import ell.core.quantity.Check;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/// In which order tests that end a run when they fail are made, so that a board is decided in the
/// fewest minutes: expected minutes are the sum of each test's minutes times the chance that no
/// test before it failed. Without precedence the best order is by failure rate over minutes
/// (Mitten, Operations Research 8, 1960; Butterworth 1972). With tests that come after others:
/// exact by dynamic programming over sets up to 15 tests; beyond, by joining tests to blocks along
/// chains and trees (Horn 1972; Sidney 1975), exact where each test comes after one other at most.
///
/// @param order indexes of the tests
/// @param minutes expected until a board is decided
/// @param optimal whether no order is better
public record TestOrder(List<Integer> order, double minutes, boolean optimal) {
  /// So many tests are put in order exactly, whatever comes after what.
  public static final int EXACT = 15;

  private static final int MOST = 2000;

  public TestOrder {
    order = List.copyOf(order);
  }

  /// The best order.
  ///
  /// @param minutes of each test, not below 0
  /// @param fails chance of each that it fails, 0...1
  /// @param after indexes of the tests that each comes after
  /// @throws IllegalArgumentException when lists are not as long, a value is out of its range, or
  ///   tests come after each other in a ring
  public static TestOrder best(double[] minutes, double[] fails, List<List<Integer>> after) {
    int n = minutes.length;
    if (fails.length != n || after.size() != n || n > MOST) {
      throw new IllegalArgumentException(
          "as many minutes as rates and predecessors, up to " + MOST + ", got " + n);
    }
    for (int i = 0; i < n; i++) {
      Check.notNegative(minutes[i], "minutes");
      Check.inRange(fails[i], 0, 1, "fails");
    }
    ring(after);
    if (n <= EXACT) {
      return exact(minutes, fails, after);
    }
    boolean tree = after.stream().allMatch(a -> a.size() <= 1);
    List<Integer> order = blocks(minutes, fails, after);
    return new TestOrder(order, expected(order, minutes, fails), tree);
  }

  /// Minutes until a board is decided, on average.
  public static double expected(List<Integer> order, double[] minutes, double[] fails) {
    double all = 0;
    double lives = 1;
    for (int i : order) {
      all += lives * minutes[i];
      lives *= 1 - fails[i];
    }
    return all;
  }

  private static void ring(List<List<Integer>> after) {
    int n = after.size();
    boolean[] done = new boolean[n];
    for (int round = 0; round < n; round++) {
      boolean more = false;
      for (int i = 0; i < n; i++) {
        if (!done[i] && after.get(i).stream().allMatch(j -> done[j])) {
          done[i] = true;
          more = true;
        }
      }
      if (!more) {
        break;
      }
    }
    for (boolean d : done) {
      if (!d) {
        throw new IllegalArgumentException("tests come after each other in a ring");
      }
    }
  }

  private static TestOrder exact(double[] minutes, double[] fails, List<List<Integer>> after) {
    int n = minutes.length;
    int[] needs = new int[n];
    for (int i = 0; i < n; i++) {
      for (int j : after.get(i)) {
        needs[i] |= 1 << j;
      }
    }
    int all = (1 << n) - 1;
    double[] lives = new double[1 << n];
    double[] best = new double[1 << n];
    int[] last = new int[1 << n];
    Arrays.fill(best, Double.POSITIVE_INFINITY);
    best[0] = 0;
    lives[0] = 1;
    for (int s = 0; s <= all; s++) {
      if (Double.isInfinite(best[s])) {
        continue;
      }
      for (int i = 0; i < n; i++) {
        int t = s | 1 << i;
        if (t == s || (needs[i] & ~s) != 0) {
          continue;
        }
        lives[t] = lives[s] * (1 - fails[i]);
        double m = best[s] + lives[s] * minutes[i];
        if (m < best[t]) {
          best[t] = m;
          last[t] = i;
        }
      }
    }
    List<Integer> order = new ArrayList<>();
    for (int s = all; s != 0; s &= ~(1 << last[s])) {
      order.addFirst(last[s]);
    }
    return new TestOrder(order, expected(order, minutes, fails), true);
  }

  /// Tests that are made one right after the other.
  private static final class Block {
    final List<Integer> tests = new ArrayList<>();
    double minutes;
    double lives = 1;

    /// Chance to fail a minute: the larger the earlier.
    double ratio() {
      return minutes == 0 ? Double.POSITIVE_INFINITY : (1 - lives) / minutes;
    }
  }

  /// The block with the greatest ratio is the next when nothing must come before it; else it comes
  /// right behind the last of what must, and is one block with it.
  private static List<Integer> blocks(double[] minutes, double[] fails, List<List<Integer>> after) {
    int n = minutes.length;
    int[] depth = depths(after);
    Block[] home = new Block[n];
    List<Block> left = new ArrayList<>();
    for (int i = 0; i < n; i++) {
      home[i] = new Block();
      home[i].tests.add(i);
      home[i].minutes = minutes[i];
      home[i].lives = 1 - fails[i];
      left.add(home[i]);
    }
    List<Integer> order = new ArrayList<>();
    boolean[] done = new boolean[n];
    while (!left.isEmpty()) {
      Block best =
          left.stream().max(java.util.Comparator.comparingDouble(Block::ratio)).orElseThrow();
      left.remove(best);
      int last = -1;
      for (int t : best.tests) {
        for (int j : after.get(t)) {
          if (!done[j] && home[j] != best && (last < 0 || depth[j] > depth[last])) {
            last = j;
          }
        }
      }
      if (last < 0) {
        order.addAll(best.tests);
        best.tests.forEach(t -> done[t] = true);
        continue;
      }
      Block before = home[last];
      before.minutes += before.lives * best.minutes;
      before.lives *= best.lives;
      before.tests.addAll(best.tests);
      best.tests.forEach(t -> home[t] = before);
    }
    return order;
  }

  private static int[] depths(List<List<Integer>> after) {
    int n = after.size();
    int[] depth = new int[n];
    boolean more = true;
    while (more) {
      more = false;
      for (int i = 0; i < n; i++) {
        for (int j : after.get(i)) {
          if (depth[i] <= depth[j]) {
            depth[i] = depth[j] + 1;
            more = true;
          }
        }
      }
    }
    return depth;
  }
}
