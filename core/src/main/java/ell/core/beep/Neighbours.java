package ell.core.beep;

import ell.core.board.Joint;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/// Pairs of nets whose metal lies close enough for a bridge of solder.
final class Neighbours {
  private Neighbours() {}

  /// Pairs with a gap of at most `gapMm` between pads, in the spelling of [BeepList#pair]. Over a
  /// grid; pads without a size count as 0.3 mm wide.
  static Set<String> pairs(Map<String, List<Joint>> nets, double gapMm) {
    double cell = 2.5;
    Map<Long, List<Joint>> grid = new HashMap<>();
    for (List<Joint> net : nets.values()) {
      for (Joint j : net) {
        grid.computeIfAbsent(key(j.xMm() / cell, j.yMm() / cell), _ -> new ArrayList<>(8)).add(j);
      }
    }
    Set<String> pairs = new HashSet<>();
    for (List<Joint> net : nets.values()) {
      for (Joint j : net) {
        long x = (long) Math.floor(j.xMm() / cell);
        long y = (long) Math.floor(j.yMm() / cell);
        for (long dx = -1; dx <= 1; dx++) {
          for (long dy = -1; dy <= 1; dy++) {
            for (Joint o : grid.getOrDefault(cellKey(x + dx, y + dy), List.of())) {
              if (!o.net().equals(j.net()) && gap(j, o) <= gapMm && sameFace(j, o)) {
                pairs.add(BeepList.pair(j.net(), o.net()));
              }
            }
          }
        }
      }
    }
    return pairs;
  }

  private static boolean sameFace(Joint a, Joint b) {
    return a.reach() == b.reach() || a.reach() == Joint.Reach.BOTH || b.reach() == Joint.Reach.BOTH;
  }

  private static double gap(Joint a, Joint b) {
    double dx = Math.abs(a.xMm() - b.xMm()) - (width(a) + width(b)) / 2;
    double dy = Math.abs(a.yMm() - b.yMm()) - (height(a) + height(b)) / 2;
    return Math.hypot(Math.max(0, dx), Math.max(0, dy));
  }

  private static double width(Joint j) {
    double w = Math.max(j.widthMm(), j.drillMm());
    return w > 0 ? w : 0.3;
  }

  private static double height(Joint j) {
    double h = j.heightMm() > 0 ? Math.max(j.heightMm(), j.drillMm()) : width(j);
    return h > 0 ? h : 0.3;
  }

  private static long key(double x, double y) {
    return cellKey((long) Math.floor(x), (long) Math.floor(y));
  }

  private static long cellKey(long x, long y) {
    return x * 2_000_003L + y;
  }
}
