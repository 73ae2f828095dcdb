package ell.core.pulse;

import ell.core.artwork.Artwork;
import ell.core.artwork.Drilling;
import ell.core.artwork.Figure;
import ell.core.board.Joint;
import ell.core.board.Side;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.PriorityQueue;
import java.util.TreeMap;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Point;
import org.locationtech.jts.geom.prep.PreparedGeometry;
import org.locationtech.jts.geom.prep.PreparedGeometryFactory;
import org.locationtech.jts.index.strtree.STRtree;

/// Follows a conductor through the copper of a revision, from a joint to others: along the middle
/// of its strokes, over pads and areas as the crow flies, through plated holes to the other side.
/// Millimetre, as the layers are.
public final class CopperPath {
  private static final double MEETS = 0.01;
  private static final int MOST_FIGURES = 20_000;

  private final List<Piece> pieces = new ArrayList<>();
  private final Map<Side, STRtree> trees = new HashMap<>();
  private final List<Drilling.Hole> holes;
  private final List<Node> nodes = new ArrayList<>();
  private final Map<Long, List<Integer>> byCell = new HashMap<>();

  /// Copper on a layer.
  private static final class Piece {
    final Figure figure;
    final Side side;
    final Geometry shape;
    private PreparedGeometry ready;
    final List<Integer> nodes = new ArrayList<>();
    boolean met;

    Piece(Figure figure, Side side) {
      this.figure = figure;
      this.side = side;
      this.shape = figure.shape();
    }

    PreparedGeometry ready() {
      ready = ready == null ? PreparedGeometryFactory.prepare(shape) : ready;
      return ready;
    }
  }

  /// A point on a piece.
  private record Node(double x, double y, Side side, List<Edge> edges) {}

  private record Edge(int to, double length, double width) {}

  /// The way to a joint.
  ///
  /// @param to the joint
  /// @param lengthMm along the middle of the copper
  /// @param widths how long it is of which width, millimetre by millimetre; 0 where it runs through
  ///   an area, whose width nobody can say
  /// @param holes how often it changes the side
  /// @param points `{x, y}` along it
  public record Way(
      Joint to, double lengthMm, Map<Double, Double> widths, int holes, List<double[]> points) {
    public Way {
      widths = java.util.Collections.unmodifiableMap(new TreeMap<>(widths));
      points = List.copyOf(points);
    }

    /// The width that most of it has; 0 when most of it runs through areas.
    public double widthMm() {
      return widths.entrySet().stream()
          .max(Map.Entry.comparingByValue())
          .map(Map.Entry::getKey)
          .orElse(0.0);
    }
  }

  private CopperPath(Map<Side, Artwork> copper, Optional<Drilling> drilling) {
    this.holes = drilling.map(Drilling::holes).orElse(List.of());
    copper.forEach((side, art) -> {
      STRtree tree = new STRtree();
      for (Figure f : art.figures()) {
        if (f.dark()) {
          Piece p = new Piece(f, side);
          if (!p.shape.isEmpty()) {
            pieces.add(p);
            tree.insert(p.shape.getEnvelopeInternal(), p);
          }
        }
      }
      trees.put(side, tree);
    });
  }

  /// Follows the copper.
  ///
  /// @param copper layers by their side
  /// @param holes that are plated, if they are known
  /// @param from the joint to begin at
  /// @param to joints to look for
  /// @return the shortest way to each that is reached, nearest first
  /// @throws IllegalArgumentException when the layers have more figures than can be followed
  public static List<Way> follow(
      Map<Side, Artwork> copper, Optional<Drilling> holes, Joint from, List<Joint> to) {
    int count = copper.values().stream().mapToInt(a -> a.figures().size()).sum();
    if (count > 50 * MOST_FIGURES) {
      throw new IllegalArgumentException("copper of " + count + " figures is not followed");
    }
    return new CopperPath(copper, holes).ways(from, to);
  }

