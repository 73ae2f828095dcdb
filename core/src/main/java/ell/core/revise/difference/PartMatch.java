package ell.core.revise.difference;

import ell.core.board.Joint;
import ell.core.board.NetDifference;
import ell.core.board.Revision;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiPredicate;
import org.jgrapht.Graph;
import org.jgrapht.alg.matching.KuhnMunkresMinimalWeightBipartitePerfectMatching;
import org.jgrapht.graph.DefaultWeightedEdge;
import org.jgrapht.graph.SimpleWeightedGraph;

/// Which part of one drawing is which of the other. What is the same in everything is taken first,
/// then what is the same in all but its name or its place, then what stands alone in what it joins;
/// what is left is assigned so that the fewest things have changed, exactly where it is small.
final class PartMatch {
  private static final int DEEP = 3;

  /// Parts that are alike in every way are told apart one by one, so many at most.
  private static final int MOST_PICKS = 300;

  /// Each pick looks at every part again: so many looks are worth the time.
  private static final int MOST_LOOKS = 200_000;

  /// More pairs are not tried each with each.
  private static final long MOST_PAIRS = 1_000_000;

  /// Larger sets are assigned best pair first.
  private static final int MOST_EXACT = 120;

  private static final int ROUNDS = 6;
  private static final double AGREES = 0.6;

  private final Revision first;
  private final Revision second;
  private final Drawn a;
  private final Drawn b;
  private final int[] to;
  private final int[] from;
  private Map<String, String> nets = new HashMap<>();
  private Map<String, String> base = Map.of();
  private boolean exact = true;

  private PartMatch(Revision first, Revision second, Drawn a, Drawn b) {
    this.first = first;
    this.second = second;
    this.a = a;
    this.b = b;
    this.to = new int[a.size()];
    this.from = new int[b.size()];
    Arrays.fill(to, -1);
    Arrays.fill(from, -1);
  }

  /// Which part is which.
  ///
  /// @param to by the reference in the first, the one in the second
  /// @param exact whether everything that was left was assigned exactly
  record Matched(Map<String, String> to, boolean exact) {}

  /// What is believed first: each may be wrong where the others are right, so all are tried.
  private enum First {
    PLACES,
    NAMES,
    NET_NAMES,
    WHAT_THEY_JOIN
  }

  static Matched of(Revision first, Revision second, Drawn a, Drawn b) {
    PartMatch best = null;
    double least = Double.POSITIVE_INFINITY;
    for (First by : First.values()) {
      PartMatch m = new PartMatch(first, second, a, b);
      m.match(by);
      double cost = m.cost();
      if (cost < least - 1e-9) {
        least = cost;
        best = m;
      }
      if (m.namesAlone()) {
        break; // nothing has changed: no other way can say less
      }
    }
    Map<String, String> to = new LinkedHashMap<>();
    for (int i = 0; i < best.to.length; i++) {
      if (best.to[i] >= 0) {
        to.put(a.item(i).reference(), b.item(best.to[i]).reference());
      }
    }
    return new Matched(to, best.exact);
  }

  private void match(First by) {
    boolean parts = by == First.PLACES || by == First.NAMES;
    byName((x, y) -> parts && x.sameAttributes(y) && x.samePlace(y));
    if (by == First.NET_NAMES) {
      base = sameNames();
    }
    again();
    if (by == First.PLACES) {
      byPlace(Drawn.Item::sameAttributes);
      again();
    }
    if (parts) {
      byPlaces()
          .forEach((x, y) -> {
            if (!nets.containsValue(y)) {
              nets.putIfAbsent(x, y);
            }
          });
      PairCost known = costs();
      byName((x, y) -> x.sameAttributes(y) && known.sure(x, y, AGREES));
      again();
      byPlace(Drawn.Item::sameAttributes);
      again();
    }
    byWhatTheyJoin();
    if (parts) {
      byPlace((x, y) -> Drawn.samePackage(x.packageName(), y.packageName()));
      again();
      byWhatTheyJoin();
    }
    alikes();
    for (int i = 0; i < ROUNDS && assign(); i++) {
      again();
    }
  }

  /// Whether nothing but names would have changed.
  private boolean namesAlone() {
    PairCost pairs = costs();
    for (int i = 0; i < to.length; i++) {
      if (to[i] < 0 || pairs.of(a.item(i), b.item(to[i])) > PairCost.NAME) {
        return false;
      }
    }
    return to.length == from.length;
  }

  /// Everything that would have changed.
  private double cost() {
    PairCost pairs = costs();
    double c = 0;
    for (int i = 0; i < to.length; i++) {
      c +=
          to[i] < 0
              ? PairCost.alone(a.item(i))
              : Math.min(PairCost.NEVER, pairs.of(a.item(i), b.item(to[i])));
    }
    for (int i = 0; i < from.length; i++) {
      c += from[i] < 0 ? PairCost.alone(b.item(i)) : 0;
    }
    return c;
  }

