package ell.core.order;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;

/// Puts the parts of one stretch into the order that costs least time: few reels opened, little way
/// of the hand, few turns of the board, and no arrow broken.
///
/// Up to twelve parts are solved exactly, over all sets that can have been placed and the part that
/// was placed last (Held and Karp 1962, with precedence). More are placed greedily, a reel at a
/// time, and then improved: ways within a reel by exchanging two edges, reels by moving them to
/// where they cost less. What it costs at least is known from the least trees through the parts of
/// each reel.
final class Sequencer {
  /// So many parts are solved exactly.
  static final int EXACT = 12;

  private static final double LEVEL_MM = 0.05;

  /// Seconds for a millimetre of height that comes a place sooner: only to tell equals apart.
  private static final double TIE = 1e-6;

  private static final int IMPROVED_REELS = 600;
  private static final int IMPROVED_PARTS = 400;

  private final double[] x;
  private final double[] y;
  private final int[] reel;
  private final int[] side;
  private final double[] height;
  private final boolean hand;
  private final List<List<Integer>> after = new ArrayList<>();
  private final List<List<Integer>> before = new ArrayList<>();
  private final BooleanSupplier stop;

  /// @param places x and y of each part in millimetre, null when it has none
  /// @param reels a number for each reel
  /// @param sides 0 or 1
  /// @param heights of the bodies in millimetre: of two orders that cost the same the one that
  ///   begins low is taken
  /// @param hand whether the parts are soldered by hand, where a lower part after a taller one
  ///   costs reaching past it
  /// @param arrows pairs of indexes, the first before the second, without a loop
  Sequencer(
      double[][] places,
      int[] reels,
      int[] sides,
      double[] heights,
      boolean hand,
      List<int[]> arrows,
      BooleanSupplier stop) {
    this.x = new double[places.length];
    this.y = new double[places.length];
    for (int i = 0; i < places.length; i++) {
      x[i] = places[i] == null ? Double.NaN : places[i][0];
      y[i] = places[i] == null ? Double.NaN : places[i][1];
      after.add(new ArrayList<>(2));
      before.add(new ArrayList<>(2));
    }
    this.reel = reels;
    this.side = sides;
    this.height = heights;
    this.hand = hand;
    this.stop = stop;
    for (int[] a : arrows) {
      after.get(a[0]).add(a[1]);
      before.get(a[1]).add(a[0]);
    }
  }

  /// Seconds between one part and the next; from nothing, a reel is opened.
  double step(int from, int to) {
    if (from < 0) {
      return StepTimes.REEL;
    }
    return (reel[from] == reel[to] ? 0 : StepTimes.REEL)
        + (hand && height[to] < height[from] - LEVEL_MM ? StepTimes.PAST_TALLER : 0)
        + (side[from] == side[to] ? way(from, to) : StepTimes.FLIP);
  }

  private double way(int a, int b) {
    double d = Math.hypot(x[a] - x[b], y[a] - y[b]);
    return Double.isNaN(d) ? 0 : d * StepTimes.SECONDS_PER_MM;
  }

  /// Seconds of a whole order, without what placing itself takes.
  double cost(int[] order) {
    double sum = 0;
    int last = -1;
    for (int i : order) {
      sum += step(last, i);
      last = i;
    }
    return sum;
  }

  /// The order.
  int[] solve() {
    if (reel.length <= EXACT) {
      return exact();
    }
    int[] order = greedy();
    improveReels(order);
    improveWays(order);
    return order;
  }

  /// Whether [#solve()] is the best there is.
  boolean isExact() {
    return reel.length <= EXACT;
  }

  private int[] exact() {
    int n = reel.length;
    if (n == 0) {
      return new int[0];
    }
    int[] needs = new int[n];
    for (int i = 0; i < n; i++) {
      for (int b : before.get(i)) {
        needs[i] |= 1 << b;
      }
    }
    double[][] best = new double[1 << n][n];
    byte[][] from = new byte[1 << n][n];
    for (double[] row : best) {
      Arrays.fill(row, Double.POSITIVE_INFINITY);
    }
    for (int i = 0; i < n; i++) {
      if (needs[i] == 0) {
        best[1 << i][i] = step(-1, i) + TIE * height[i] * n;
        from[1 << i][i] = -1;
      }
    }
    for (int set = 1; set < 1 << n; set++) {
      for (int last = 0; last < n; last++) {
        if (!Double.isFinite(best[set][last])) {
          continue;
        }
        for (int next = 0; next < n; next++) {
          if ((set >> next & 1) == 0 && (needs[next] & ~set) == 0) {
            double cost =
                best[set][last]
                    + step(last, next)
                    + TIE * height[next] * (n - Integer.bitCount(set));
            int grown = set | 1 << next;
            if (cost < best[grown][next] - 1e-12) {
              best[grown][next] = cost;
              from[grown][next] = (byte) last;
            }
          }
        }
      }
    }
    int set = (1 << n) - 1;
    int last = 0;
    for (int i = 1; i < n; i++) {
      if (best[set][i] < best[set][last]) {
        last = i;
      }
    }
    int[] order = new int[n];
    for (int k = n - 1; k >= 0; k--) {
      order[k] = last;
      int previous = from[set][last];
      set &= ~(1 << last);
      last = previous;
    }
    return order;
  }

