package ell.core.beep;

import ell.core.board.Joint;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.index.strtree.STRtree;

/// Pairs of nets whose metal lies close enough for a bridge of solder.
final class Neighbours {
  private Neighbours() {}

  /// Two joints of different nets beside each other.
  ///
  /// @param gapMm between their metal
  record Side(Joint a, Joint b, double gapMm) {}

  /// Pairs of nets with a gap of at most `gapMm` between pads, in the spelling of [BeepList#pair],
  /// each with the place where they are nearest. Over a tree of their outlines, so that a large pad
  /// is near whatever lies at its edge; pads without a size count as 0.3 mm wide.
  static Map<String, Side> near(Map<String, List<Joint>> nets, double gapMm) {
    STRtree tree = new STRtree();
    nets.values().forEach(net -> insert(tree, net));
    Map<String, Side> pairs = new HashMap<>();
    for (List<Joint> net : nets.values()) {
      for (Joint j : net) {
        beside(
            tree,
            j,
            gapMm,
            side -> {
              if (j.net().compareTo(side.b().net()) < 0) {
                nearer(pairs, side);
              }
            });
      }
    }
    return pairs;
  }

  private static void insert(STRtree tree, List<Joint> joints) {
    joints.forEach(j -> tree.insert(outline(j), j));
  }

  /// What lies beside a joint, on whatever net.
  private static void beside(STRtree tree, Joint a, double gapMm, Consumer<Side> found) {
    Envelope own = outline(a);
    Envelope near = outline(a);
    near.expandBy(gapMm);
    tree.query(
        near,
        o -> {
          Joint b = (Joint) o;
          double gap = own.distance(outline(b));
          if (sameFace(a, b) && gap <= gapMm) {
            found.accept(new Side(a, b, gap));
          }
        });
  }

  /// Every two joints of two nets that lie beside each other.
  static List<Side> every(List<Joint> one, List<Joint> other, double gapMm) {
    STRtree tree = new STRtree();
    insert(tree, other);
    List<Side> found = new ArrayList<>();
    one.forEach(a -> beside(tree, a, gapMm, found::add));
    return found;
  }

  /// Every two joints of different nets that lie beside each other, each pair once.
  static List<Side> sides(List<Joint> joints, double gapMm) {
    STRtree tree = new STRtree();
    insert(tree, joints);
    Map<Joint, Integer> order = new java.util.IdentityHashMap<>();
    for (int i = 0; i < joints.size(); i++) {
      order.put(joints.get(i), i);
    }
    List<Side> found = new ArrayList<>();
    for (Joint j : joints) {
      beside(
          tree,
          j,
          gapMm,
          side -> {
            if (!j.net().equals(side.b().net()) && order.get(j) < order.get(side.b())) {
              found.add(side);
            }
          });
    }
    return found;
  }

  private static void nearer(Map<String, Side> pairs, Side s) {
    pairs.merge(
        BeepList.pair(s.a().net(), s.b().net()), s, (x, y) -> y.gapMm() < x.gapMm() ? y : x);
  }

  private static final int FEWEST_PINS = 3;
  private static final int MOST_PINS = 200;
  private static final double ADJACENT = 1.25;
  private static final double WIDEST_PITCH_MM = 5.3;

  /// Adds pins of a part that are next to each other, however wide the gap is: a drop of solder
  /// spans a row of 2.54 mm. What has two ends only is left out.
  static void addAdjacentPins(Map<String, Side> pairs, List<Joint> ofPart) {
    if (ofPart.size() < FEWEST_PINS || ofPart.size() > MOST_PINS) {
      return; // under a body of many balls no tip and no iron comes
    }
    double pitch = Double.POSITIVE_INFINITY;
    for (int i = 0; i < ofPart.size(); i++) {
      for (int k = 0; k < i; k++) {
        double d = ofPart.get(i).distanceMm(ofPart.get(k));
        pitch = d > 0 ? Math.min(pitch, d) : pitch;
      }
    }
    if (pitch > WIDEST_PITCH_MM) {
      return;
    }
    for (int i = 0; i < ofPart.size(); i++) {
      for (int k = 0; k < i; k++) {
        Joint a = ofPart.get(i);
        Joint b = ofPart.get(k);
        if (!a.net().equals(b.net()) && sameFace(a, b) && a.distanceMm(b) <= ADJACENT * pitch) {
          nearer(pairs, new Side(a, b, outline(a).distance(outline(b))));
        }
      }
    }
  }

  private static Envelope outline(Joint j) {
    Envelope e = new Envelope(j.xMm(), j.xMm(), j.yMm(), j.yMm());
    e.expandBy(width(j) / 2, height(j) / 2);
    return e;
  }

  private static boolean sameFace(Joint a, Joint b) {
    return a.reach() == b.reach() || a.reach() == Joint.Reach.BOTH || b.reach() == Joint.Reach.BOTH;
  }

  private static double width(Joint j) {
    double w = Math.max(j.widthMm(), j.drillMm());
    return w > 0 ? w : 0.3;
  }

  private static double height(Joint j) {
    double h = j.heightMm() > 0 ? Math.max(j.heightMm(), j.drillMm()) : width(j);
    return h > 0 ? h : 0.3;
  }
}
