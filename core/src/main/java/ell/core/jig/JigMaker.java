package ell.core.jig;

import ell.core.artwork.Drilling;
import ell.core.board.Joint;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.power.Ladder;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.DoubleSupplier;
import java.util.stream.Collectors;

/// Plans a jig: pins, targets, probes, fingers, wires, and what is to be said of them.
public final class JigMaker {
  private static final int NAMED = 8;
  static final long SEED = 20;

  private JigMaker() {}

  /// What a jig is planned from.
  ///
  /// @param vias holes that only join layers
  /// @param holes of the drill files
  /// @param nets to be reached, each known to the revision
  /// @param asked the same in words
  /// @param kinds of target that may be used
  /// @param topOk whether probes may come from the first side
  /// @param told what is to be said beforehand
  /// @param left seconds that integer programmes may still take in all, as they go by
  public record From(
      Revision revision,
      List<Joint> vias,
      Optional<Drilling> holes,
      Ladder ladder,
      Collection<String> nets,
      String asked,
      Set<TargetKind> kinds,
      boolean topOk,
      JigSetup setup,
      List<String> told,
      DoubleSupplier left) {
    public From {
      told = List.copyOf(told);
      vias = List.copyOf(vias);
      nets = List.copyOf(nets);
      kinds = Set.copyOf(kinds);
    }
  }

  /// Plans it.
  public static JigPlan plan(From f) {
    Revision r = f.revision;
    List<double[]> near = new ArrayList<>();
    f.nets.forEach(n -> r.net(n).forEach(j -> near.add(new double[] {j.xMm(), j.yMm()})));
    Tooling tooling = Tooling.of(r, f.holes, near);
    Set<Side> sides = f.topOk ? EnumSet.allOf(Side.class) : EnumSet.of(Side.SECOND);
    Targets.Found found = Targets.of(r, f.vias, f.nets, f.kinds, sides, f.setup, tooling.pins());
    List<Need> needs = Needs.of(r, f.ladder, f.nets, f.setup, "active");
    ProbeChoice choice = ProbeChoice.of(needs, found.targets(), f.left);
    Bending bending = Fingers.of(r, choice.probes(), f.setup);
    JigWires wires = JigWires.of(r, f.ladder, needs, choice.probes(), f.setup);
    List<JigPlan.Unreachable> unreachable = unreachable(f, found, choice);
    BreakEven.Costs costs = costs(f.setup, choice.probes().size());
    BreakEven worth = BreakEven.of(costs, f.setup.number("spread"), SEED);
    JigPlan plan =
        new JigPlan(
            r,
            f.setup,
            f.asked,
            needs,
            found.targets(),
            choice,
            tooling,
            bending,
            wires,
            unreachable,
            worth,
            costs,
            List.of());
    return with(plan, advice(f, plan, found));
  }

  private static JigPlan with(JigPlan p, List<String> advice) {
    return new JigPlan(
        p.revision(),
        p.setup(),
        p.asked(),
        p.needs(),
        p.targets(),
        p.choice(),
        p.tooling(),
        p.bending(),
        p.wires(),
        p.unreachable(),
        p.worth(),
        p.costs(),
        advice);
  }

  /// The same jig with other fingers: only the bending is worked out again.
  ///
  /// @param fingers `{x, y}` in millimetre
  public static JigPlan pressed(JigPlan p, List<double[]> fingers) {
    String words =
        fingers.stream()
            .map(f -> String.format(Locale.ROOT, "%.2f,%.2f", f[0], f[1]))
            .collect(Collectors.joining(" "));
    JigSetup setup = p.setup().say("fingers=" + words);
    Bending bending = Fingers.of(p.revision(), p.probes(), setup);
    return new JigPlan(
        p.revision(),
        setup,
        p.asked(),
        p.needs(),
        p.targets(),
        p.choice(),
        p.tooling(),
        bending,
        p.wires(),
        p.unreachable(),
        p.worth(),
        p.costs(),
        p.advice());
  }

