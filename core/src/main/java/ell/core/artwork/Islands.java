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
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.index.strtree.STRtree;
import org.locationtech.jts.operation.overlayng.OverlayNG;
import org.locationtech.jts.operation.overlayng.OverlayNGRobust;
import org.locationtech.jts.util.AssertionFailedException;

/// The filled islands of a layer: clear figures taken from what was dark before them, what touches
/// joined. A figure that nothing touches keeps the exact measures of its template.
///
/// Clearing figure by figure and joining afterwards gives the same as laying down one after the
/// other, for joining is without order.
public final class Islands {
  private static final class Item {
    final int order;
    final Figure figure;
    final Envelope box;
    Geometry cut; // set once the figure is no longer whole

    Item(int order, Figure figure, Envelope box) {
      this.order = order;
      this.figure = figure;
      this.box = box;
    }

    Geometry shape() {
      return cut != null ? cut : figure.shape();
    }
  }

  private final List<Item> items = new ArrayList<>();
  private final Map<Template, Envelope> boxes = new HashMap<>();
  private final Map<Key, Template> measured = new HashMap<>();

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
        items.add(new Item(i, f, box));
      } else {
        clear.add(new Item(i, f, box));
      }
    }
    if (items.isEmpty()) {
      return List.of();
    }
    STRtree tree = new STRtree();
    for (int i = 0; i < items.size(); i++) {
      tree.insert(items.get(i).box, i);
    }
    clear(tree, clear);
    int[] parent = join(tree);
    return gather(parent);
  }

  private Envelope box(Figure f) {
    if (f instanceof Figure.Flash(Template t, double x, double y, _, _)) {
      Envelope e = boxes.computeIfAbsent(t, k -> k.shape().getEnvelopeInternal());
      return e.isNull()
          ? e
          : new Envelope(e.getMinX() + x, e.getMaxX() + x, e.getMinY() + y, e.getMaxY() + y);
    }
    return f.shape().getEnvelopeInternal();
  }

  private void clear(STRtree tree, List<Item> clear) {
    for (Item c : clear) {
      Geometry hole = c.figure.shape();
      for (Object o : tree.query(c.box)) {
        Item dark = items.get((Integer) o);
        if (dark.order < c.order) {
          Geometry now = dark.shape();
          if (now.intersects(hole)) {
            dark.cut = OverlayNGRobust.overlay(now, hole, OverlayNG.DIFFERENCE);
          }
        }
      }
    }
  }

  private int[] join(STRtree tree) {
    int[] parent = new int[items.size()];
    for (int i = 0; i < parent.length; i++) {
      parent[i] = i;
    }
    Geometry[] shapes = new Geometry[items.size()];
    for (int i = 0; i < items.size(); i++) {
      Item a = items.get(i);
      for (Object o : tree.query(a.box)) {
        int k = (Integer) o;
        if (k > i && root(parent, i) != root(parent, k)) {
          shapes[i] = shapes[i] == null ? a.shape() : shapes[i];
          shapes[k] = shapes[k] == null ? items.get(k).shape() : shapes[k];
          if (shapes[i].intersects(shapes[k])) {
            parent[root(parent, k)] = root(parent, i);
          }
        }
      }
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

  private List<Island> gather(int[] parent) {
    Map<Integer, List<Item>> groups = new java.util.LinkedHashMap<>();
    for (int i = 0; i < parent.length; i++) {
      groups.computeIfAbsent(root(parent, i), _ -> new ArrayList<>()).add(items.get(i));
    }
    List<Island> out = new ArrayList<>(groups.size());
    for (List<Item> g : groups.values()) {
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
      Geometry all =
          g.size() == 1
              ? first.shape()
              : OverlayNGRobust.union(g.stream().map(Item::shape).toList());
      Tag tag = largest(g);
      for (int i = 0; i < all.getNumGeometries(); i++) {
        if (all.getGeometryN(i) instanceof Polygon p && p.getArea() > 1e-9) {
          out.add(measured(p, tag));
        }
      }
    }
    return out;
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
