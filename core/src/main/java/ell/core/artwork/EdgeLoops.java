package ell.core.artwork;

import ell.core.board.Outline;
import ell.core.board.Outline.Point;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// The edge of a board from the strokes of its outline layer: the middle of the pen is the edge.
/// Strokes whose ends lie within a small gap are chained into closed loops; the largest is the
/// outside. Regions are loops as they are.
public final class EdgeLoops {
  /// Ends that are closer are one corner, millimetre.
  public static final double GAP_MM = 0.02;

  private EdgeLoops() {}

  /// Chains the strokes.
  ///
  /// @return empty when no loop closes
  public static Optional<Outline> of(Artwork art) {
    List<List<double[]>> open = new ArrayList<>();
    List<List<double[]>> closed = new ArrayList<>();
    for (Figure f : art.figures()) {
      switch (f) {
        case Figure.Stroke s when s.dark() -> (closes(s.path()) ? closed : open).add(s.path());
        case Figure.Region r when r.dark() -> closed.add(r.edge());
        case Figure.Flash _, Figure.Stroke _, Figure.Region _ -> {}
      }
    }
    closed.addAll(chain(open));
    List<List<Point>> loops =
        closed.stream()
            .map(EdgeLoops::points)
            .filter(l -> l.size() >= 3)
            .sorted(Comparator.comparingDouble((List<Point> l) -> -Math.abs(area(l))))
            .toList();
    return loops.isEmpty() ? Optional.empty() : Optional.of(new Outline(loops));
  }

  private static boolean closes(List<double[]> path) {
    return path.size() > 3 && near(path.getFirst(), path.getLast());
  }

  private static boolean near(double[] a, double[] b) {
    return Math.hypot(a[0] - b[0], a[1] - b[1]) <= GAP_MM;
  }

  /// Walks from end to nearest end; buckets keep it linear in the number of strokes.
  private static List<List<double[]>> chain(List<List<double[]>> open) {
    Map<Long, List<Integer>> ends = new HashMap<>();
    for (int i = 0; i < open.size(); i++) {
      for (double[] p : List.of(open.get(i).getFirst(), open.get(i).getLast())) {
        ends.computeIfAbsent(bucket(p, 0, 0), _ -> new ArrayList<>()).add(i);
      }
    }
    boolean[] used = new boolean[open.size()];
    List<List<double[]>> loops = new ArrayList<>();
    for (int i = 0; i < open.size(); i++) {
      if (used[i]) {
        continue;
      }
      used[i] = true;
      List<double[]> loop = new ArrayList<>(open.get(i));
      while (!closes(loop)) {
        int next = next(ends, used, open, loop.getLast());
        if (next < 0) {
          break;
        }
        used[next] = true;
        List<double[]> more = open.get(next);
        loop.addAll(
            near(more.getFirst(), loop.getLast())
                ? more.subList(1, more.size())
                : more.reversed().subList(1, more.size()));
      }
      if (closes(loop)) {
        loops.add(loop);
      }
    }
    return loops;
  }

  private static int next(
      Map<Long, List<Integer>> ends, boolean[] used, List<List<double[]>> open, double[] at) {
    for (int dx = -1; dx <= 1; dx++) {
      for (int dy = -1; dy <= 1; dy++) {
        for (int i : ends.getOrDefault(bucket(at, dx, dy), List.of())) {
          if (!used[i] && (near(open.get(i).getFirst(), at) || near(open.get(i).getLast(), at))) {
            return i;
          }
        }
      }
    }
    return -1;
  }

  private static long bucket(double[] p, int dx, int dy) {
    long x = (long) Math.floor(p[0] / GAP_MM) + dx;
    long y = (long) Math.floor(p[1] / GAP_MM) + dy;
    return x * 1_000_003L + y;
  }

  private static List<Point> points(List<double[]> path) {
    List<Point> out = new ArrayList<>();
    for (double[] p : path) {
      if (out.isEmpty()
          || Math.hypot(p[0] - out.getLast().xMm(), p[1] - out.getLast().yMm()) > 1e-6) {
        out.add(new Point(p[0], p[1]));
      }
    }
    if (out.size() > 1
        && Math.hypot(
                out.getFirst().xMm() - out.getLast().xMm(),
                out.getFirst().yMm() - out.getLast().yMm())
            <= GAP_MM) {
      out.removeLast();
    }
    return out;
  }

  private static double area(List<Point> l) {
    double sum = 0;
    for (int i = 0; i < l.size(); i++) {
      Point a = l.get(i);
      Point b = l.get((i + 1) % l.size());
      sum += a.xMm() * b.yMm() - b.xMm() * a.yMm();
    }
    return sum / 2;
  }
}
