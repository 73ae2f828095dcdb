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
/// Strokes whose ends meet are chained into closed loops, then those whose ends miss each other by
/// a small gap; the largest is the outside. Regions are loops as they are. A loop that is smaller
/// than what does not close is a hole in the board and never its edge.
public final class EdgeLoops {
  /// Ends that are closer are one corner, millimetre.
  public static final double GAP_MM = 0.02;

  /// Gaps up to this are closed, and told; millimetre. Common practice, no source.
  public static final double CLOSED_MM = 0.3;

  /// Loops that lie closer to each other than this on all four sides are one that was drawn twice.
  private static final double SAME_MM = 0.05;

  private final double gap;
  private int gaps;
  private double widest;

  private EdgeLoops(double gap) {
    this.gap = gap;
  }

  /// What the strokes of an outline come to.
  ///
  /// @param outline empty when nothing closes, or only what is smaller than what does not
  /// @param gaps how many gaps were closed
  /// @param widestMm the widest of them
  /// @param open how many runs of strokes do not close
  /// @param openMm the ends of the longest of them: x, y, x, y; empty when all close
  /// @param twice how many loops were drawn more than once
  public record Edge(
      Optional<Outline> outline,
      int gaps,
      double widestMm,
      int open,
      List<Double> openMm,
      int twice) {
    public Edge {
      openMm = List.copyOf(openMm);
    }

    /// How far apart the ends of the longest open run are, millimetre.
    public double apartMm() {
      return openMm.isEmpty()
          ? 0
          : Math.hypot(openMm.get(0) - openMm.get(2), openMm.get(1) - openMm.get(3));
    }
  }

  /// Chains the strokes.
  public static Edge of(Artwork art) {
    List<List<double[]>> open = new ArrayList<>();
    List<List<double[]>> closed = new ArrayList<>();
    EdgeLoops exact = new EdgeLoops(GAP_MM);
    for (Figure f : art.figures()) {
      switch (f) {
        case Figure.Stroke s when s.dark() ->
            (exact.closes(s.path()) ? closed : open).add(s.path());
        case Figure.Region r when r.dark() -> closed.add(r.edge());
        case Figure.Flash _, Figure.Stroke _, Figure.Region _ -> {}
      }
    }
    List<List<double[]>> rest = exact.chain(open, closed);
    EdgeLoops loose = new EdgeLoops(CLOSED_MM);
    rest = loose.chain(rest, closed);
    List<List<Point>> loops =
        new ArrayList<>(
            closed.stream()
                .map(EdgeLoops::points)
                .filter(l -> l.size() >= 3)
                .sorted(Comparator.comparingDouble((List<Point> l) -> -Math.abs(area(l))))
                .toList());
    int twice = once(loops);
    Optional<List<double[]>> longest =
        rest.stream().max(Comparator.comparingDouble(EdgeLoops::across));
    boolean hole =
        longest.isPresent()
            && !loops.isEmpty()
            && across(longest.get()) > across(corners(loops.getFirst()));
    return new Edge(
        loops.isEmpty() || hole ? Optional.empty() : Optional.of(new Outline(loops)),
        loose.gaps,
        loose.widest,
        rest.size(),
        longest
            .map(p -> List.of(p.getFirst()[0], p.getFirst()[1], p.getLast()[0], p.getLast()[1]))
            .orElse(List.of()),
        twice);
  }

  private static List<double[]> corners(List<Point> loop) {
    return loop.stream().map(p -> new double[] {p.xMm(), p.yMm()}).toList();
  }

  /// The room that a path takes, from corner to corner.
  private static double across(List<double[]> path) {
    double[] b = box(path);
    return Math.hypot(b[2] - b[0], b[3] - b[1]);
  }

  private static double[] box(List<double[]> path) {
    double[] b = {
      Double.POSITIVE_INFINITY,
      Double.POSITIVE_INFINITY,
      Double.NEGATIVE_INFINITY,
      Double.NEGATIVE_INFINITY
    };
    for (double[] p : path) {
      b[0] = Math.min(b[0], p[0]);
      b[1] = Math.min(b[1], p[1]);
      b[2] = Math.max(b[2], p[0]);
      b[3] = Math.max(b[3], p[1]);
    }
    return b;
  }

