package ell.core.jig;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.DoubleSupplier;
import org.jgrapht.alg.util.UnionFind;
import org.ojalgo.optimisation.Expression;
import org.ojalgo.optimisation.ExpressionsBasedModel;
import org.ojalgo.optimisation.Optimisation;
import org.ojalgo.optimisation.Variable;

/// Chooses items, so many of each group, none that stand in each other's way, at least cost; what a
/// group lacks costs a penalty each. Exact: what the bounds and the reductions do not settle goes
/// to an integer programme.
///
/// Reductions: of items of a group that needs one, an item which costs no less than another and is
/// in the way of all that the other is in the way of is never needed; what is in nobody's way is
/// decided alone; what hangs together by conflicts or by a limit is decided together.
final class Packing {
  private static final int ROUNDS = 60;
  private static final double LEAST_SECONDS = 0.02;

  /// Items of a group of so many are held against each other at most.
  private static final int MANY = 4000;

  private final int[] groupOf;
  private final int[] needs;
  private final BitSet[] conflicts;
  private final long penalty;
  private final List<Limit> limits;
  private final BitSet[] members;
  private final DoubleSupplier left;

  /// Costs of some items that may not sum to more than `most`.
  record Limit(long[] costs, long most) {}

  /// What was chosen.
  ///
  /// @param items chosen
  /// @param cost of it, penalties included
  /// @param bound no choice costs less
  record Chosen(BitSet items, long cost, long bound) {
    boolean proven() {
      return cost == bound;
    }
  }

  /// @param groupOf the group of each item
  /// @param needs how many each group needs
  /// @param conflicts items that may not stand beside an item
  /// @param penalty for each that is lacking
  /// @param left seconds that integer programmes may still take in all
  Packing(
      int[] groupOf,
      int[] needs,
      BitSet[] conflicts,
      long penalty,
      List<Limit> limits,
      DoubleSupplier left) {
    this.groupOf = groupOf;
    this.needs = needs;
    this.conflicts = conflicts;
    this.penalty = penalty;
    this.limits = List.copyOf(limits);
    this.left = left;
    this.members = new BitSet[needs.length];
    for (int g = 0; g < needs.length; g++) {
      members[g] = new BitSet();
    }
    for (int i = 0; i < groupOf.length; i++) {
      members[groupOf[i]].set(i);
    }
  }

  /// What of a group is left.
  private BitSet of(int g, BitSet left) {
    BitSet own = (BitSet) members[g].clone();
    own.and(left);
    return own;
  }

  /// The cheapest choice.
  ///
  /// @param costs of the items
  /// @param allowed items that may be chosen
  Chosen choose(long[] costs, BitSet allowed) {
    BitSet left = (BitSet) allowed.clone();
    BitSet done = new BitSet();
    reduce(costs, left, done);
    BitSet chosen = new BitSet();
    long cost = 0;
    long bound = 0;
    int[] lacking = lacking(done);
    for (List<Integer> together : components(left)) {
      Chosen c = part(together, costs, left, lacking);
      chosen.or(c.items);
      cost += c.cost;
      bound += c.bound;
    }
    for (int i = done.nextSetBit(0); i >= 0; i = done.nextSetBit(i + 1)) {
      cost += costs[i];
      bound += costs[i];
    }
    chosen.or(done);
    return new Chosen(chosen, cost, bound);
  }

  /// Whether a choice that lacks nothing exists: `TRUE` with it, `FALSE` proven that there is none,
  /// or neither.
  record Feasible(BitSet items, boolean found, boolean proven) {}

  /// Looks for a choice that lacks no more than so many, whatever it costs within the limits; the
  /// penalty of this packing must be 1.
  ///
  /// @param full groups that must lack nothing
  Feasible feasible(BitSet allowed, int lacks, BitSet full) {
    BitSet left = (BitSet) allowed.clone();
    if (!propagate(left, full)) {
      return new Feasible(new BitSet(), false, true);
    }
    BitSet all = new BitSet();
    boolean sure = true;
    for (List<Integer> together : apart(left, full, lacks)) {
      PackingSearch s =
          new PackingSearch(together, needs, members, conflicts, left, limits, full, this.left);
      switch (s.look(lacks)) {
        case FOUND -> all.or(s.found());
        case NONE -> {
          return new Feasible(new BitSet(), false, true);
        }
        case UNKNOWN -> sure = false;
      }
    }
    if (sure) {
      return new Feasible(all, true, true);
    }
    Chosen c = choose(new long[groupOf.length], left);
    return new Feasible(c.items, c.cost <= lacks, c.cost <= lacks || c.bound > lacks);
  }