  private PairCost costs() {
    int few = Math.max(Colours.MANY, first.joints().size() / 20);
    return new PairCost(nets, n -> a.size(n) <= few);
  }

  private void take(int x, int y) {
    to[x] = y;
    from[y] = x;
  }

  private void byName(BiPredicate<Drawn.Item, Drawn.Item> same) {
    for (int i = 0; i < to.length; i++) {
      int y = to[i] >= 0 ? -1 : b.at(a.item(i).reference());
      if (y >= 0 && from[y] < 0 && same.test(a.item(i), b.item(y))) {
        take(i, y);
      }
    }
  }

  private void byPlace(BiPredicate<Drawn.Item, Drawn.Item> same) {
    Map<String, List<Integer>> there = new HashMap<>();
    for (int i = 0; i < from.length; i++) {
      if (from[i] < 0 && b.item(i).placed()) {
        there.computeIfAbsent(cell(b.item(i), 0, 0), _ -> new ArrayList<>()).add(i);
      }
    }
    PairCost cost = costs();
    for (int i = 0; i < to.length; i++) {
      if (to[i] >= 0 || !a.item(i).placed()) {
        continue;
      }
      Drawn.Item x = a.item(i);
      List<Integer> found = new ArrayList<>();
      for (int dx = -1; dx <= 1; dx++) {
        for (int dy = -1; dy <= 1; dy++) {
          for (int y : there.getOrDefault(cell(x, dx, dy), List.of())) {
            Drawn.Item o = b.item(y);
            if (from[y] < 0
                && x.samePlace(o)
                && same.test(x, o)
                && x.pins().keySet().equals(o.pins().keySet())
                && cost.agreement(x, o) >= AGREES) {
              found.add(y);
            }
          }
        }
      }
      if (found.size() == 1) {
        take(i, found.getFirst());
      }
    }
  }

  private static String cell(Drawn.Item i, int dx, int dy) {
    return i.kind()
        + i.side()
        + (Math.round(i.xMm() / Drawn.SAME_MM) + dx)
        + "/"
        + (Math.round(i.yMm() / Drawn.SAME_MM) + dy);
  }

  /// What stands alone in what it joins: far looks first, they are the surest.
  private void byWhatTheyJoin() {
    int depth = DEEP;
    while (depth >= 0) {
      if (alone(depth)) {
        again();
        depth = DEEP;
      } else {
        depth--;
      }
    }
  }

  private boolean alone(int depth) {
    Colours c = new Colours(a, b, to, nets);
    for (int i = 0; i < depth; i++) {
      c.round();
    }
    PairCost cost = costs();
    boolean some = false;
    for (int[] pair : c.alone()) {
      if (cost.agreement(a.item(pair[0]), b.item(pair[1])) >= AGREES) {
        take(pair[0], pair[1]);
        some = true;
      }
    }
    return some;
  }

  /// Parts that are alike in all that they join: one is picked, which may tell the others apart.
  private void alikes() {
    int most = Math.min(MOST_PICKS, MOST_LOOKS / Math.max(1, a.size() + b.size()));
    for (int picks = 0; picks < most; picks++) {
      Colours c = new Colours(a, b, to, nets);
      for (int i = 0; i < DEEP; i++) {
        c.round();
      }
      Optional<List<List<Integer>>> group =
          c.groups().stream()
              .filter(g -> g.get(0).size() == g.get(1).size())
              .min(java.util.Comparator.comparingInt(g -> g.get(0).size()));
      if (group.isEmpty()) {
        return;
      }
      int[] best = null;
      double least = Double.POSITIVE_INFINITY;
      int x = group.get().get(0).getFirst();
      for (int y : group.get().get(1)) {
        double d = apart(a.item(x), b.item(y));
        if (d < least) {
          least = d;
          best = new int[] {x, y};
        }
      }
      take(best[0], best[1]);
      again();
      byWhatTheyJoin();
    }
  }

  private static double apart(Drawn.Item x, Drawn.Item y) {
    double d = Math.hypot(x.xMm() - y.xMm(), x.yMm() - y.yMm());
    return d + (x.reference().equals(y.reference()) ? 0 : 2) + (x.side() == y.side() ? 0 : 100);
  }