  /// A reel at a time: the reel in hand as long as a part of it may come, then the one of which the
  /// most of what is left may come at once, the nearest of several alike.
  private int[] greedy() {
    int n = reel.length;
    int[] waiting = new int[n];
    Map<Integer, List<Integer>> ready = new LinkedHashMap<>();
    Map<Integer, Integer> left = new HashMap<>();
    for (int i = 0; i < n; i++) {
      waiting[i] = before.get(i).size();
      left.merge(reel[i], 1, Integer::sum);
      if (waiting[i] == 0) {
        ready.computeIfAbsent(reel[i], _ -> new ArrayList<>()).add(i);
      }
    }
    int[] order = new int[n];
    int last = -1;
    for (int k = 0; k < n; k++) {
      List<Integer> own = last < 0 ? null : ready.get(reel[last]);
      if (own == null || own.isEmpty()) {
        own = ready.get(nextReel(ready, left, last));
      }
      int at = nearest(own, last);
      int i = own.get(at);
      own.set(at, own.getLast());
      own.removeLast();
      if (own.isEmpty()) {
        ready.remove(reel[i]);
      }
      left.merge(reel[i], -1, Integer::sum);
      order[k] = i;
      last = i;
      for (int a : after.get(i)) {
        if (--waiting[a] == 0) {
          ready.computeIfAbsent(reel[a], _ -> new ArrayList<>()).add(a);
        }
      }
    }
    return order;
  }

  private int nextReel(Map<Integer, List<Integer>> ready, Map<Integer, Integer> left, int last) {
    int best = -1;
    double bestScore = Double.POSITIVE_INFINITY;
    for (Map.Entry<Integer, List<Integer>> e : ready.entrySet()) {
      double open = 1 - (double) e.getValue().size() / left.get(e.getKey());
      double score = open * 10 * StepTimes.REEL;
      if (last >= 0) {
        // with many parts of a reel the first will do: its way is found out later
        int looked = Math.min(e.getValue().size(), 8);
        double near = Double.POSITIVE_INFINITY;
        for (int k = 0; k < looked; k++) {
          near = Math.min(near, step(last, e.getValue().get(k)));
        }
        score += near;
      }
      if (score < bestScore) {
        bestScore = score;
        best = e.getKey();
      }
    }
    return best;
  }

  private int nearest(List<Integer> own, int last) {
    int best = 0;
    if (last >= 0) {
      for (int k = 1; k < Math.min(own.size(), IMPROVED_PARTS); k++) {
        if (step(last, own.get(k)) < step(last, own.get(best))) {
          best = k;
        }
      }
    }
    return best;
  }

  /// Runs of one reel, as `{from, to}`, ends excluded.
  private List<int[]> runs(int[] order) {
    List<int[]> runs = new ArrayList<>();
    int from = 0;
    for (int k = 1; k <= order.length; k++) {
      if (k == order.length || reel[order[k]] != reel[order[from]]) {
        runs.add(new int[] {from, k});
        from = k;
      }
    }
    return runs;
  }

  /// Moves whole runs to where they cost least, as far as no arrow is in the way.
  private void improveReels(int[] order) {
    for (int round = 0; round < 4 && !stop.getAsBoolean(); round++) {
      List<int[]> runs = runs(order);
      if (runs.size() > IMPROVED_REELS) {
        return;
      }
      List<int[]> parts = new ArrayList<>();
      runs.forEach(r -> parts.add(Arrays.copyOfRange(order, r[0], r[1])));
      boolean moved = false;
      for (int from = 0; from < parts.size() && !stop.getAsBoolean(); from++) {
        moved |= move(parts, from);
      }
      int k = 0;
      for (int[] run : parts) {
        for (int i : run) {
          order[k++] = i;
        }
      }
      if (!moved) {
        return;
      }
    }
  }