  /// Groups that hang together; where something may be missing, all that may lack it are one.
  private List<List<Integer>> apart(BitSet left, BitSet full, int lacks) {
    List<List<Integer>> parts = components(left);
    if (lacks == 0) {
      return parts;
    }
    List<List<Integer>> out = new ArrayList<>();
    List<Integer> loose = new ArrayList<>();
    for (List<Integer> p : parts) {
      if (p.stream().allMatch(full::get)) {
        out.add(p);
      } else {
        loose.addAll(p);
      }
    }
    if (!loose.isEmpty()) {
      out.add(loose);
    }
    return out;
  }

  /// Takes away what cannot stand beside what must; false when a group is left without enough.
  private boolean propagate(BitSet left, BitSet full) {
    boolean again = true;
    while (again) {
      again = false;
      for (int g = full.nextSetBit(0); g >= 0; g = full.nextSetBit(g + 1)) {
        BitSet own = of(g, left);
        int n = own.cardinality();
        BitSet all = null;
        for (int i = own.nextSetBit(0); i >= 0; i = own.nextSetBit(i + 1)) {
          if (all == null) {
            all = (BitSet) conflicts[i].clone();
          } else {
            all.and(conflicts[i]);
          }
        }
        if (n < needs[g]) {
          return false;
        }
        // whichever is taken of the group, what all of it is in the way of goes
        if (needs[g] > 0 && all != null) {
          for (int i = all.nextSetBit(0); i >= 0; i = all.nextSetBit(i + 1)) {
            if (groupOf[i] != g && left.get(i)) {
              left.clear(i);
              again = true;
            }
          }
        }
      }
    }
    return true;
  }

  private int[] lacking(BitSet done) {
    int[] lacking = needs.clone();
    for (int i = done.nextSetBit(0); i >= 0; i = done.nextSetBit(i + 1)) {
      lacking[groupOf[i]]--;
    }
    return lacking;
  }

  private boolean limited(int i) {
    for (Limit l : limits) {
      if (l.costs[i] != 0) {
        return true;
      }
    }
    return false;
  }

  private boolean noDearerInLimits(int a, int b) {
    for (Limit l : limits) {
      if (l.costs[a] > l.costs[b]) {
        return false;
      }
    }
    return true;
  }

  private void reduce(long[] costs, BitSet left, BitSet done) {
    List<List<Integer>> groups = groups(left);
    boolean again = true;
    for (int round = 0; again && round < 6; round++) {
      again = false;
      for (int g = 0; g < needs.length; g++) {
        List<Integer> items = groups.get(g);
        items.removeIf(i -> !left.get(i));
        if (needs[g] == 1 && items.size() <= MANY) {
          again |= dominated(costs, left, items, g);
        } else if (needs[g] > 1) {
          again |= free(costs, left, done, items, g);
        }
      }
    }
  }

  private boolean dominated(long[] costs, BitSet left, List<Integer> items, int g) {
    boolean any = false;
    BitSet[] outside = new BitSet[items.size()];
    for (int k = 0; k < outside.length; k++) {
      outside[k] = outside(items.get(k), left, g);
    }
    for (int a = 0; a < outside.length; a++) {
      if (!left.get(items.get(a))) {
        continue;
      }
      for (int b = 0; b < outside.length; b++) {
        int ia = items.get(a);
        int ib = items.get(b);
        if (a != b
            && left.get(ib)
            && costs[ia] <= costs[ib]
            && noDearerInLimits(ia, ib)
            && within(outside[a], outside[b])) {
          left.clear(ib);
          any = true;
        }
      }
    }
    items.removeIf(i -> !left.get(i));
    return any;
  }

  private BitSet outside(int item, BitSet left, int g) {
    BitSet c = (BitSet) conflicts[item].clone();
    c.and(left);
    c.andNot(members[g]);
    return c;
  }

  private static boolean within(BitSet a, BitSet b) {
    if (a.cardinality() > b.cardinality()) {
      return false;
    }
    BitSet rest = (BitSet) a.clone();
    rest.andNot(b);
    return rest.isEmpty();
  }

  /// A group that finds all it needs among its cheapest, in nobody's way, is decided.
  private boolean free(long[] costs, BitSet left, BitSet done, List<Integer> items, int g) {
    if (items.isEmpty()) {
      return false;
    }
    long least = items.stream().mapToLong(i -> costs[i]).min().orElse(0);
    BitSet taken = new BitSet();
    for (int i : items) {
      if (taken.cardinality() < needs[g]
          && costs[i] == least
          && !limited(i)
          && outside(i, left, g).isEmpty()
          && !conflicts[i].intersects(taken)) {
        taken.set(i);
      }
    }
    if (taken.cardinality() < needs[g]) {
      return false;
    }
    items.forEach(left::clear);
    items.clear();
    done.or(taken);
    return true;
  }