  /// What the maker said of costs, with what the probes cost.
  static BreakEven.Costs costs(JigSetup s, int probes) {
    return new BreakEven.Costs(
        probes * s.number("probePrice") + 4 * s.number("platePrice") + s.number("framePrice"),
        s.number("hours"),
        s.number("hourRate"),
        s.number("helperRate"),
        s.number("minutesBefore"),
        s.number("minutesAfter"),
        s.number("escapes"),
        s.number("escapePrice"),
        s.number("boardsNow") + s.number("boardsLater"));
  }

  private static List<JigPlan.Unreachable> unreachable(
      From f, Targets.Found found, ProbeChoice choice) {
    List<JigPlan.Unreachable> all = new ArrayList<>();
    for (String net : f.nets) {
      Integer lacks = choice.lacking().get(net);
      if (lacks == null) {
        continue;
      }
      boolean some = choice.probes().stream().anyMatch(p -> p.target().net().equals(net));
      boolean crowded = found.targets().stream().anyMatch(t -> t.net().equals(net));
      String why =
          some
              ? lacks
                  + (lacks == 1 ? " probe too few" : " probes too few")
                  + " for its current or its signals"
              : crowded
                  ? "other probes are in the way of each of its places"
                  : why(f, net, found.refused().getOrDefault(net, Map.of()));
      all.add(new JigPlan.Unreachable(net, why, remedy(f, net, why)));
    }
    return all;
  }

  private static String why(From f, String net, Map<String, Integer> refused) {
    if (f.revision.net(net).isEmpty()) {
      return "it has no joint";
    }
    if (refused.isEmpty()) {
      return "none of its places is free on the side that probes come from";
    }
    return refused.entrySet().stream()
        .sorted(Map.Entry.<String, Integer>comparingByValue(Comparator.reverseOrder()))
        .map(e -> e.getKey() + (e.getValue() > 1 ? " (" + e.getValue() + " places)" : ""))
        .collect(Collectors.joining("; "));
  }

  private static String remedy(From f, String net, String why) {
    String at =
        f.revision.net(net).stream().findFirst().map(j -> " beside " + j.place()).orElse("");
    return (why.startsWith("only from the first side") && !f.topOk
            ? "--top-ok lets probes come from above; or "
            : "")
        + "a test point of 1 mm or more on the second side"
        + at;
  }

  private static List<String> advice(From f, JigPlan p, Targets.Found found) {
    List<String> all = new ArrayList<>();
    all.addAll(f.told);
    all.addAll(p.tooling().told());
    List<String> above =
        p.probes().stream()
            .filter(x -> x.target().side() == Side.FIRST)
            .map(x -> x.target().net())
            .distinct()
            .toList();
    if (!above.isEmpty()) {
      all.add(
          "test points on the second side for "
              + some(above)
              + " would spare every probe from above, and half the work of the jig");
    }
    List<String> missed =
        p.unreachable().stream().map(JigPlan.Unreachable::net).distinct().toList();
    if (!missed.isEmpty()) {
      all.add("next revision: a test point of 1 mm or more on the second side for " + some(missed));
    }
    if (found.assumed() > 0) {
      all.add(
          found.assumed()
              + " places have no size in the netlist: 1 mm is taken for test points, drill and 0.25"
              + " mm of ring for holes, 0.5 mm for pads");
    }
    all.addAll(p.choice().told());
    p.probes().stream()
        .max(Comparator.comparingDouble(Probe::miss))
        .filter(x -> x.miss() > 1e-3)
        .ifPresent(x ->
            all.add(
                String.format(
                    Locale.ROOT,
                    "the likeliest miss is %s at %s, %.2g %%; the jig misses somewhere in %.2g %% of"
                        + " closings",
                    x.target().net(),
                    x.target().place(),
                    100 * x.miss(),
                    100 * p.miss())));
    all.addAll(p.bending().told());
    all.addAll(p.wires().told());
    if (!p.press().equals("by hand") && !p.probes().isEmpty()) {
      all.add(
          String.format(
              Locale.ROOT,
              "%.0f N are closed %s: %.0f N are much for a hand",
              p.force(),
              p.press(),
              f.setup.number("hand")));
    }
    return all;
  }

  private static String some(List<String> names) {
    return String.join(" ", names.stream().limit(NAMED).toList())
        + (names.size() > NAMED ? " and " + (names.size() - NAMED) + " more" : "");
  }
}