  private boolean move(List<int[]> runs, int from) {
    int[] run = runs.get(from);
    BitSet mustAfter = new BitSet();
    BitSet mustBefore = new BitSet();
    for (int i : run) {
      before.get(i).forEach(mustBefore::set);
      after.get(i).forEach(mustAfter::set);
    }
    double gain = joint(runs, from - 1, from) + joint(runs, from, from + 1) - skip(runs, from);
    int best = -1;
    double least = -1e-9;
    for (int to = from + 1; to < runs.size() && !touches(runs.get(to), mustAfter); to++) {
      double delta = between(runs, run, to, to + 1) - gain;
      if (delta < least) {
        least = delta;
        best = to;
      }
    }
    for (int to = from - 1; to >= 0 && !touches(runs.get(to), mustBefore); to--) {
      double delta = between(runs, run, to - 1, to) - gain;
      if (delta < least) {
        least = delta;
        best = to;
      }
    }
    if (best < 0) {
      return false;
    }
    runs.remove(from);
    runs.add(best, run);
    return true;
  }

  private static boolean touches(int[] run, BitSet set) {
    for (int i : run) {
      if (set.get(i)) {
        return true;
      }
    }
    return false;
  }

  private double joint(List<int[]> runs, int a, int b) {
    if (b >= runs.size()) {
      return 0;
    }
    return step(a < 0 ? -1 : runs.get(a)[runs.get(a).length - 1], runs.get(b)[0]);
  }

  private double skip(List<int[]> runs, int at) {
    if (at + 1 >= runs.size()) {
      return 0;
    }
    return step(at == 0 ? -1 : runs.get(at - 1)[runs.get(at - 1).length - 1], runs.get(at + 1)[0]);
  }

  private double between(List<int[]> runs, int[] run, int a, int b) {
    int left = a < 0 ? -1 : runs.get(a)[runs.get(a).length - 1];
    double in = step(left, run[0]);
    if (b >= runs.size()) {
      return in;
    }
    int right = runs.get(b)[0];
    return in + step(run[run.length - 1], right) - step(left, right);
  }

  /// Exchanges two edges of the way within a run wherever that is shorter and no arrow stands
  /// against it.
  private void improveWays(int[] order) {
    for (int[] r : runs(order)) {
      if (r[1] - r[0] < 3 || r[1] - r[0] > IMPROVED_PARTS || bound(order, r)) {
        continue;
      }
      boolean better = true;
      for (int round = 0; better && round < 12 && !stop.getAsBoolean(); round++) {
        better = false;
        for (int a = r[0]; a < r[1] - 1; a++) {
          for (int b = a + 1; b < r[1]; b++) {
            int left = a == 0 ? -1 : order[a - 1];
            int right = b + 1 < order.length ? order[b + 1] : -2;
            double now = step(left, order[a]) + (right < 0 ? 0 : step(order[b], right));
            double then = step(left, order[b]) + (right < 0 ? 0 : step(order[a], right));
            if (then < now - 1e-9) {
              reverse(order, a, b);
              better = true;
            }
          }
        }
      }
    }
  }

  /// Whether an arrow leads from one part of a run to another, or they lie on two sides.
  private boolean bound(int[] order, int[] run) {
    BitSet own = new BitSet();
    for (int k = run[0]; k < run[1]; k++) {
      own.set(order[k]);
    }
    for (int k = run[0]; k < run[1]; k++) {
      if (after.get(order[k]).stream().anyMatch(own::get)) {
        return true;
      }
    }
    return false;
  }

  private static void reverse(int[] order, int a, int b) {
    for (int i = a, k = b; i < k; i++, k--) {
      int t = order[i];
      order[i] = order[k];
      order[k] = t;
    }
  }

  /// No order costs less: each reel is opened once, and its parts are joined either by a way or by
  /// opening it again, so that the least tree through them, with edges no longer than an opening,
  /// bounds both.
  double bound() {
    if (isExact()) {
      return cost(exact());
    }
    Map<Integer, List<Integer>> byReel = new HashMap<>();
    for (int i = 0; i < reel.length; i++) {
      byReel.computeIfAbsent(reel[i], _ -> new ArrayList<>()).add(i);
    }
    double sum = 0;
    for (List<Integer> own : byReel.values()) {
      sum += StepTimes.REEL + tree(own);
    }
    return sum;
  }

  /// Least spanning tree (Prim).
  private double tree(List<Integer> own) {
    double[] near = new double[own.size()];
    boolean[] in = new boolean[own.size()];
    Arrays.fill(near, Double.POSITIVE_INFINITY);
    near[0] = 0;
    double sum = 0;
    for (int k = 0; k < own.size(); k++) {
      int next = -1;
      for (int i = 0; i < near.length; i++) {
        if (!in[i] && (next < 0 || near[i] < near[next])) {
          next = i;
        }
      }
      in[next] = true;
      sum += near[next];
      for (int i = 0; i < near.length; i++) {
        if (!in[i]) {
          near[i] = Math.min(near[i], Math.min(StepTimes.REEL, step(own.get(next), own.get(i))));
        }
      }
    }
    return sum;
  }
}