  private List<List<Integer>> groups(BitSet left) {
    List<List<Integer>> groups = new ArrayList<>();
    for (int g = 0; g < needs.length; g++) {
      groups.add(new ArrayList<>());
    }
    for (int i = left.nextSetBit(0); i >= 0; i = left.nextSetBit(i + 1)) {
      groups.get(groupOf[i]).add(i);
    }
    return groups;
  }

  /// Groups that hang together, by conflicts or by a limit.
  private List<List<Integer>> components(BitSet left) {
    UnionFind<Integer> heaps = Heaps.of(needs.length, groupOf, conflicts, left);
    for (Limit l : limits) {
      int first = -1;
      for (int i = left.nextSetBit(0); i >= 0; i = left.nextSetBit(i + 1)) {
        if (l.costs[i] != 0) {
          first = first < 0 ? groupOf[i] : first;
          heaps.union(groupOf[i], first);
        }
      }
    }
    Map<Integer, List<Integer>> all = new LinkedHashMap<>();
    for (int g = 0; g < needs.length; g++) {
      all.computeIfAbsent(heaps.find(g), _ -> new ArrayList<>()).add(g);
    }
    return new ArrayList<>(all.values());
  }

  private Chosen part(List<Integer> groups, long[] costs, BitSet left, int[] lacking) {
    List<List<Integer>> items = new ArrayList<>();
    long bound = 0;
    for (int g : groups) {
      List<Integer> own = new ArrayList<>();
      BitSet mine = of(g, left);
      for (int i = mine.nextSetBit(0); i >= 0; i = mine.nextSetBit(i + 1)) {
        own.add(i);
      }
      own.sort((a, b) -> Long.compare(costs[a], costs[b]));
      items.add(own);
      for (int k = 0; k < lacking[g]; k++) {
        bound += k < own.size() ? Math.min(penalty, costs[own.get(k)]) : penalty;
      }
    }
    Chosen best = greedy(groups, items, costs, lacking, bound);
    if (best.cost == bound) {
      return best;
    }
    double time = this.left.getAsDouble();
    return time < LEAST_SECONDS ? best : programme(groups, items, costs, lacking, best, time);
  }

  /// Group by group, those that came short before first.
  private Chosen greedy(
      List<Integer> groups, List<List<Integer>> items, long[] costs, int[] lacking, long bound) {
    Random random = new Random(7);
    int n = groups.size();
    double[] urge = new double[n];
    for (int k = 0; k < n; k++) {
      urge[k] = -items.get(k).size();
    }
    BitSet bestItems = new BitSet();
    long best = Long.MAX_VALUE;
    for (int round = 0; round < ROUNDS && best > bound; round++) {
      Integer[] order = new Integer[n];
      Arrays.setAll(order, k -> k);
      Arrays.sort(order, (a, b) -> Double.compare(urge[b], urge[a]));
      BitSet chosen = new BitSet();
      long[] spent = new long[limits.size()];
      long cost = 0;
      for (int k : order) {
        int missing = lacking[groups.get(k)];
        List<Integer> own = items.get(k);
        while (missing > 0) {
          int pick = pick(own, costs, chosen, spent, items, random, round);
          if (pick < 0) {
            break;
          }
          chosen.set(pick);
          for (int l = 0; l < spent.length; l++) {
            spent[l] += limits.get(l).costs[pick];
          }
          cost += costs[pick];
          missing--;
        }
        cost += penalty * missing;
        if (missing > 0) {
          urge[k] += 1 + n * random.nextDouble();
        }
      }
      if (cost < best) {
        best = cost;
        bestItems = chosen;
      }
    }
    return new Chosen(bestItems, best, bound);
  }

  private int pick(
      List<Integer> own,
      long[] costs,
      BitSet chosen,
      long[] spent,
      List<List<Integer>> items,
      Random random,
      int round) {
    int pick = -1;
    double worth = Double.POSITIVE_INFINITY;
    for (int i : own) {
      if (chosen.get(i) || conflicts[i].intersects(chosen) || costs[i] >= penalty) {
        continue;
      }
      boolean fits = true;
      for (int l = 0; l < spent.length; l++) {
        fits &= spent[l] + limits.get(l).costs[i] <= limits.get(l).most;
      }
      if (!fits) {
        continue;
      }
      // the cheaper, then the less in others' way
      double w =
          costs[i]
              + 0.9
                  * conflicts[i].cardinality()
                  / (1.0 + conflicts.length)
                  * (round % 3 == 2 ? 1 + penalty * 0.1 * random.nextDouble() : 1);
      if (w < worth) {
        worth = w;
        pick = i;
      }
    }
    return pick;
  }

