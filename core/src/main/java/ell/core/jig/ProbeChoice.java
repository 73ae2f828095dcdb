package ell.core.jig;

import ell.core.board.Side;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.DoubleSupplier;
import java.util.stream.IntStream;
import org.jgrapht.alg.util.UnionFind;

/// Which target each net is reached at, and by which series: as many nets as can be reached, then
/// the fewest probes on the first side, then the largest series, then the widest spacing, then the
/// best targets.
///
/// @param probes in the order of the nets
/// @param lacking how many probes a net lacks, by net
/// @param optimal whether all of that is proven
/// @param told what is not, in sentences
public record ProbeChoice(
    List<Probe> probes, Map<String, Integer> lacking, boolean optimal, List<String> told) {
  /// Spacing is settled to so much, millimetre.
  private static final double EVEN_MM = 0.005;

  public ProbeChoice {
    probes = List.copyOf(probes);
    lacking = Map.copyOf(lacking);
    told = List.copyOf(told);
  }

  /// Chooses.
  ///
  /// @param needs each net once
  /// @param targets of those nets
  /// @param left seconds that integer programmes may still take in all, as they go by
  public static ProbeChoice of(List<Need> needs, List<Target> targets, DoubleSupplier left) {
    return new Choosing(needs, targets, left).choose();
  }

  private static final class Choosing {
    private final List<Need> needs;
    private final List<Target> targets;
    private final DoubleSupplier left;
    private final List<int[]> items = new ArrayList<>();
    private final int[] groupOf;
    private final List<String> told = new ArrayList<>();
    private boolean optimal = true;

    Choosing(List<Need> needs, List<Target> all, DoubleSupplier left) {
      this.needs = needs;
      this.targets = all;
      this.left = left;
      Map<String, Integer> group = new HashMap<>();
      for (int g = 0; g < needs.size(); g++) {
        group.put(needs.get(g).net(), g);
      }
      List<Integer> of = new ArrayList<>();
      for (int t = 0; t < all.size(); t++) {
        Integer g = group.get(all.get(t).net());
        for (int s = 0; g != null && s < all.get(t).fits().size(); s++) {
          items.add(new int[] {t, s});
          of.add(g);
        }
      }
      groupOf = of.stream().mapToInt(i -> i).toArray();
    }

    private Target target(int item) {
      return targets.get(items.get(item)[0]);
    }

    private ProbeSeries series(int item) {
      return target(item).fits().get(items.get(item)[1]);
    }

    /// A share of the time that is left now.
    private DoubleSupplier share(double part) {
      double until = left.getAsDouble() * (1 - part);
      return () -> left.getAsDouble() - until;
    }

    private BitSet[] conflicts(double gapMm) {
      int n = items.size();
      BitSet[] c = new BitSet[n];
      for (int i = 0; i < n; i++) {
        c[i] = new BitSet();
      }
      // swept from left to right, so that only what is near is compared
      double far = Math.max(ProbeSeries.TYPICAL.getFirst().spacingMm(), gapMm);
      Integer[] order = new Integer[n];
      Arrays.setAll(order, i -> i);
      Arrays.sort(order, (x, y) -> Double.compare(target(x).xMm(), target(y).xMm()));
      for (int u = 0; u < n; u++) {
        int i = order[u];
        Target a = target(i);
        for (int w = u + 1; w < n && target(order[w]).xMm() - a.xMm() < far; w++) {
          int k = order[w];
          Target b = target(k);
          if (a.side() == b.side()
              && Math.abs(a.yMm() - b.yMm()) < far
              && a.distanceMm(b) < Math.max(series(i).apartMm(series(k)), gapMm) - 1e-9) {
            c[i].set(k);
            c[k].set(i);
          }
        }
      }
      return c;
    }

    ProbeChoice choose() {
      int[] wanted = needs.stream().mapToInt(Need::probes).toArray();
      int most = 0;
      for (int w : wanted) {
        most += w;
      }
      int dear = ProbeSeries.TYPICAL.getLast().cost();
      long top = (long) dear * most + 1;
      long lacks = top * (most + 1L);
      long[] costs = new long[items.size()];
      BitSet all = new BitSet();
      for (int i = 0; i < costs.length; i++) {
        costs[i] = (target(i).side() == Side.FIRST ? top : 0) + series(i).cost();
        all.set(i);
      }
      BitSet[] close = conflicts(0);
      Packing.Chosen first =
          new Packing(groupOf, wanted, close, lacks, List.of(), share(0.4)).choose(costs, all);
      if (!first.proven()) {
        optimal = false;
        told.add(
            "which probes are needed on the first side and of which series is not proven: "
                + gap(first, lacks, top));
      }
      int[] reached = new int[wanted.length];
      long[] spent = new long[wanted.length];
      for (int i = first.items().nextSetBit(0); i >= 0; i = first.items().nextSetBit(i + 1)) {
        reached[groupOf[i]]++;
        spent[groupOf[i]] += costs[i];
      }
      BitSet allowed = (BitSet) all.clone();
      int lacking = 0;
      for (int g = 0; g < wanted.length; g++) {
        lacking += wanted[g] - reached[g];
      }
      BitSet full = new BitSet();
      List<Packing.Limit> limits = limits(costs, reached, spent, allowed, close, full);
      BitSet chosen = spaced(first.items(), wanted, limits, allowed, lacking, full);
      double gap = gap(chosen);
      long[] worth = new long[items.size()];
      for (int i = 0; i < worth.length; i++) {
        worth[i] = target(i).worth(items.get(i)[1]);
      }
      long never = 1_000_000_000L;
      Packing.Chosen last =
          new Packing(
                  groupOf, wanted, conflicts(Double.isInfinite(gap) ? 0 : gap), never, limits, left)
              .choose(worth, allowed);
      if (last.cost() < never * (lacking + 1L)) {
        chosen = last.items();
        if (!last.proven()) {
          optimal = false;
          told.add("whether better targets can be had at the same spacing is not proven");
        }
      } else {
        optimal = false;
        told.add("better targets were not looked for to the end");
      }
      return done(chosen, wanted);
    }

    private static String gap(Packing.Chosen c, long lacks, long top) {
      long d = c.cost() - c.bound();
      return d >= lacks
          ? (d / lacks) + " more might be reached"
          : d >= top
              ? (d / top) + " fewer on the first side might do"
              : d + " ranks of series might be won";
    }

    /// What keeps the sides and series as they were settled: nets that hang together by conflicts
    /// and all have their cheapest are kept to it; of others the sum is held.
    ///
    /// @param full is told the nets that lack nothing, nor does any that hangs together with them
    private List<Packing.Limit> limits(
        long[] costs, int[] reached, long[] spent, BitSet allowed, BitSet[] close, BitSet full) {
      long[] least = new long[reached.length];
      boolean[] even = new boolean[reached.length];
      long[] cheapest = new long[reached.length];
      for (int g = 0; g < reached.length; g++) {
        int group = g;
        long[] own =
            IntStream.range(0, costs.length)
                .filter(i -> groupOf[i] == group)
                .mapToLong(i -> costs[i])
                .sorted()
                .toArray();
        for (int k = 0; k < reached[g]; k++) {
          least[g] += own[k];
        }
        cheapest[g] = own.length == 0 ? 0 : own[0];
        even[g] = reached[g] == 0 || own[0] == own[reached[g] - 1];
      }
      UnionFind<Integer> heaps = Heaps.of(reached.length, groupOf, close, allowed);
      int[] together = IntStream.range(0, reached.length).map(heaps::find).toArray();
      boolean[] settled = new boolean[reached.length];
      boolean[] whole = new boolean[reached.length];
      Arrays.fill(settled, true);
      Arrays.fill(whole, true);
      for (int g = 0; g < reached.length; g++) {
        settled[together[g]] &=
            reached[g] == needs.get(g).probes() && spent[g] == least[g] && even[g];
        whole[together[g]] &= reached[g] == needs.get(g).probes();
      }
      Map<Integer, long[]> held = new LinkedHashMap<>();
      Map<Integer, Long> most = new HashMap<>();
      for (int g = 0; g < reached.length; g++) {
        full.set(g, whole[together[g]]);
        if (!settled[together[g]]) {
          held.computeIfAbsent(together[g], _ -> new long[costs.length]);
          most.merge(together[g], spent[g], Long::sum);
        }
      }
      for (int i = 0; i < costs.length; i++) {
        int g = groupOf[i];
        if (settled[together[g]] && costs[i] > cheapest[g]) {
          allowed.clear(i);
        } else if (!settled[together[g]]) {
          held.get(together[g])[i] = costs[i];
        }
      }
      List<Packing.Limit> limits = new ArrayList<>();
      held.forEach((k, c) -> limits.add(new Packing.Limit(c, most.get(k))));
      return limits;
    }

    /// The widest spacing.
    private BitSet spaced(
        BitSet first,
        int[] wanted,
        List<Packing.Limit> limits,
        BitSet allowed,
        int lacking,
        BitSet full) {
      BitSet best = first;
      double low = gap(first);
      double high = bound(wanted, allowed, full);
      if (Double.isInfinite(low)) {
        return best;
      }
      // first as far as a quick look comes; then, from there, whether anything is wider at all
      while (high - low > EVEN_MM) {
        double g = (low + high) / 2;
        Packing.Feasible f = feasible(g, wanted, limits, allowed, lacking, full, () -> 0);
        if (f.found()) {
          best = f.items();
          low = Math.max(g, gap(best));
        } else {
          high = g;
        }
      }
      DoubleSupplier last = share(0.7);
      boolean sure = false;
      while (last.getAsDouble() > 0) {
        Packing.Feasible f = feasible(low + EVEN_MM, wanted, limits, allowed, lacking, full, last);
        if (!f.found()) {
          sure = f.proven();
          break;
        }
        best = f.items();
        low = gap(best);
      }
      if (!sure) {
        optimal = false;
        told.add(
            String.format(
                Locale.ROOT,
                "a spacing wider than %.2f mm was not found, and is not ruled out",
                low));
      }
      return best;
    }

    private Packing.Feasible feasible(
        double g,
        int[] wanted,
        List<Packing.Limit> limits,
        BitSet allowed,
        int lacking,
        BitSet full,
        DoubleSupplier time) {
      return new Packing(groupOf, wanted, conflicts(g), 1, limits, time)
          .feasible(allowed, lacking, full);
    }

    /// No choice is wider spaced: of two nets, the places that are farthest from each other.
    private double bound(int[] wanted, BitSet allowed, BitSet full) {
      double least = Double.POSITIVE_INFINITY;
      List<List<Target>> of = new ArrayList<>();
      for (int g = 0; g < wanted.length; g++) {
        of.add(new ArrayList<>());
      }
      for (int i = allowed.nextSetBit(0); i >= 0; i = allowed.nextSetBit(i + 1)) {
        List<Target> own = of.get(groupOf[i]);
        if (own.isEmpty() || own.getLast() != target(i)) {
          own.add(target(i));
        }
      }
      double wide = 0;
      for (int g = 0; g < of.size(); g++) {
        for (int h = g; h < of.size(); h++) {
          if (g == h && wanted[g] < 2) {
            continue;
          }
          double most = 0;
          for (Target a : of.get(g)) {
            for (Target b : of.get(h)) {
              double d = a.side() == b.side() ? a.distanceMm(b) : Double.POSITIVE_INFINITY;
              most = Math.max(most, d);
              wide = Double.isInfinite(d) ? wide : Math.max(wide, d);
            }
          }
          if (full.get(g) && full.get(h)) {
            least = Math.min(least, most);
          }
        }
      }
      return Math.min(least, wide) + EVEN_MM;
    }

    private double gap(BitSet chosen) {
      double least = Double.POSITIVE_INFINITY;
      for (int i = chosen.nextSetBit(0); i >= 0; i = chosen.nextSetBit(i + 1)) {
        for (int k = chosen.nextSetBit(i + 1); k >= 0; k = chosen.nextSetBit(k + 1)) {
          if (target(i).side() == target(k).side()) {
            least = Math.min(least, target(i).distanceMm(target(k)));
          }
        }
      }
      return least;
    }

    private ProbeChoice done(BitSet chosen, int[] wanted) {
      List<Probe> probes = new ArrayList<>();
      Map<String, Integer> lacking = new LinkedHashMap<>();
      for (int g = 0; g < wanted.length; g++) {
        Need need = needs.get(g);
        int n = 0;
        for (int i = chosen.nextSetBit(0); i >= 0; i = chosen.nextSetBit(i + 1)) {
          if (groupOf[i] == g) {
            n++;
            double near = Double.POSITIVE_INFINITY;
            for (int k = chosen.nextSetBit(0); k >= 0; k = chosen.nextSetBit(k + 1)) {
              if (k != i && target(k).side() == target(i).side()) {
                near = Math.min(near, target(i).distanceMm(target(k)));
              }
            }
            probes.add(
                new Probe(probes.size() + 1, target(i), items.get(i)[1], need.role(n), near));
          }
        }
        if (n < wanted[g]) {
          lacking.put(need.net(), wanted[g] - n);
        }
      }
      return new ProbeChoice(probes, lacking, optimal, told);
    }
  }
}
