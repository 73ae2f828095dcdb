package ell.core.look;

import ell.core.board.Joint;
import ell.core.board.PackageShape;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.entry.BoardState;
import ell.core.order.OrderFacts;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/// Every joint of a board in an order that moves board and lens least: side by side, part by part,
/// around each part pin by pin; fine pitch and parts with a history come first on their side.
///
/// @param stops in order
/// @param hidden joints that no lens sees: under balls and under bodies; Beep and Prove cover them
public record Walk(List<Stop> stops, List<Joint> hidden) {
  /// One joint.
  ///
  /// @param side from which it is looked at
  /// @param risk chance of a defect there, 0...1
  public record Stop(Joint joint, Part part, Side side, double risk) {}

  public Walk {
    stops = List.copyOf(stops);
    hidden = List.copyOf(hidden);
  }

  /// Plans the walk of a board.
  ///
  /// @param state what is placed is walked; when nothing is, every fitted part
  public static Walk of(Revision revision, BoardState state, Risk risk) {
    List<Stop> stops = new ArrayList<>();
    List<Joint> hidden = new ArrayList<>();
    for (Side side : Side.values()) {
      List<Part> parts =
          revision.parts().stream()
              .filter(Part::fitted)
              .filter(p -> !p.kind().bare() && p.place().isPresent())
              .filter(p ->
                  OrderFacts.of(state).placed().isEmpty()
                      || OrderFacts.of(state).placed().contains(p.reference()))
              .toList();
      Map<Boolean, List<Part>> first = new LinkedHashMap<>();
      first.put(true, new ArrayList<>());
      first.put(false, new ArrayList<>());
      for (Part p : parts) {
        if (side == lookedAt(revision, p)) {
          first.get(risk.comesFirst(p)).add(p);
        }
      }
      double[] at = {revision.boxMm()[0], revision.boxMm()[3]};
      for (List<Part> group : first.values()) {
        for (Part p : tour(group, at)) {
          for (Joint j : around(revision.jointsOf(p.reference()))) {
            if (hides(revision, p, j)) {
              hidden.add(j);
            } else {
              stops.add(new Stop(j, p, side, risk.of(p, j)));
            }
          }
        }
      }
    }
    return new Walk(stops, hidden);
  }

  /// Surface parts show their joints on their own side, leads through the board on the other.
  private static Side lookedAt(Revision r, Part p) {
    return r.throughHole(p) ? p.side().other() : p.side();
  }

  /// Nearest next, then stretches turned round while that shortens the way; `at` is where the lens
  /// is, before and after.
  private static List<Part> tour(List<Part> group, double[] at) {
    List<Part> left = new ArrayList<>(group);
    List<Part> tour = new ArrayList<>();
    double x = at[0];
    double y = at[1];
    while (!left.isEmpty()) {
      double px = x;
      double py = y;
      Part next = left.stream().min(Comparator.comparingDouble(p -> away(p, px, py))).orElseThrow();
      left.remove(next);
      tour.add(next);
      x = next.place().orElseThrow().xMm();
      y = next.place().orElseThrow().yMm();
    }
    boolean changed = tour.size() < 2000;
    for (int round = 0; changed && round < 10; round++) {
      changed = false;
      for (int i = 0; i + 1 < tour.size(); i++) {
        for (int k = i + 1; k < tour.size(); k++) {
          double before =
              i == 0 ? away(tour.get(0), at[0], at[1]) : between(tour.get(i - 1), tour.get(i));
          double then =
              i == 0 ? away(tour.get(k), at[0], at[1]) : between(tour.get(i - 1), tour.get(k));
          if (k + 1 < tour.size()) {
            before += between(tour.get(k), tour.get(k + 1));
            then += between(tour.get(i), tour.get(k + 1));
          }
          if (then < before - 1e-9) {
            java.util.Collections.reverse(tour.subList(i, k + 1));
            changed = true;
          }
        }
      }
    }
    if (!tour.isEmpty()) {
      at[0] = tour.getLast().place().orElseThrow().xMm();
      at[1] = tour.getLast().place().orElseThrow().yMm();
    }
    return tour;
  }

  private static double away(Part p, double x, double y) {
    Part.Spot s = p.place().orElseThrow();
    return Math.hypot(s.xMm() - x, s.yMm() - y);
  }

  private static double between(Part a, Part b) {
    Part.Spot s = b.place().orElseThrow();
    return away(a, s.xMm(), s.yMm());
  }

  /// Counter-clockwise from the upper left, as the eye goes round a body.
  private static List<Joint> around(List<Joint> joints) {
    double cx = joints.stream().mapToDouble(Joint::xMm).average().orElse(0);
    double cy = joints.stream().mapToDouble(Joint::yMm).average().orElse(0);
    return joints.stream()
        .sorted(
            Comparator.comparingDouble(j -> {
              double a = Math.atan2(j.yMm() - cy, j.xMm() - cx) - 3 * Math.PI / 4;
              return a < 0 ? a + 2 * Math.PI : a;
            }))
        .toList();
  }

  /// Whether a body lies over a joint so that no lens sees it.
  static boolean hides(Revision r, Part p, Joint j) {
    PackageShape shape = r.shape(p);
    if (j.hole()) {
      return false;
    }
    if (shape.family() == PackageShape.Family.BALLS) {
      return true;
    }
    if (p.place().isEmpty()
        || shape.family() == PackageShape.Family.CHIP
        || r.jointsOf(p.reference()).size() < 5) {
      return false;
    }
    Part.Spot s = p.place().get();
    double dx = Math.abs(j.xMm() - s.xMm());
    double dy = Math.abs(j.yMm() - s.yMm());
    double half = Math.min(shape.lengthMm(), shape.widthMm()) / 2;
    return dx < half * 0.4 && dy < half * 0.4;
  }

  /// Share of the expected defects that a list of stops would meet, 0...1.
  public double coverage(List<Stop> some) {
    double all = stops.stream().mapToDouble(Stop::risk).sum();
    return all == 0 ? 1 : some.stream().mapToDouble(Stop::risk).sum() / all;
  }

  /// The fewest joints that meet a share of the expected defects, in the order of the walk.
  ///
  /// @param share 0...1
  public List<Stop> risky(double share) {
    List<Stop> by =
        stops.stream().sorted(Comparator.comparingDouble(Stop::risk).reversed()).toList();
    double all = stops.stream().mapToDouble(Stop::risk).sum();
    double sum = 0;
    double least = 0;
    for (Stop s : by) {
      if (sum >= share * all - 1e-12) {
        break;
      }
      sum += s.risk();
      least = s.risk();
    }
    double line = least;
    return stops.stream().filter(s -> s.risk() >= line - 1e-15).toList();
  }
}
