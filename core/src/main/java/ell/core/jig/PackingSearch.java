package ell.core.jig;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.function.DoubleSupplier;

/// Whether items can be chosen, so many of each group, none in another's way and within limits of
/// cost: by trying, the group with the fewest ways left first, those that failed often before
/// others (Boussemart, Hemery, Lecoutre and Sais, Boosting systematic search by weighting
/// constraints, 2004).
final class PackingSearch {
  private static final int MOST_NODES = 60_000;
  private static final int CLOCK = 256;
  private static final double LEAST_SECONDS = 0.02;

  private final int[] groups;
  private final List<int[]> items = new ArrayList<>(); // of each group, the cheapest first
  private final BitSet[] conflicts;
  private final List<Packing.Limit> limits;
  private final BitSet full;
  private final DoubleSupplier left;
  private final double[] weight;
  private final int[] need;
  private int nodes;
  private boolean given;
  private BitSet found;

  /// How it ended.
  enum End {
    /// There is a choice.
    FOUND,
    /// There is none.
    NONE,
    /// Nobody knows: it took too long.
    UNKNOWN
  }

  /// @param groups that are looked at, by number
  /// @param needs how many each of all groups needs
  /// @param full groups that may lack nothing, by number
  PackingSearch(
      List<Integer> groups,
      int[] needs,
      BitSet[] members,
      BitSet[] conflicts,
      BitSet allowed,
      List<Packing.Limit> limits,
      BitSet full,
      DoubleSupplier left) {
    this.groups = groups.stream().mapToInt(g -> g).toArray();
    this.conflicts = conflicts;
    this.full = full;
    this.left = left;
    this.weight = new double[this.groups.length];
    this.need = new int[this.groups.length];
    List<Packing.Limit> own = new ArrayList<>();
    BitSet mine = new BitSet();
    for (int k = 0; k < this.groups.length; k++) {
      BitSet in = (BitSet) members[this.groups[k]].clone();
      in.and(allowed);
      mine.or(in);
      need[k] = needs[this.groups[k]];
      weight[k] = 1;
    }
    for (Packing.Limit l : limits) {
      if (mine.stream().anyMatch(i -> l.costs()[i] != 0)) {
        own.add(l);
      }
    }
    this.limits = own;
    for (int g : this.groups) {
      BitSet in = (BitSet) members[g].clone();
      in.and(allowed);
      items.add(
          in.stream()
              .boxed()
              .sorted((a, b) -> {
                long x = own.stream().mapToLong(l -> l.costs()[a]).sum();
                long y = own.stream().mapToLong(l -> l.costs()[b]).sum();
                return x != y
                    ? Long.compare(x, y)
                    : Integer.compare(conflicts[a].cardinality(), conflicts[b].cardinality());
              })
              .mapToInt(i -> i)
              .toArray());
    }
  }

  /// Looks.
  ///
  /// @param lacks how many may be missing in groups that may lack something
  End look(int lacks) {
    BitSet free = new BitSet();
    items.forEach(own -> {
      for (int i : own) {
        free.set(i);
      }
    });
    boolean is = deeper(free, need.clone(), new long[limits.size()], lacks, new BitSet());
    return is ? End.FOUND : given ? End.UNKNOWN : End.NONE;
  }

  /// What was found.
  BitSet found() {
    return found;
  }

  private boolean deeper(BitSet free, int[] needs, long[] spent, int lacks, BitSet chosen) {
    if (++nodes > MOST_NODES || nodes % CLOCK == 0 && left.getAsDouble() < LEAST_SECONDS) {
      given = true;
    }
    if (given) {
      return false;
    }
    int pick = -1;
    double least = Double.POSITIVE_INFINITY;
    int missing = 0;
    for (int k = 0; k < groups.length; k++) {
      if (needs[k] == 0) {
        continue;
      }
      int n = count(k, free);
      if (n < needs[k]) {
        missing += needs[k] - n;
        if (full.get(groups[k]) || missing > lacks) {
          weight[k]++;
          return false;
        }
        if (n == 0) {
          continue;
        }
      }
      double w = (n - needs[k] + 1) / weight[k];
      if (w < least) {
        least = w;
        pick = k;
      }
    }
    if (!affordable(free, needs, spent, lacks)) {
      return false;
    }
    if (pick < 0) {
      found = (BitSet) chosen.clone();
      return true;
    }
    BitSet now = (BitSet) free.clone();
    for (int i : items.get(pick)) {
      if (!now.get(i)) {
        continue;
      }
      BitSet next = (BitSet) now.clone();
      next.andNot(conflicts[i]);
      next.clear(i);
      needs[pick]--;
      add(spent, i, 1);
      chosen.set(i);
      if (deeper(next, needs, spent, lacks, chosen)) {
        return true;
      }
      chosen.clear(i);
      add(spent, i, -1);
      needs[pick]++;
      if (given) {
        return false;
      }
      now.clear(i); // what goes with it was looked at
    }
    if (!full.get(groups[pick]) && lacks > 0) {
      // without it altogether
      int was = needs[pick];
      if (was <= lacks) {
        needs[pick] = 0;
        boolean is = deeper(now, needs, spent, lacks - was, chosen);
        needs[pick] = was;
        if (is) {
          return true;
        }
      }
    }
    weight[pick]++;
    return false;
  }

  private void add(long[] spent, int item, int sign) {
    for (int l = 0; l < spent.length; l++) {
      spent[l] += sign * limits.get(l).costs()[item];
    }
  }

  private int count(int k, BitSet free) {
    int n = 0;
    for (int i : items.get(k)) {
      n += free.get(i) ? 1 : 0;
    }
    return n;
  }

  /// Whether the cheapest that is left of every group keeps to the limits; what may be missing is
  /// counted as nothing.
  private boolean affordable(BitSet free, int[] needs, long[] spent, int lacks) {
    for (int l = 0; l < spent.length; l++) {
      Packing.Limit limit = limits.get(l);
      long sum = spent[l];
      for (int k = 0; k < groups.length && sum <= limit.most(); k++) {
        int wanted = needs[k];
        if (wanted == 0 || lacks > 0 && !full.get(groups[k])) {
          continue;
        }
        // of one limit the items stand in the order of its costs; of several the least is a bound
        if (limits.size() == 1) {
          for (int i : items.get(k)) {
            if (wanted > 0 && free.get(i)) {
              sum += limit.costs()[i];
              wanted--;
            }
          }
        } else {
          long least = Long.MAX_VALUE;
          for (int i : items.get(k)) {
            least = free.get(i) ? Math.min(least, limit.costs()[i]) : least;
          }
          sum += least == Long.MAX_VALUE ? 0 : wanted * least;
        }
      }
      if (sum > limit.most()) {
        return false;
      }
    }
    return true;
  }
}
