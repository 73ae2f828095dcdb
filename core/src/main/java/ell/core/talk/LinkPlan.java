package ell.core.talk;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/// Operations in the order in which the iron changes least, then jumpers and switches, then plugs.
/// A link is changed when an operation needs it otherwise than it stands, and stays so.
///
/// Worked out exactly, over the sets of operations that are done and how everything stands then;
/// where there would be more of these than can be looked at, the order is built up along the best
/// of them, and is not called proven.
///
/// @param steps in order
/// @param heats changes with the iron in all
/// @param changes of links in all
/// @param proven whether no order has fewer
public record LinkPlan(List<Step> steps, int heats, int changes, boolean proven) {
  /// Places that a plan keeps apart by bits.
  private static final int MOST_THINGS = 62;

  private static final int MOST_OPERATIONS = 30;

  /// States that are looked at in all; twelve operations over twelve links stay far below.
  private static final int MOST_STATES = 3_000_000;

  private static final long IRON = 1_000_000;
  private static final long HAND = 1000;

  public LinkPlan {
    steps = List.copyOf(steps);
  }

  /// A change of a link.
  public record Change(String link, boolean from, boolean to, boolean iron) {}

  /// An operation, and what is changed before it.
  ///
  /// @param plug what is plugged in before it
  /// @param unplug what is taken out before it
  public record Step(
      Operation operation, List<Change> changes, List<String> plug, List<String> unplug) {
    public Step {
      changes = List.copyOf(changes);
      plug = List.copyOf(plug);
      unplug = List.copyOf(unplug);
    }

    /// Whether the operation can begin as everything stands.
    public boolean ready() {
      return changes.isEmpty() && plug.isEmpty() && unplug.isEmpty();
    }
  }

  /// How everything stands.
  ///
  /// @param links true for closed
  /// @param plugged what is in; what is not named is not known, and counts as neither
  public record Stand(Map<String, Boolean> links, Map<String, Boolean> plugged) {
    public Stand {
      links = Map.copyOf(links);
      plugged = Map.copyOf(plugged);
    }
  }

  /// What must change before one operation.
  public static Step of(Operation o, List<Link> links, Stand now) {
    List<Change> changes = new ArrayList<>();
    o.links()
        .forEach((part, closed) -> {
          boolean is = now.links().getOrDefault(part, false);
          if (is != closed) {
            changes.add(new Change(part, is, closed, link(links, part).iron()));
          }
        });
    List<String> plug = new ArrayList<>();
    List<String> unplug = new ArrayList<>();
    o.plugs()
        .forEach((part, in) -> {
          // what nobody said is asked for
          if (in && !now.plugged().getOrDefault(part, false)) {
            plug.add(part);
          } else if (!in && now.plugged().getOrDefault(part, true)) {
            unplug.add(part);
          }
        });
    return new Step(o, changes, plug, unplug);
  }

  private static Link link(List<Link> links, String part) {
    return links.stream()
        .filter(l -> l.part().equals(part))
        .findFirst()
        .orElseThrow(() -> new IllegalArgumentException("there is no link " + part));
  }

  /// How everything stands after a step.
  public static Stand after(Step s, Stand now) {
    Map<String, Boolean> links = new HashMap<>(now.links());
    Map<String, Boolean> plugged = new HashMap<>(now.plugged());
    s.changes().forEach(c -> links.put(c.link(), c.to()));
    plugged.putAll(s.operation().plugs());
    return new Stand(links, plugged);
  }

  /// The best order.
  ///
  /// @param wanted operations, each once
  /// @param now how everything stands at the beginning
  /// @throws IllegalArgumentException when an operation names no link, comes after itself, or there
  ///   are more than 30 operations or 62 links and plugs
  public static LinkPlan of(List<Operation> wanted, List<Link> links, Stand now) {
    Search s = new Search(wanted, links, now);
    return s.plan();
  }

  private static final class Search {
    private final List<Operation> wanted;
    private final List<Link> links;
    private final Stand now;
    private final List<String> things = new ArrayList<>();
    private final long[] fixes;
    private final long[] as;
    private final long[] after;
    private final long[] weights;
    private int states;
    private boolean cut;

    private record Reached(long cost, Reached from, int operation, long stands) {}

    Search(List<Operation> wanted, List<Link> links, Stand now) {
      this.wanted = List.copyOf(wanted);
      this.links = links;
      this.now = now;
      int n = wanted.size();
      if (n > MOST_OPERATIONS) {
        throw new IllegalArgumentException("at most 30 operations, found " + n);
      }
      Set<String> named = new LinkedHashSet<>();
      for (Operation o : wanted) {
        o.links()
            .keySet()
            .forEach(l -> {
              link(links, l);
              named.add(l);
            });
      }
      Set<String> plugs = new LinkedHashSet<>();
      wanted.forEach(o -> plugs.addAll(o.plugs().keySet()));
      things.addAll(named);
      things.addAll(plugs);
      if (things.size() > MOST_THINGS) {
        throw new IllegalArgumentException("at most 62 links and plugs, found " + things.size());
      }
      weights = new long[things.size()];
      for (int i = 0; i < weights.length; i++) {
        weights[i] = i >= named.size() ? 1 : link(links, things.get(i)).iron() ? IRON : HAND;
      }
      fixes = new long[n];
      as = new long[n];
      after = new long[n];
      for (int i = 0; i < n; i++) {
        Operation o = wanted.get(i);
        for (int t = 0; t < things.size(); t++) {
          Map<String, Boolean> of = t < named.size() ? o.links() : o.plugs();
          Boolean must = of.get(things.get(t));
          if (must != null) {
            fixes[i] |= 1L << t;
            as[i] |= must ? 1L << t : 0;
          }
        }
        for (int j = 0; j < n; j++) {
          if (o.after().contains(wanted.get(j).name())) {
            after[i] |= 1L << j;
          }
        }
      }
    }