  private List<Way> ways(Joint from, List<Joint> to) {
    List<Piece> begin = at(from);
    grow(begin);
    int start = joint(from, begin);
    Map<Joint, Integer> ends = new LinkedHashMap<>();
    for (Joint j : to) {
      List<Piece> there = at(j).stream().filter(p -> p.met).toList();
      if (!there.isEmpty()) {
        ends.put(j, joint(j, there));
      }
    }
    if (start < 0) {
      return List.of();
    }
    double[] length = new double[nodes.size()];
    int[] before = new int[nodes.size()];
    Edge[] by = new Edge[nodes.size()];
    Arrays.fill(length, Double.POSITIVE_INFINITY);
    Arrays.fill(before, -1);
    length[start] = 0;
    PriorityQueue<double[]> open = new PriorityQueue<>(Comparator.comparingDouble(a -> a[1]));
    open.add(new double[] {start, 0});
    while (!open.isEmpty()) {
      double[] next = open.poll();
      int i = (int) next[0];
      if (next[1] > length[i]) {
        continue;
      }
      for (Edge e : nodes.get(i).edges()) {
        double l = length[i] + e.length();
        if (l < length[e.to()] - 1e-12) {
          length[e.to()] = l;
          before[e.to()] = i;
          by[e.to()] = e;
          open.add(new double[] {e.to(), l});
        }
      }
    }
    List<Way> all = new ArrayList<>();
    ends.forEach((j, n) -> {
      if (Double.isFinite(length[n])) {
        all.add(way(j, n, length[n], before, by));
      }
    });
    all.sort(Comparator.comparingDouble(Way::lengthMm));
    return all;
  }

  private Way way(Joint j, int end, double length, int[] before, Edge[] by) {
    Map<Double, Double> widths = new TreeMap<>();
    List<double[]> points = new ArrayList<>();
    int through = 0;
    for (int n = end; n >= 0; n = before[n]) {
      points.addFirst(new double[] {nodes.get(n).x(), nodes.get(n).y()});
      if (before[n] >= 0) {
        Edge e = by[n];
        if (e.length() > 0 && e.width() >= 0) {
          widths.merge(e.width(), e.length(), Double::sum);
        }
        through += nodes.get(n).side() == nodes.get(before[n]).side() ? 0 : 1;
      }
    }
    return new Way(j, length, widths, through, points);
  }

  private List<Piece> at(Joint j) {
    List<Piece> all = new ArrayList<>();
    for (Map.Entry<Side, STRtree> e : trees.entrySet()) {
      boolean reaches =
          j.hole()
              || switch (j.reach()) {
                case FIRST -> e.getKey() == Side.FIRST;
                case SECOND -> e.getKey() == Side.SECOND;
                default -> true;
              };
      if (reaches) {
        all.addAll(under(e.getValue(), j.xMm(), j.yMm()));
      }
    }
    return all;
  }

  private static List<Piece> under(STRtree tree, double x, double y) {
    Point p = point(x, y);
    List<Piece> all = new ArrayList<>();
    for (Object o : tree.query(new Envelope(x - MEETS, x + MEETS, y - MEETS, y + MEETS))) {
      Piece piece = (Piece) o;
      if (piece.ready().intersects(p) || piece.shape.distance(p) <= MEETS) {
        all.add(piece);
      }
    }
    return all;
  }

  private static Point point(double x, double y) {
    return ell.core.artwork.Template.MAKE.createPoint(new Coordinate(x, y));
  }

  /// Finds every piece that hangs together with some, and what they share.
  private void grow(List<Piece> begin) {
    List<Piece> open = new ArrayList<>(begin);
    begin.forEach(p -> p.met = true);
    int looked = 0;
    List<Piece> all = new ArrayList<>(begin);
    while (!open.isEmpty()) {
      Piece p = open.removeLast();
      if (++looked > MOST_FIGURES) {
        throw new IllegalArgumentException(
            "the net has more than " + MOST_FIGURES + " figures of copper: it is no line");
      }
      for (Piece q : neighbours(p)) {
        if (!q.met) {
          q.met = true;
          open.add(q);
          all.add(q);
        }
      }
    }
    for (Piece p : all) {
      corners(p);
    }
    for (Piece p : all) {
      for (Piece q : neighbours(p)) {
        if (q.met) {
          meet(p, q);
        }
      }
    }
    through(all);
    all.forEach(this::join);
  }

