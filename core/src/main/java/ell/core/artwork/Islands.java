package ell.core.artwork;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.CoordinateSequence;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.TopologyException;
import org.locationtech.jts.geom.prep.PreparedGeometry;
import org.locationtech.jts.geom.prep.PreparedGeometryFactory;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.index.hprtree.HPRtree;
import org.locationtech.jts.operation.overlayng.OverlayNG;
import org.locationtech.jts.operation.overlayng.OverlayNGRobust;
import org.locationtech.jts.util.AssertionFailedException;

/// The filled islands of a layer: clear figures taken from what was dark before them, what touches
/// joined. A figure that nothing touches keeps the exact measures of its template.
///
/// Clearing figure by figure and joining afterwards gives the same as laying down one after the
/// other, for joining is without order.
public final class Islands {
  /// An opening is not made of more figures; one that is painted with a fine pen has some hundreds.
  private static final int MOST_IN_ONE = 3000;

  private static final class Item {
    final int order; // among all figures
    final int place; // among those that are kept with it
    final Figure figure;
    final Envelope box;
    Geometry cut; // set once the figure is no longer whole
    private Geometry shape;
    private PreparedGeometry ready;

    Item(int order, int place, Figure figure, Envelope box) {
      this.order = order;
      this.place = place;
      this.figure = figure;
      this.box = box;
    }

    Geometry shape() {
      if (cut != null) {
        return cut;
      }
      shape = shape == null ? figure.shape() : shape;
      return shape;
    }

    /// The path of a round pen, as long as nothing was cut from it; else null.
    List<double[]> round() {
      return cut != null ? null : Pen.path(figure);
    }

    PreparedGeometry ready() {
      ready = ready == null ? PreparedGeometryFactory.prepare(shape()) : ready;
      return ready;
    }

    boolean touches(Item other) {
      List<double[]> a = round();
      List<double[]> b = other.round();
      if (a != null && b != null && (long) a.size() * b.size() <= Pen.FEW) {
        return Pen.distance(a, b) <= (Pen.width(figure) + Pen.width(other.figure)) / 2;
      }
      // the figure with more corners is looked into by an index
      return shape().getNumPoints() >= other.shape().getNumPoints()
          ? ready().intersects(other.shape())
          : other.ready().intersects(shape());
    }
  }

  private final List<Item> items = new ArrayList<>();
  private final Map<Key, Template> measured = new HashMap<>();

  /// Groups of strokes that were met before, by their figures; their places from their corner.
  private final Map<Key, Island> strokes = new HashMap<>();

  private Islands() {}

  /// Works them out.
  ///
  /// @throws IllegalArgumentException when a figure crosses itself beyond repair
  public static List<Island> of(Artwork art) {
    try {
      return new Islands().run(art.figures());
    } catch (TopologyException | AssertionFailedException e) {
      throw new IllegalArgumentException(
          "the figures of the layer cannot be joined: " + e.getMessage(), e);
    }
  }

  private List<Island> run(List<Figure> figures) {
    List<Item> clear = new ArrayList<>();
    for (int i = 0; i < figures.size(); i++) {
      Figure f = figures.get(i);
      Envelope box = box(f);
      if (box.isNull()) {
        continue;
      }
      if (f.dark()) {
        items.add(new Item(i, items.size(), f, box));
      } else {
        clear.add(new Item(i, clear.size(), f, box));
      }
    }
    if (items.isEmpty()) {
      return List.of();
    }
    HPRtree tree = new HPRtree();
    items.forEach(i -> tree.insert(i.box, i));
    clear(tree, clear);
    int[] parent = join(tree);
    return gather(parent);
  }

  private Envelope box(Figure f) {
    if (f instanceof Figure.Flash(Template t, double x, double y, _, _)) {
      Envelope e = t.shape().getEnvelopeInternal(); // a copy
      e.translate(x, y);
      return e;
    }
    List<double[]> path = Pen.path(f);
    if (path == null) {
      return f.shape().getEnvelopeInternal();
    }
    Envelope e = new Envelope();
    path.forEach(p -> e.expandToInclude(p[0], p[1]));
    e.expandBy(Pen.width(f) / 2);
    return e;
  }

