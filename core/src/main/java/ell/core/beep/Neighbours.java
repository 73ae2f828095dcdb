package ell.core.beep;

import ell.core.board.Joint;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.index.strtree.STRtree;

/// Pairs of nets whose metal lies close enough for a bridge of solder.
final class Neighbours {
  private Neighbours() {}

  /// Pairs with a gap of at most `gapMm` between pads, in the spelling of [BeepList#pair]. Over a
  /// tree of their outlines, so that a large pad is near whatever lies at its edge; pads without a
  /// size count as 0.3 mm wide.
  static Set<String> pairs(Map<String, List<Joint>> nets, double gapMm) {
    STRtree tree = new STRtree();
    for (List<Joint> net : nets.values()) {
      for (Joint j : net) {
        tree.insert(outline(j), j);
      }
    }
    tree.build();
    Set<String> pairs = new HashSet<>();
    for (List<Joint> net : nets.values()) {
      for (Joint j : net) {
        Envelope near = outline(j);
        near.expandBy(gapMm);
        tree.query(
            near,
            found -> {
              Joint o = (Joint) found;
              if (!o.net().equals(j.net())
                  && sameFace(j, o)
                  && outline(j).distance(outline(o)) <= gapMm) {
                pairs.add(BeepList.pair(j.net(), o.net()));
              }
            });
      }
    }
    return pairs;
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