  private List<Piece> neighbours(Piece p) {
    List<Piece> near = new ArrayList<>();
    for (Object o : trees.get(p.side).query(p.shape.getEnvelopeInternal())) {
      Piece q = (Piece) o;
      if (q != p && p.ready().intersects(q.shape)) {
        near.add(q);
      }
    }
    for (Drilling.Hole h : holes) {
      if (h.plated().orElse(true) && p.ready().intersects(point(h.x(), h.y()))) {
        trees.forEach((side, tree) -> {
          if (side != p.side) {
            near.addAll(under(tree, h.x(), h.y()));
          }
        });
      }
    }
    return near;
  }

  private void corners(Piece p) {
    if (p.figure instanceof Figure.Stroke s && s.pen().penMm() > 0) {
      s.path().forEach(c -> p.nodes.add(node(c[0], c[1], p.side)));
    } else if (p.figure instanceof Figure.Flash f) {
      p.nodes.add(node(f.x(), f.y(), p.side));
    }
  }

  /// Where two pieces touch each of them gets a point: an end of the one that lies on the other, or
  /// the middle of what they share.
  private void meet(Piece p, Piece q) {
    if (p.figure instanceof Figure.Stroke s && s.pen().penMm() > 0) {
      boolean found = false;
      for (double[] c : List.of(s.path().getFirst(), s.path().getLast())) {
        if (q.ready().intersects(point(c[0], c[1]))) {
          onto(q, c[0], c[1]);
          found = true;
        }
      }
      if (found) {
        return;
      }
    }
    if (q.figure instanceof Figure.Stroke t && t.pen().penMm() > 0) {
      for (double[] c : List.of(t.path().getFirst(), t.path().getLast())) {
        if (p.ready().intersects(point(c[0], c[1]))) {
          return; // the other one says it
        }
      }
    }
    Point c = p.shape.intersection(q.shape).getCentroid();
    if (!c.isEmpty()) {
      onto(p, c.getX(), c.getY());
      onto(q, c.getX(), c.getY());
    }
  }

  /// A point of a piece at a place: of a stroke the nearest on its middle, joined to the place.
  private void onto(Piece p, double x, double y) {
    int there = node(x, y, p.side);
    if (p.figure instanceof Figure.Stroke s && s.pen().penMm() > 0) {
      double[] near = nearest(s.path(), x, y);
      int mine = node(near[0], near[1], p.side);
      if (!p.nodes.contains(mine)) {
        p.nodes.add(mine);
      }
      if (mine != there) {
        edge(mine, there, s.pen().penMm());
      }
    } else if (!p.nodes.contains(there)) {
      p.nodes.add(there);
    }
  }

  private static double[] nearest(List<double[]> path, double x, double y) {
    double best = Double.POSITIVE_INFINITY;
    double[] at = path.getFirst();
    for (int i = 1; i < path.size(); i++) {
      double[] a = path.get(i - 1);
      double[] b = path.get(i);
      double dx = b[0] - a[0];
      double dy = b[1] - a[1];
      double q = dx * dx + dy * dy;
      double f = q == 0 ? 0 : Math.clamp(((x - a[0]) * dx + (y - a[1]) * dy) / q, 0, 1);
      double px = a[0] + f * dx;
      double py = a[1] + f * dy;
      double d = Math.hypot(x - px, y - py);
      if (d < best) {
        best = d;
        at = new double[] {px, py};
      }
    }
    return at;
  }

  /// Plated holes join the sides.
  private void through(List<Piece> all) {
    for (Drilling.Hole h : holes) {
      if (!h.plated().orElse(true)) {
        continue;
      }
      List<Integer> there = new ArrayList<>();
      for (Piece p : all) {
        if (p.ready().intersects(point(h.x(), h.y()))) {
          onto(p, h.x(), h.y());
          int n = node(h.x(), h.y(), p.side);
          if (!there.contains(n)) {
            there.add(n);
          }
        }
      }
      for (int i = 1; i < there.size(); i++) {
        edge(there.get(0), there.get(i), 0, 0);
      }
    }
  }

