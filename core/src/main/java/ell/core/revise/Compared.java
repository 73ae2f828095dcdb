package ell.core.revise;

import ell.core.look.ExactTest;
import ell.core.statistic.Counts;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/// Revisions, or builds, held against each other: how many boards were good at first, what was
/// wrong with the others, how long they took, and whether a difference is more than chance.
///
/// @param groups in the order of the builds
/// @param pairs each with the one before it
public record Compared(List<Group> groups, List<Pair> pairs) {
  private static final double CONFIDENCE = 0.95;

  /// Fewer boards in all cannot tell two shares apart even where all of one and none of the other
  /// are good: 3 against 3 have a chance of 0.1 by Fisher's test.
  private static final double TELLS = 0.05;

  /// Boards that belong together.
  ///
  /// @param name such as `rev A`
  /// @param boards all of them
  /// @param judged of which anything was asked
  /// @param good at first
  /// @param yield interval of the share that is good at first, at 95 %; empty when none was judged
  /// @param defects by kind
  /// @param joints that were soldered
  /// @param minutes on average of the boards that were timed, NaN when none was
  /// @param timed how many were
  /// @param cost of parts and of the work that was timed, for a board; NaN where neither is known
  public record Group(
      String name,
      int boards,
      int judged,
      int good,
      Optional<Counts.Interval> yield,
      Map<String, Integer> defects,
      int joints,
      double minutes,
      int timed,
      double cost) {
    public Group {
      defects = Collections.unmodifiableMap(new LinkedHashMap<>(defects));
    }

    /// The same with what a board costs.
    ///
    /// @param parts price of its parts, NaN when none is known
    /// @param hour price of an hour
    public Group costing(double parts, double hour) {
      double work = Double.isNaN(minutes) ? Double.NaN : minutes / 60 * hour;
      double all = Double.isNaN(parts) ? work : Double.isNaN(work) ? parts : parts + work;
      return new Group(name, boards, judged, good, yield, defects, joints, minutes, timed, all);
    }

    /// The share that was good at first, NaN when none was judged.
    public double share() {
      return judged == 0 ? Double.NaN : (double) good / judged;
    }

    /// All defects.
    public int all() {
      return defects.values().stream().mapToInt(i -> i).sum();
    }
  }

  /// Two groups.
  ///
  /// @param chance of a difference at least as large if both were alike; 1 where nothing is known
  /// @param tells whether so few boards could tell them apart at all
  /// @param words what follows
  public record Pair(String before, String after, double chance, boolean tells, String words) {}

  public Compared {
    groups = List.copyOf(groups);
    pairs = List.copyOf(pairs);
  }

  /// Counts a group.
  ///
  /// @param boards what each of its boards says
  public static Group group(String name, List<FirstPass> boards) {
    int judged = (int) boards.stream().filter(FirstPass::judged).count();
    int good = (int) boards.stream().filter(FirstPass::good).count();
    List<FirstPass> timed = boards.stream().filter(b -> b.minutes() > 0).toList();
    return new Group(
        name,
        boards.size(),
        judged,
        good,
        judged == 0 ? Optional.empty() : Optional.of(Counts.exact(good, judged, CONFIDENCE)),
        FirstPass.defects(boards),
        boards.stream().mapToInt(FirstPass::joints).sum(),
        timed.stream().mapToDouble(FirstPass::minutes).average().orElse(Double.NaN),
        timed.size(),
        Double.NaN);
  }

  /// Holds groups against each other, each against the one before it.
  ///
  /// @param failing what a board costs that is not good at first, 0 where nobody has said
  /// @param next boards that are still to be made, for what the change is worth
  public static Compared of(List<Group> groups, double failing, int next) {
    List<Pair> pairs = new ArrayList<>();
    for (int i = 1; i < groups.size(); i++) {
      pairs.add(pair(groups.get(i - 1), groups.get(i), failing, next));
    }
    return new Compared(groups, pairs);
  }

  private static Pair pair(Group a, Group b, double failing, int next) {
    if (a.judged() == 0 || b.judged() == 0) {
      return new Pair(
          a.name(),
          b.name(),
          1,
          false,
          "of " + (a.judged() == 0 ? a : b).name() + " no board was judged yet");
    }
    double chance =
        ExactTest.twoSided(a.judged() - a.good(), a.judged(), b.judged() - b.good(), b.judged());
    double least = ExactTest.twoSided(0, a.judged(), b.judged(), b.judged());
    boolean tells = least <= TELLS;
    StringBuilder s =
        new StringBuilder(
            String.format(
                Locale.ROOT,
                "%d of %d good at first, before it %d of %d",
                b.good(),
                b.judged(),
                a.good(),
                a.judged()));
    if (!tells) {
      s.append("; so few boards cannot tell them apart");
    } else if (chance > TELLS) {
      s.append(String.format(Locale.ROOT, "; chance alone does that in %.2g of 1", chance));
    } else {
      s.append(String.format(Locale.ROOT, "; more than chance (%.2g)", chance));
      if (failing > 0 && next > 0) {
        s.append(
            String.format(
                Locale.ROOT,
                "; over %d boards worth about %.0f",
                next,
                (b.share() - a.share()) * failing * next));
      }
    }
    return new Pair(a.name(), b.name(), chance, tells, s.toString());
  }
}