  /// Leaves each loop once; a second one would be a hole as large as the board.
  private static int once(List<List<Point>> loops) {
    int before = loops.size();
    List<double[]> boxes = new ArrayList<>();
    loops.removeIf(l -> {
      double[] b = box(corners(l));
      boolean again =
          boxes.stream()
              .anyMatch(o ->
                  Math.abs(o[0] - b[0]) < SAME_MM
                      && Math.abs(o[1] - b[1]) < SAME_MM
                      && Math.abs(o[2] - b[2]) < SAME_MM
                      && Math.abs(o[3] - b[3]) < SAME_MM);
      boxes.add(b);
      return again;
    });
    return before - loops.size();
  }

  private boolean closes(List<double[]> path) {
    return path.size() > 3 && near(path.getFirst(), path.getLast());
  }

  private boolean near(double[] a, double[] b) {
    return Math.hypot(a[0] - b[0], a[1] - b[1]) <= gap;
  }

  /// Walks from end to nearest end; buckets keep it linear in the number of strokes.
  ///
  /// @param loops takes what closes
  /// @return what does not
  private List<List<double[]>> chain(List<List<double[]>> open, List<List<double[]>> loops) {
    Map<Long, List<Integer>> ends = new HashMap<>();
    for (int i = 0; i < open.size(); i++) {
      for (double[] p : List.of(open.get(i).getFirst(), open.get(i).getLast())) {
        ends.computeIfAbsent(bucket(p, 0, 0), _ -> new ArrayList<>()).add(i);
      }
    }
    boolean[] used = new boolean[open.size()];
    List<List<double[]>> rest = new ArrayList<>();
    for (int i = 0; i < open.size(); i++) {
      if (used[i]) {
        continue;
      }
      used[i] = true;
      List<double[]> run = new ArrayList<>(open.get(i));
      grow(run, ends, used, open);
      if (!closes(run)) {
        run = new ArrayList<>(run.reversed()); // it may have begun in the middle of an open run
        grow(run, ends, used, open);
      }
      if (closes(run)) {
        gapped(run.getFirst(), run.getLast());
        loops.add(run);
      } else {
        rest.add(run);
      }
    }
    return rest;
  }

  private void grow(
      List<double[]> run,
      Map<Long, List<Integer>> ends,
      boolean[] used,
      List<List<double[]>> open) {
    while (!closes(run)) {
      int next = next(ends, used, open, run.getLast());
      if (next < 0) {
        return;
      }
      used[next] = true;
      List<double[]> more = open.get(next);
      double[] at = run.getLast();
      boolean forward = far(more.getFirst(), at) <= far(more.getLast(), at);
      List<double[]> on = forward ? more : more.reversed();
      boolean met = far(on.getFirst(), at) <= GAP_MM;
      gapped(on.getFirst(), at);
      run.addAll(met ? on.subList(1, on.size()) : on);
    }
  }

  private void gapped(double[] a, double[] b) {
    double d = far(a, b);
    if (d > GAP_MM) {
      gaps++;
      widest = Math.max(widest, d);
    }
  }

  private static double far(double[] a, double[] b) {
    return Math.hypot(a[0] - b[0], a[1] - b[1]);
  }

  private int next(
      Map<Long, List<Integer>> ends, boolean[] used, List<List<double[]>> open, double[] at) {
    int best = -1;
    double least = Double.POSITIVE_INFINITY;
    for (int dx = -1; dx <= 1; dx++) {
      for (int dy = -1; dy <= 1; dy++) {
        for (int i : ends.getOrDefault(bucket(at, dx, dy), List.of())) {
          double d = Math.min(far(open.get(i).getFirst(), at), far(open.get(i).getLast(), at));
          if (!used[i] && d <= gap && d < least) {
            least = d;
            best = i;
          }
        }
      }
    }
    return best;
  }

  private long bucket(double[] p, int dx, int dy) {
    long x = (long) Math.floor(p[0] / gap) + dx;
    long y = (long) Math.floor(p[1] / gap) + dy;
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