  /// Nets by the places that they have in common, before anything is known of the parts: only where
  /// most of the places are the same.
  private Map<String, String> byPlaces() {
    Map<String, Map<String, Integer>> common = new HashMap<>();
    for (Drawn.Item i : a.items()) {
      int y = b.at(i.reference());
      if (y < 0) {
        continue;
      }
      i.pins()
          .forEach((pin, net) -> {
            String there = b.item(y).pins().getOrDefault(pin, "");
            if (!net.isEmpty() && !there.isEmpty()) {
              common.computeIfAbsent(net, _ -> new HashMap<>()).merge(there, 1, Integer::sum);
            }
          });
    }
    Map<String, String> all = new HashMap<>();
    Set<String> taken = new HashSet<>();
    common.forEach((net, there) ->
        there.forEach((other, n) -> {
          if (n >= AGREES * Math.max(a.size(net), b.size(other)) && taken.add(other)) {
            all.putIfAbsent(net, other);
          }
        }));
    return all;
  }

  /// Nets of the same name that have about as many ends.
  private Map<String, String> sameNames() {
    Map<String, String> all = new HashMap<>();
    for (String n : a.nets()) {
      int ends = a.size(n);
      if (b.size(n) > 0 && Math.abs(b.size(n) - ends) <= Math.max(2, ends / 5)) {
        all.put(n, n);
      }
    }
    return all;
  }

  /// The nets anew, from the parts that are matched.
  private void again() {
    nets =
        new HashMap<>(
            NetDifference.matched(joints(first.joints(), true), joints(second.joints(), false)));
    Set<String> taken = new HashSet<>(nets.values());
    base.forEach((x, y) -> {
      if (!nets.containsKey(x) && taken.add(y)) {
        nets.put(x, y);
      }
    });
  }

  /// Joints of parts that are matched, under the references of the first.
  private List<Joint> joints(List<Joint> all, boolean own) {
    List<Joint> found = new ArrayList<>();
    for (Joint j : all) {
      int i = own ? a.at(j.part()) : b.at(j.part());
      if (own ? to[i] >= 0 : from[i] >= 0) {
        found.add(own ? j : called(j, a.item(from[i]).reference()));
      }
    }
    return found;
  }

  /// The same joint of a part with another reference.
  static Joint called(Joint j, String reference) {
    return new Joint(
        reference,
        j.pin(),
        j.net(),
        j.xMm(),
        j.yMm(),
        j.reach(),
        j.hole(),
        j.drillMm(),
        j.plated(),
        j.widthMm(),
        j.heightMm(),
        j.rotationDeg(),
        j.middle(),
        j.mask());
  }

  /// Assigns anew everything that is not matched, or not well: what may be what, part by part of
  /// that puzzle.
  ///
  /// @return whether something is matched otherwise than before
  private boolean assign() {
    PairCost cost = costs();
    List<Integer> left = new ArrayList<>();
    List<Integer> right = new ArrayList<>();
    for (int i = 0; i < to.length; i++) {
      if (to[i] < 0 || doubtful(i, cost)) {
        left.add(i);
        if (to[i] >= 0) {
          right.add(to[i]);
        }
      }
    }
    for (int i = 0; i < from.length; i++) {
      if (from[i] < 0) {
        right.add(i);
      }
    }
    Map<String, List<Integer>> byKind = new HashMap<>();
    right.forEach(y -> byKind.computeIfAbsent(b.item(y).kind(), _ -> new ArrayList<>()).add(y));
    Map<Integer, Map<Integer, Double>> may = new LinkedHashMap<>();
    Map<Integer, List<Integer>> back = new HashMap<>();
    Candidates candidates =
        (long) left.size() * right.size() <= MOST_PAIRS
            ? x -> byKind.getOrDefault(a.item(x).kind(), List.of())
            : near(right);
    exact &= (long) left.size() * right.size() <= MOST_PAIRS;
    for (int x : left) {
      Map<Integer, Double> own = new LinkedHashMap<>();
      for (int y : candidates.of(x)) {
        double c = cost.of(a.item(x), b.item(y));
        if (c < PairCost.alone(a.item(x)) + PairCost.alone(b.item(y))) {
          own.put(y, c);
          back.computeIfAbsent(y, _ -> new ArrayList<>()).add(x);
        }
      }
      may.put(x, own);
    }
    boolean changed = false;
    Set<Integer> done = new HashSet<>();
    for (int x : left) {
      if (done.contains(x)) {
        continue;
      }
      List<Integer> xs = new ArrayList<>(List.of(x));
      Set<Integer> ys = new LinkedHashSet<>();
      done.add(x);
      for (int i = 0; i < xs.size(); i++) {
        for (int y : may.get(xs.get(i)).keySet()) {
          if (ys.add(y)) {
            for (int o : back.get(y)) {
              if (done.add(o)) {
                xs.add(o);
              }
            }
          }
        }
      }
      changed |= settle(xs, List.copyOf(ys), may);
    }
    return changed;
  }

  /// What a part of the first may be.
  private interface Candidates {
    /// Parts of the second.
    Iterable<Integer> of(int x);
  }

