package ell.core.print;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.quantity.Check;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;

/// Paste by needle, without a stencil: which pad next, how much, how long it takes, and from how
/// many boards on a stencil pays.
///
/// @param dots in the order of least way
/// @param seconds for one board
/// @param wayMm that the needle travels
public record SyringePlan(List<Dot> dots, double seconds, double wayMm) {
  /// One pad.
  ///
  /// @param paste that it wants, m³
  public record Dot(Joint joint, double paste) {}

  /// Seconds for a dot; typical, no source.
  public static final double DOT_S = 2.5;

  /// Seconds for a millimetre of way; typical, no source.
  public static final double WAY_S_PER_MM = 0.03;

  public SyringePlan {
    dots = List.copyOf(dots);
  }

  /// Plans one side.
  public static SyringePlan of(Revision revision, Side side, Paste paste) {
    List<Dot> open = new ArrayList<>();
    for (Joint j : revision.joints()) {
      Part p = revision.part(j.part()).orElse(null);
      boolean here =
          p != null
              && p.fitted()
              && !p.kind().bare()
              && !j.hole()
              && p.place().isPresent()
              && p.side() == side;
      if (here) {
        JointNeed.of(revision, j)
            .ifPresent(n ->
                open.add(new Dot(j, (n.least() + n.full()) / 2 / paste.metalVolumeFraction())));
      }
    }
    List<Dot> tour = shorter(nearest(open));
    double way = 0;
    for (int i = 1; i < tour.size(); i++) {
      way += tour.get(i - 1).joint().distanceMm(tour.get(i).joint());
    }
    return new SyringePlan(tour, tour.size() * DOT_S + way * WAY_S_PER_MM, way);
  }

  private static List<Dot> nearest(List<Dot> open) {
    List<Dot> left = new ArrayList<>(open);
    List<Dot> tour = new ArrayList<>();
    if (left.isEmpty()) {
      return tour;
    }
    left.sort(java.util.Comparator.comparingDouble(d -> d.joint().xMm() - d.joint().yMm()));
    Dot at = left.removeFirst();
    tour.add(at);
    while (!left.isEmpty()) {
      int best = 0;
      double least = Double.POSITIVE_INFINITY;
      for (int i = 0; i < left.size(); i++) {
        double d = at.joint().distanceMm(left.get(i).joint());
        if (d < least) {
          least = d;
          best = i;
        }
      }
      at = left.remove(best);
      tour.add(at);
    }
    return tour;
  }

  /// Turns stretches round while that shortens the way; on long tours only near ones.
  private static List<Dot> shorter(List<Dot> tour) {
    List<Dot> t = new ArrayList<>(tour);
    int n = t.size();
    int reach = n <= 1500 ? n : 60;
    boolean changed = true;
    for (int round = 0; changed && round < 12; round++) {
      changed = false;
      for (int i = 0; i + 2 < n; i++) {
        for (int k = i + 2; k + 1 < Math.min(n, i + reach); k++) {
          double now =
              t.get(i).joint().distanceMm(t.get(i + 1).joint())
                  + t.get(k).joint().distanceMm(t.get(k + 1).joint());
          double then =
              t.get(i).joint().distanceMm(t.get(k).joint())
                  + t.get(i + 1).joint().distanceMm(t.get(k + 1).joint());
          if (then < now - 1e-9) {
            java.util.Collections.reverse(t.subList(i + 1, k + 1));
            changed = true;
          }
        }
      }
    }
    return t;
  }

  /// From how many boards on a stencil is the cheaper way.
  ///
  /// @param stencil price of the stencil
  /// @param printSeconds for one print with it
  /// @param hour what an hour at the bench is worth, in the same money
  /// @return empty when it never pays
  /// @throws IllegalArgumentException when stencil is below 0, printSeconds is below 0 or hour is
  ///   not above 0
  public OptionalDouble breakEven(double stencil, double printSeconds, double hour) {
    Check.notNegative(stencil, "stencil");
    Check.notNegative(printSeconds, "printSeconds");
    Check.positive(hour, "hour");
    double saved = (seconds - printSeconds) / 3600 * hour;
    return saved <= 0 ? OptionalDouble.empty() : OptionalDouble.of(stencil / saved);
  }
}