  /// Takes from each dark figure all clear ones that come later, at once: which of them comes first
  /// makes no difference to it.
  private void clear(HPRtree tree, List<Item> clear) {
    Map<Item, List<Item>> holes = new java.util.LinkedHashMap<>();
    for (Item c : clear) {
      for (Object o : tree.query(c.box)) {
        Item dark = (Item) o;
        if (dark.order < c.order && dark.touches(c)) {
          holes.computeIfAbsent(dark, _ -> new ArrayList<>()).add(c);
        }
      }
    }
    for (List<Item> cuts : holes.values()) {
      if (cuts.size() > MOST_IN_ONE) {
        throw tooMany(cuts.size());
      }
    }
    holes.forEach((dark, cuts) ->
        dark.cut = OverlayNGRobust.overlay(dark.shape(), together(cuts), OverlayNG.DIFFERENCE));
  }

  private int[] join(HPRtree tree) {
    int[] parent = new int[items.size()];
    for (int i = 0; i < parent.length; i++) {
      parent[i] = i;
    }
    for (Item a : items) {
      tree.query(
          a.box,
          o -> {
            Item b = (Item) o;
            if (b.place > a.place
                && root(parent, a.place) != root(parent, b.place)
                && a.touches(b)) {
              parent[root(parent, b.place)] = root(parent, a.place);
            }
          });
    }
    return parent;
  }

  private static int root(int[] parent, int i) {
    int r = i;
    while (parent[r] != r) {
      parent[r] = parent[parent[r]];
      r = parent[r];
    }
    return r;
  }

  /// What belongs together, in the order of the first of each.
  private List<List<Item>> groups(int[] parent) {
    List<List<Item>> groups = new ArrayList<>(parent.length);
    int[] group = new int[parent.length]; // by its root, plus one
    for (Item i : items) {
      int root = root(parent, i.place);
      if (group[root] == 0) {
        groups.add(List.of(i));
        group[root] = groups.size();
      } else {
        groups.set(group[root] - 1, joined(groups.get(group[root] - 1), i));
      }
    }
    return groups;
  }

  /// A group and one more; most are of one only, which need no room to grow.
  private static List<Item> joined(List<Item> group, Item more) {
    List<Item> all = group instanceof ArrayList<Item> ? group : new ArrayList<>(group);
    all.add(more);
    return all;
  }

  private List<Island> gather(int[] parent) {
    List<Island> out = new ArrayList<>(parent.length);
    for (List<Item> g : groups(parent)) {
      Item first = g.getFirst();
      if (g.size() == 1 && first.cut == null) {
        if (first.figure instanceof Figure.Flash(Template t, double x, double y, _, Tag tag)
            && t.shape().getNumGeometries() == 1) {
          out.add(new Island(t, x, y, tag));
          continue;
        }
        if (first.figure instanceof Figure.Stroke s
            && s.path().size() == 2
            && s.pen().penMm() > 0) {
          out.add(straight(s));
          continue;
        }
      }
      if (g.size() > MOST_IN_ONE) {
        throw tooMany(g.size());
      }
      Key alike = Key.of(g);
      Island known = alike == null ? null : strokes.get(alike);
      if (known != null) {
        double[] at = corner(g);
        out.add(new Island(known.template(), known.x() + at[0], known.y() + at[1], largest(g)));
        continue;
      }
      Geometry all = g.size() == 1 ? first.shape() : together(g);
      Tag tag = largest(g);
      for (int i = 0; i < all.getNumGeometries(); i++) {
        if (all.getGeometryN(i) instanceof Polygon p && p.getArea() > 1e-9) {
          out.add(measured(p, tag));
          if (alike != null && all.getNumGeometries() == 1) {
            double[] at = corner(g);
            Island one = out.getLast();
            strokes.put(
                alike, new Island(one.template(), one.x() - at[0], one.y() - at[1], Tag.NONE));
          }
        }
      }
    }
    return out;
  }

  private static IllegalArgumentException tooMany(int figures) {
    return new IllegalArgumentException(
        "one area of it is made of "
            + figures
            + " figures, and an opening for paste of a few: is it copper, or a drawing?");
  }