  /// Where there are too many to try each with each: what has the same name, or hangs on the same
  /// net with few ends.
  private Candidates near(List<Integer> right) {
    Map<String, List<Integer>> on = new HashMap<>();
    for (int y : right) {
      for (String net : new HashSet<>(b.item(y).pins().values())) {
        if (b.size(net) <= Colours.MANY) {
          on.computeIfAbsent(net, _ -> new ArrayList<>()).add(y);
        }
      }
    }
    Set<Integer> there = new HashSet<>(right);
    return x -> {
      Set<Integer> some = new LinkedHashSet<>();
      int same = b.at(a.item(x).reference());
      if (same >= 0 && there.contains(same)) {
        some.add(same);
      }
      a.item(x)
          .pins()
          .values()
          .forEach(n -> some.addAll(on.getOrDefault(nets.getOrDefault(n, ""), List.of())));
      some.removeIf(y -> !b.item(y).kind().equals(a.item(x).kind()));
      return some;
    };
  }

  /// A part that only moved, or was only renamed, is not in doubt.
  private boolean doubtful(int i, PairCost cost) {
    Drawn.Item x = a.item(i);
    Drawn.Item y = b.item(to[i]);
    boolean pins = cost.agreement(x, y) == 1;
    return !(pins
        && x.sameAttributes(y)
        && (x.reference().equals(y.reference()) || x.samePlace(y)));
  }

  private boolean settle(
      List<Integer> xs, List<Integer> ys, Map<Integer, Map<Integer, Double>> may) {
    Map<Integer, Integer> now =
        xs.size() + ys.size() <= MOST_EXACT ? exactly(xs, ys, may) : bestFirst(xs, may);
    exact &= xs.size() + ys.size() <= MOST_EXACT;
    boolean changed = false;
    for (int x : xs) {
      int y = now.getOrDefault(x, -1);
      changed |= y != to[x];
    }
    if (changed) {
      for (int x : xs) {
        if (to[x] >= 0) {
          from[to[x]] = -1;
          to[x] = -1;
        }
      }
      now.forEach(this::take);
    }
    return changed;
  }

  private Map<Integer, Integer> bestFirst(
      List<Integer> xs, Map<Integer, Map<Integer, Double>> may) {
    record Pair(int x, int y, double cost) {}
    List<Pair> all = new ArrayList<>();
    for (int x : xs) {
      may.get(x).forEach((y, c) -> all.add(new Pair(x, y, c)));
    }
    all.sort(
        java.util.Comparator.comparingDouble(Pair::cost)
            .thenComparingInt(Pair::x)
            .thenComparingInt(Pair::y));
    Map<Integer, Integer> found = new LinkedHashMap<>();
    Set<Integer> taken = new HashSet<>();
    for (Pair p : all) {
      if (!found.containsKey(p.x()) && taken.add(p.y())) {
        found.put(p.x(), p.y());
      }
    }
    return found;
  }

  /// The cheapest way to say what is what, with those that are gone or new.
  private Map<Integer, Integer> exactly(
      List<Integer> xs, List<Integer> ys, Map<Integer, Map<Integer, Double>> may) {
    if (xs.size() == 1 && ys.size() <= 1) {
      return ys.isEmpty() ? Map.of() : Map.of(xs.getFirst(), ys.getFirst());
    }
    int n = xs.size() + ys.size();
    Graph<Integer, DefaultWeightedEdge> g = new SimpleWeightedGraph<>(DefaultWeightedEdge.class);
    Set<Integer> left = new LinkedHashSet<>();
    Set<Integer> right = new LinkedHashSet<>();
    for (int i = 0; i < n; i++) {
      g.addVertex(i);
      g.addVertex(n + i);
      left.add(i);
      right.add(n + i);
    }
    for (int i = 0; i < n; i++) {
      for (int k = 0; k < n; k++) {
        boolean x = i < xs.size();
        boolean y = k < ys.size();
        double c =
            x && y
                ? may.get(xs.get(i)).getOrDefault(ys.get(k), PairCost.NEVER)
                : x ? PairCost.alone(a.item(xs.get(i))) : y ? PairCost.alone(b.item(ys.get(k))) : 0;
        g.setEdgeWeight(g.addEdge(i, n + k), c);
      }
    }
    Map<Integer, Integer> found = new LinkedHashMap<>();
    for (DefaultWeightedEdge e :
        new KuhnMunkresMinimalWeightBipartitePerfectMatching<>(g, left, right)
            .getMatching()
            .getEdges()) {
      int i = g.getEdgeSource(e);
      int k = g.getEdgeTarget(e) - n;
      if (i < xs.size() && k < ys.size() && g.getEdgeWeight(e) < PairCost.NEVER) {
        found.put(xs.get(i), ys.get(k));
      }
    }
    return found;
  }
}