  /// The points of a piece are joined: along a stroke in their order, over anything else directly.
  private void join(Piece p) {
    if (p.figure instanceof Figure.Stroke s && s.pen().penMm() > 0) {
      List<Integer> order = new ArrayList<>(p.nodes);
      order.sort(Comparator.comparingDouble(n -> along(s.path(), nodes.get(n))));
      for (int i = 1; i < order.size(); i++) {
        double l =
            along(s.path(), nodes.get(order.get(i))) - along(s.path(), nodes.get(order.get(i - 1)));
        edge(order.get(i - 1), order.get(i), Math.max(0, l), s.pen().penMm());
      }
      return;
    }
    boolean pad = p.figure instanceof Figure.Flash;
    for (int i = 0; i < p.nodes.size(); i++) {
      for (int k = i + 1; k < p.nodes.size(); k++) {
        edge(p.nodes.get(i), p.nodes.get(k), pad ? PAD : 0);
      }
    }
  }

  /// Over a pad the width is that of no line: it is left out of the widths that are met.
  private static final double PAD = -1;

  private static double along(List<double[]> path, Node n) {
    double gone = 0;
    double best = Double.POSITIVE_INFINITY;
    double at = 0;
    for (int i = 1; i < path.size(); i++) {
      double[] a = path.get(i - 1);
      double[] b = path.get(i);
      double l = Math.hypot(b[0] - a[0], b[1] - a[1]);
      double[] near = nearest(List.of(a, b), n.x(), n.y());
      double d = Math.hypot(near[0] - n.x(), near[1] - n.y());
      if (d < best - 1e-9) {
        best = d;
        at = gone + Math.hypot(near[0] - a[0], near[1] - a[1]);
      }
      gone += l;
    }
    return at;
  }

  private int joint(Joint j, List<Piece> there) {
    if (there.isEmpty()) {
      return -1;
    }
    int first = -1;
    for (Piece p : there) {
      int n = node(j.xMm(), j.yMm(), p.side);
      first = first < 0 ? n : first;
      if (n != first) {
        edge(first, n, 0, 0); // a lead goes through
      }
      if (p.figure instanceof Figure.Stroke s && s.pen().penMm() > 0) {
        double[] near = nearest(s.path(), j.xMm(), j.yMm());
        int mine = node(near[0], near[1], p.side);
        edge(n, mine, PAD);
        between(p, s, mine);
      } else {
        for (int k : p.nodes) {
          if (k != n) {
            edge(n, k, PAD);
          }
        }
      }
    }
    return first;
  }

  /// A point on a stroke that was joined already: to those before and behind it.
  private void between(Piece p, Figure.Stroke s, int mine) {
    double here = along(s.path(), nodes.get(mine));
    int before = -1;
    int behind = -1;
    for (int k : p.nodes) {
      double l = along(s.path(), nodes.get(k));
      if (k != mine && l <= here && (before < 0 || l > along(s.path(), nodes.get(before)))) {
        before = k;
      }
      if (k != mine && l >= here && (behind < 0 || l < along(s.path(), nodes.get(behind)))) {
        behind = k;
      }
    }
    for (int k : new int[] {before, behind}) {
      if (k >= 0) {
        edge(mine, k, Math.abs(along(s.path(), nodes.get(k)) - here), s.pen().penMm());
      }
    }
  }

  private int node(double x, double y, Side side) {
    long cell = Math.round(x / MEETS) * 4_000_037L + Math.round(y / MEETS);
    for (long dx = -1; dx <= 1; dx++) {
      for (long dy = -1; dy <= 1; dy++) {
        for (int i : byCell.getOrDefault(cell + dx * 4_000_037L + dy, List.of())) {
          Node n = nodes.get(i);
          if (n.side() == side && Math.hypot(n.x() - x, n.y() - y) <= MEETS / 2) {
            return i;
          }
        }
      }
    }
    nodes.add(new Node(x, y, side, new ArrayList<>()));
    byCell.computeIfAbsent(cell, _ -> new ArrayList<>()).add(nodes.size() - 1);
    return nodes.size() - 1;
  }

  private void edge(int a, int b, double width) {
    Node p = nodes.get(a);
    Node q = nodes.get(b);
    edge(a, b, Math.hypot(p.x() - q.x(), p.y() - q.y()), width);
  }

  private void edge(int a, int b, double length, double width) {
    if (a != b) {
      nodes.get(a).edges().add(new Edge(b, length, width));
      nodes.get(b).edges().add(new Edge(a, length, width));
    }
  }
}
