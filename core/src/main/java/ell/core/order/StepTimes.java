package ell.core.order;

import ell.core.entry.Entry;
import ell.core.order.Step.Action;
import java.util.Collection;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/// How long steps take: typical figures without a source, and how much slower or faster this bench
/// is by what its book shows.
///
/// @param factors by action, 1 where the book shows nothing
/// @param steps by action, how many timed steps that is from
public record StepTimes(Map<Action, Double> factors, Map<Action, Integer> steps) {
  static final double PLACE = 6;
  static final double REEL = 15;
  static final double TWO_ENDED = 20;
  static final double PIN = 4;
  static final double CONNECTOR = 30;
  static final double HOT_AIR = 25;
  static final double PASTE = 120;
  static final double PASTE_DOT = 5;
  static final double REFLOW = 480;
  static final double GATE = 120;
  static final double ARRIVE = 60;
  static final double CUT = 30;
  static final double ATTACH = 20;

  /// Turning the board over.
  static final double FLIP = 8;

  /// A hand crosses 100 mm in a second.
  static final double SECONDS_PER_MM = 0.01;

  /// Soldering a lower part after a taller one.
  static final double PAST_TALLER = 1;

  /// Reaching for the next board of several.
  static final double NEXT_BOARD = 4;

  /// So many typical steps are put beside what the book shows, so that one slow step does not count
  /// for much.
  private static final double PRIOR_STEPS = 3;

  private static final double MOST = 5;

  /// Nothing is learned yet.
  public static final StepTimes TYPICAL = new StepTimes(Map.of(), Map.of());

  public StepTimes {
    factors = Map.copyOf(factors);
    steps = Map.copyOf(steps);
  }

  /// How much longer than typical an action takes here.
  public double factor(Action action) {
    return factors.getOrDefault(action, 1.0);
  }

  /// Learns from the steps of a book that were timed: those that are a step of the order as it is.
  /// A step that took five times as long as it should was an interruption, and counts as five
  /// times.
  ///
  /// @param done steps of any boards of this order
  public static StepTimes learn(BuildOrder order, Collection<Entry.StepDone> done) {
    Map<Set<String>, Step> byParts = new HashMap<>();
    Map<String, Step> acts = new HashMap<>();
    for (Step s : order.steps()) {
      if (s.parts().isEmpty()) {
        acts.put(s.action().words() + " " + s.side().key(), s);
      } else {
        byParts.put(new HashSet<>(s.parts()), s);
      }
    }
    Map<Action, double[]> sums = new EnumMap<>(Action.class);
    for (Entry.StepDone d : done) {
      Step s =
          d.parts().isEmpty()
              ? acts.get(d.action() + " " + d.side())
              : byParts.get(new HashSet<>(d.parts()));
      if (s != null && d.seconds() > 0 && s.seconds() > 0) {
        double[] sum = sums.computeIfAbsent(s.action(), _ -> new double[3]);
        sum[0] += Math.clamp(d.seconds(), s.seconds() / MOST, s.seconds() * MOST);
        sum[1] += s.seconds();
        sum[2]++;
      }
    }
    Map<Action, Double> factors = new EnumMap<>(Action.class);
    Map<Action, Integer> steps = new EnumMap<>(Action.class);
    sums.forEach((action, sum) -> {
      double prior = PRIOR_STEPS * sum[1] / sum[2];
      factors.put(action, (sum[0] + prior) / (sum[1] + prior));
      steps.put(action, (int) sum[2]);
    });
    return new StepTimes(factors, steps);
  }

  /// Seconds of a step on this bench.
  public double seconds(Step s) {
    return s.seconds() * factor(s.action());
  }

  /// Seconds of steps on this bench.
  public double seconds(List<Step> several) {
    return several.stream().mapToDouble(this::seconds).sum();
  }
}