    /// Things as they stand now. A plug that nobody spoke of stands as most need it not: it costs a
    /// look at least.
    private long stands() {
      long b = 0;
      for (int t = 0; t < things.size(); t++) {
        boolean in =
            weights[t] >= HAND
                ? now.links().getOrDefault(things.get(t), false)
                : now.plugged().getOrDefault(things.get(t), false);
        b |= in ? 1L << t : 0;
      }
      return b;
    }

    LinkPlan plan() {
      int n = wanted.size();
      Map<Long, Map<Long, Reached>> layer = new HashMap<>();
      layer.put(0L, new HashMap<>(Map.of(stands(), new Reached(0, null, -1, stands()))));
      for (int k = 0; k < n; k++) {
        layer = further(layer, n);
      }
      Reached best = null;
      for (Map<Long, Reached> m : layer.values()) {
        for (Reached r : m.values()) {
          best = best == null || r.cost() < best.cost() ? r : best;
        }
      }
      if (best == null) {
        throw new IllegalArgumentException("an operation comes after itself");
      }
      return told(best);
    }

    private Map<Long, Map<Long, Reached>> further(Map<Long, Map<Long, Reached>> layer, int n) {
      Map<Long, Map<Long, Reached>> next = new HashMap<>();
      int room = MOST_STATES / Math.max(1, n);
      List<Map.Entry<Long, Reached>> all = new ArrayList<>();
      layer.forEach((done, m) -> m.values().forEach(r -> all.add(Map.entry(done, r))));
      if (all.size() > room) {
        all.sort((a, b) -> Long.compare(a.getValue().cost(), b.getValue().cost()));
        cut = true;
      }
      for (Map.Entry<Long, Reached> e : all.subList(0, Math.min(room, all.size()))) {
        long done = e.getKey();
        Reached r = e.getValue();
        for (int i = 0; i < n; i++) {
          if ((done >> i & 1) != 0 || (after[i] & ~done) != 0) {
            continue;
          }
          long stands = r.stands() & ~fixes[i] | as[i];
          long cost = r.cost() + cost(r.stands() ^ stands);
          Map<Long, Reached> m = next.computeIfAbsent(done | 1L << i, _ -> new HashMap<>());
          Reached there = m.get(stands);
          if (there == null || cost < there.cost()) {
            m.put(stands, new Reached(cost, r, i, stands));
          }
        }
      }
      return next;
    }

    private long cost(long changed) {
      long c = 0;
      for (long b = changed; b != 0; b &= b - 1) {
        c += weights[Long.numberOfTrailingZeros(b)];
      }
      return c;
    }

    private LinkPlan told(Reached best) {
      int[] order = new int[wanted.size()];
      int at = order.length;
      for (Reached r = best; r.from() != null; r = r.from()) {
        order[--at] = r.operation();
      }
      List<Step> steps = new ArrayList<>();
      Stand stand = now;
      int heats = 0;
      int changes = 0;
      for (int i : order) {
        Step s = LinkPlan.of(wanted.get(i), links, stand);
        steps.add(s);
        heats += (int) s.changes().stream().filter(Change::iron).count();
        changes += s.changes().size();
        stand = after(s, stand);
      }
      return new LinkPlan(steps, heats, changes, !cut);
    }
  }

  /// What has to be done before an operation and is not, and the operation, in the order in which
  /// they are named.
  ///
  /// @param done operations that the book has
  /// @throws IllegalArgumentException when there is no such operation
  public static List<Operation> needed(String name, List<Operation> all, Set<String> done) {
    List<Operation> found = new ArrayList<>();
    collect(name, all, done, found, new HashSet<>());
    return found;
  }

  private static void collect(
      String name, List<Operation> all, Set<String> done, List<Operation> into, Set<String> seen) {
    if (!seen.add(name)) {
      return;
    }
    Operation o =
        all.stream()
            .filter(x -> x.name().equals(name))
            .findFirst()
            .orElseThrow(() ->
                new IllegalArgumentException(
                    "there is no operation '"
                        + name
                        + "'; there are "
                        + String.join(", ", all.stream().map(Operation::name).toList())));
    for (String before : o.after()) {
      if (!done.contains(before)) {
        collect(before, all, done, into, seen);
      }
    }
    into.add(o);
  }
}