  private Chosen programme(
      List<Integer> groups,
      List<List<Integer>> items,
      long[] costs,
      int[] lacking,
      Chosen so,
      double seconds) {
    ExpressionsBasedModel m = new ExpressionsBasedModel();
    List<Integer> all = new ArrayList<>();
    items.forEach(all::addAll);
    Variable[] x = new Variable[groupOf.length];
    for (int i : all) {
      x[i] = m.newVariable("x" + i).binary().weight(costs[i]);
    }
    for (int k = 0; k < items.size(); k++) {
      int need = lacking[groups.get(k)];
      Expression e = m.newExpression("g" + k).level(need);
      for (int i : items.get(k)) {
        e.set(x[i], 1);
      }
      e.set(m.newVariable("u" + k).integer(true).lower(0).upper(need).weight(penalty), 1);
    }
    int n = 0;
    for (BitSet clique : cliques(all)) {
      Expression e = m.newExpression("c" + n++).upper(1);
      for (int i = clique.nextSetBit(0); i >= 0; i = clique.nextSetBit(i + 1)) {
        e.set(x[i], 1);
      }
    }
    for (Limit l : limits) {
      Expression e = null;
      for (int i : all) {
        if (l.costs[i] != 0) {
          e = e == null ? m.newExpression("l" + n++).upper(l.most) : e;
          e.set(x[i], l.costs[i]);
        }
      }
    }
    m.options.time_abort = (long) (1000 * seconds);
    m.options.time_suffice = m.options.time_abort;
    Optimisation.Result r = m.minimise();
    BitSet chosen = new BitSet();
    long cost = 0;
    if (r.getState().isFeasible()) {
      int[] missing = lacking.clone();
      for (int i : all) {
        if (x[i].getValue() != null && x[i].getValue().doubleValue() > 0.5) {
          chosen.set(i);
          cost += costs[i];
          missing[groupOf[i]]--;
        }
      }
      for (int g : groups) {
        cost += penalty * Math.max(0, missing[g]);
      }
    }
    boolean holds = r.getState().isFeasible() && holds(chosen, groups, lacking);
    if (holds && r.getState().isOptimal() && cost <= so.cost) {
      return new Chosen(chosen, cost, cost);
    }
    return holds && cost < so.cost ? new Chosen(chosen, cost, so.bound) : so;
  }

  /// Whether what a solver says is a choice at all.
  private boolean holds(BitSet chosen, List<Integer> groups, int[] lacking) {
    int[] n = new int[needs.length];
    for (int i = chosen.nextSetBit(0); i >= 0; i = chosen.nextSetBit(i + 1)) {
      if (conflicts[i].intersects(chosen) && crossing(i, chosen)) {
        return false;
      }
      n[groupOf[i]]++;
    }
    for (int g : groups) {
      if (n[g] > lacking[g]) {
        return false;
      }
    }
    for (Limit l : limits) {
      long sum = 0;
      for (int i = chosen.nextSetBit(0); i >= 0; i = chosen.nextSetBit(i + 1)) {
        sum += l.costs[i];
      }
      if (sum > l.most) {
        return false;
      }
    }
    return true;
  }

  private boolean crossing(int i, BitSet chosen) {
    BitSet c = (BitSet) conflicts[i].clone();
    c.and(chosen);
    c.clear(i);
    return !c.isEmpty();
  }

  /// Sets of items of which one can be chosen, that cover every conflict between two of them.
  private List<BitSet> cliques(List<Integer> all) {
    BitSet in = new BitSet();
    all.forEach(in::set);
    List<BitSet> cliques = new ArrayList<>();
    BitSet[] covered = new BitSet[groupOf.length];
    for (int i : all) {
      covered[i] = new BitSet();
    }
    for (int i : all) {
      for (int k = conflicts[i].nextSetBit(i + 1); k >= 0; k = conflicts[i].nextSetBit(k + 1)) {
        if (!in.get(k) || covered[i].get(k) || groupOf[i] == groupOf[k] && needs[groupOf[i]] == 1) {
          continue;
        }
        BitSet clique = new BitSet();
        clique.set(i);
        clique.set(k);
        BitSet common = (BitSet) beside(i).clone();
        common.and(beside(k));
        common.and(in);
        for (int c = common.nextSetBit(0); c >= 0; c = common.nextSetBit(0)) {
          clique.set(c);
          common.and(beside(c));
          common.clear(c);
        }
        for (int a = clique.nextSetBit(0); a >= 0; a = clique.nextSetBit(a + 1)) {
          covered[a].or(clique);
        }
        cliques.add(clique);
      }
    }
    return cliques;
  }

  /// Items that are never chosen beside one: its conflicts, and the others of its group where that
  /// needs one only.
  private BitSet beside(int i) {
    BitSet b = (BitSet) conflicts[i].clone();
    if (needs[groupOf[i]] == 1) {
      b.or(members[groupOf[i]]);
    }
    b.clear(i);
    return b;
  }
}
