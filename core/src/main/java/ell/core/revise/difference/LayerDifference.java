package ell.core.revise.difference;

import ell.core.artwork.Drilling;
import ell.core.artwork.Island;
import ell.core.board.Joint;
import ell.core.board.Revision;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/// What differs between the same layer of two drawings: shapes that came, that are gone, and that
/// have another size at the same place.
///
/// @param layer what it is, in words
/// @param added shapes that only the second has
/// @param removed shapes that only the first has
/// @param changed shapes at the same place of another size
/// @param parts references of the first at whose joints that is; of added shapes those of the
///   second
/// @param told what else is to be known, empty for nothing
public record LayerDifference(
    String layer, int added, int removed, int changed, List<String> parts, String told) {
  /// Shapes less than this apart are at the same place, in millimetre.
  private static final double SAME_MM = 0.03;

  private static final double SAME_SIZE = 0.02;

  /// A shape further from a joint belongs to no part, in millimetre.
  private static final double NEAR_MM = 1.5;

  /// A shape of a layer.
  ///
  /// @param xMm middle
  /// @param yMm middle
  /// @param size area in mm² of a shape, diameter in mm of a hole
  public record Shape(double xMm, double yMm, double size) {
    /// An opening, a piece of copper or of legend.
    public static Shape of(Island i) {
      double[] at = i.middle();
      return new Shape(at[0], at[1], i.template().area());
    }

    /// A hole; of a slot its middle.
    public static Shape of(Drilling.Hole h) {
      return new Shape((h.x() + h.toX()) / 2, (h.y() + h.toY()) / 2, h.diameter());
    }
  }

  public LayerDifference {
    parts = List.copyOf(parts);
  }

  /// Only one of the drawings has the layer, so that nothing can be held against it.
  public static LayerDifference one(String layer, String has) {
    return new LayerDifference(
        layer, 0, 0, 0, List.of(), "only " + has + " has it: nothing to hold it against");
  }

  /// Whether nothing differs.
  public boolean same() {
    return added == 0 && removed == 0 && changed == 0 && told.isEmpty();
  }

  /// Holds two lists of shapes against each other.
  ///
  /// @param dx by how much the second drawing lies to the right, millimetre
  /// @param dy by how much it lies higher
  public static LayerDifference of(
      String layer,
      List<Shape> first,
      List<Shape> second,
      Revision a,
      Revision b,
      double dx,
      double dy) {
    Map<String, List<Shape>> there = new HashMap<>();
    for (Shape s : second) {
      Shape back = new Shape(s.xMm() - dx, s.yMm() - dy, s.size());
      there.computeIfAbsent(cell(back, 0, 0), _ -> new ArrayList<>()).add(back);
    }
    Set<String> parts = new LinkedHashSet<>();
    int removed = 0;
    int changed = 0;
    for (Shape s : first) {
      Shape other = take(there, s);
      if (other == null) {
        removed++;
        near(a, s.xMm(), s.yMm(), parts);
      } else if (Math.abs(other.size() - s.size()) > SAME_SIZE * s.size()) {
        changed++;
        near(a, s.xMm(), s.yMm(), parts);
      }
    }
    int added = 0;
    for (List<Shape> left : there.values()) {
      for (Shape s : left) {
        added++;
        near(b, s.xMm() + dx, s.yMm() + dy, parts);
      }
    }
    return new LayerDifference(
        layer, added, removed, changed, parts.stream().sorted().toList(), "");
  }

  private static String cell(Shape s, int x, int y) {
    return Math.round(s.xMm() / SAME_MM) + x + "/" + (Math.round(s.yMm() / SAME_MM) + y);
  }

  /// The shape at the same place whose size is nearest, taken out; null for none.
  private static Shape take(Map<String, List<Shape>> there, Shape s) {
    Shape best = null;
    List<Shape> from = null;
    for (int x = -1; x <= 1; x++) {
      for (int y = -1; y <= 1; y++) {
        List<Shape> cell = there.getOrDefault(cell(s, x, y), List.of());
        for (Shape o : cell) {
          boolean at = Math.hypot(o.xMm() - s.xMm(), o.yMm() - s.yMm()) <= SAME_MM;
          if (at
              && (best == null
                  || Math.abs(o.size() - s.size()) < Math.abs(best.size() - s.size()))) {
            best = o;
            from = cell;
          }
        }
      }
    }
    if (best != null) {
      from.remove(best);
    }
    return best;
  }

  private static void near(Revision r, double x, double y, Set<String> parts) {
    double least = NEAR_MM;
    String part = "";
    for (Joint j : r.joints()) {
      double d = Math.hypot(j.xMm() - x, j.yMm() - y);
      if (d < least) {
        least = d;
        part = j.part();
      }
    }
    if (!part.isEmpty()) {
      parts.add(part);
    }
  }

  /// In words.
  public String words() {
    if (!told.isEmpty()) {
      return layer + ": " + told;
    }
    List<String> all = new ArrayList<>();
    if (added > 0) {
      all.add(added + " added");
    }
    if (removed > 0) {
      all.add(removed + " removed");
    }
    if (changed > 0) {
      all.add(changed + " of another size");
    }
    String at =
        parts.isEmpty() ? "" : ", at " + String.join(" ", parts.stream().limit(12).toList());
    return layer
        + ": "
        + String.join(", ", all)
        + at
        + (parts.size() > 12 ? " and " + (parts.size() - 12) + " more parts" : "");
  }
}