  /// The lower left corner of a group.
  private static double[] corner(List<Item> group) {
    double x = Double.POSITIVE_INFINITY;
    double y = Double.POSITIVE_INFINITY;
    for (Item i : group) {
      x = Math.min(x, i.box.getMinX());
      y = Math.min(y, i.box.getMinY());
    }
    return new double[] {x, y};
  }

  /// What round pens of one width leave is worked out at once, which is much faster than one by
  /// one.
  private static Geometry together(List<Item> group) {
    Map<Double, List<List<double[]>>> pens = new java.util.TreeMap<>();
    List<Geometry> shapes = new ArrayList<>();
    for (Item i : group) {
      List<double[]> path = i.round();
      if (path == null) {
        shapes.add(i.shape());
      } else {
        pens.computeIfAbsent(Pen.width(i.figure), _ -> new ArrayList<>()).add(path);
      }
    }
    pens.forEach((width, paths) -> shapes.add(Template.along(paths, width)));
    return shapes.size() == 1 ? shapes.getFirst() : OverlayNGRobust.union(shapes);
  }

  /// One straight run of a round pen has exact measures.
  private static Island straight(Figure.Stroke s) {
    double[] a = s.path().getFirst();
    double[] b = s.path().getLast();
    double run = Math.hypot(b[0] - a[0], b[1] - a[1]);
    double d = s.pen().penMm();
    double x = (a[0] + b[0]) / 2;
    double y = (a[1] + b[1]) / 2;
    if (run == 0) {
      return new Island(s.pen(), x, y, s.tag());
    }
    Geometry g = AffineTransformation.translationInstance(-x, -y).transform(s.shape());
    return new Island(
        new Template(
            g, run * d + Math.PI * d * d / 4, 2 * run + Math.PI * d, d, run + d, Double.NaN),
        x,
        y,
        s.tag());
  }

  private static Tag largest(List<Item> g) {
    Tag best = Tag.NONE;
    double most = -1;
    for (Item i : g) {
      double area = i.box.getArea();
      if (!i.figure.tag().part().isEmpty() && area > most) {
        most = area;
        best = i.figure.tag();
      }
    }
    return best;
  }

  /// Layers repeat the same shapes many times: each is measured once.
  private Island measured(Polygon p, Tag tag) {
    Coordinate c = p.getEnvelopeInternal().centre();
    Geometry own = AffineTransformation.translationInstance(-c.x, -c.y).transform(p);
    return new Island(
        measured.computeIfAbsent(Key.of((Polygon) own), _ -> Template.of(own)), c.x, c.y, tag);
  }

  /// Corners to a tenth of a micrometre, to know shapes again.
  private record Key(long[] corners) {
    /// Strokes and discs by their places within their group; null when there is anything else in
    /// it.
    static Key of(List<Item> group) {
      double[] at = corner(group);
      int n = 0;
      for (Item i : group) {
        List<double[]> path = i.round();
        if (path == null) {
          return null;
        }
        n += 2 + 2 * path.size();
      }
      long[] all = new long[n];
      n = 0;
      for (Item i : group) {
        List<double[]> path = i.round();
        all[n++] = path.size();
        all[n++] = Math.round(Pen.width(i.figure) * 1e5);
        for (double[] p : path) {
          all[n++] = Math.round((p[0] - at[0]) * 1e5);
          all[n++] = Math.round((p[1] - at[1]) * 1e5);
        }
      }
      return new Key(all);
    }

    static Key of(Polygon p) {
      List<CoordinateSequence> rings = new ArrayList<>();
      rings.add(p.getExteriorRing().getCoordinateSequence());
      for (int i = 0; i < p.getNumInteriorRing(); i++) {
        rings.add(p.getInteriorRingN(i).getCoordinateSequence());
      }
      long[] all = new long[rings.stream().mapToInt(r -> 2 * r.size()).sum()];
      int n = 0;
      for (CoordinateSequence r : rings) {
        for (int i = 0; i < r.size(); i++) {
          all[n++] = Math.round(r.getX(i) * 1e4);
          all[n++] = Math.round(r.getY(i) * 1e4);
        }
      }
      return new Key(all);
    }

    @Override
    public boolean equals(Object o) {
      return o instanceof Key(long[] other) && Arrays.equals(corners, other);
    }

    @Override
    public int hashCode() {
      return Arrays.hashCode(corners);
    }
  }
}
