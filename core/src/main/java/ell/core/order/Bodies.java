package ell.core.order;

import ell.core.board.PackageShape;
import ell.core.board.Part;
import ell.core.board.Revision;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiConsumer;

/// Which bodies are near each other, by a grid over the board.
final class Bodies {
  private final List<Part> parts;
  private final double[][] boxes;
  private final PackageShape[] shapes;
  private final Map<Long, List<Integer>> cells = new HashMap<>();
  private final double cellMm;

  Bodies(Revision revision, List<Part> parts) {
    this.parts = parts;
    this.boxes = new double[parts.size()][];
    this.shapes = new PackageShape[parts.size()];
    double sum = 0;
    int placed = 0;
    for (int i = 0; i < boxes.length; i++) {
      Part p = parts.get(i);
      shapes[i] = revision.shape(p);
      if (p.place().isPresent()) {
        boxes[i] = shapes[i].boxAt(p.place().get());
        sum += Math.max(boxes[i][2] - boxes[i][0], boxes[i][3] - boxes[i][1]);
        placed++;
      }
    }
    this.cellMm = Math.max(3, placed == 0 ? 3 : 2 * sum / placed);
    for (int i = 0; i < boxes.length; i++) {
      if (boxes[i] != null) {
        int at = i;
        over(boxes[i], 0, key -> cells.computeIfAbsent(key, _ -> new ArrayList<>(4)).add(at));
      }
    }
  }

  double height(int i) {
    return shapes[i].heightMm();
  }

  PackageShape shape(int i) {
    return shapes[i];
  }

  /// Calls back once for each pair on one side whose boxes, one of them grown by `clearanceMm`,
  /// meet.
  void near(double clearanceMm, BiConsumer<Integer, Integer> pair) {
    for (int i = 0; i < boxes.length; i++) {
      if (boxes[i] == null) {
        continue;
      }
      int a = i;
      java.util.Set<Integer> seen = new java.util.HashSet<>();
      over(
          boxes[i],
          clearanceMm,
          key -> {
            for (int b : cells.getOrDefault(key, List.of())) {
              if (b > a
                  && parts.get(a).side() == parts.get(b).side()
                  && seen.add(b)
                  && meet(boxes[a], boxes[b], clearanceMm)) {
                pair.accept(a, b);
              }
            }
          });
    }
  }

  private void over(double[] box, double grow, java.util.function.LongConsumer cell) {
    long x0 = (long) Math.floor((box[0] - grow) / cellMm);
    long x1 = (long) Math.floor((box[2] + grow) / cellMm);
    long y0 = (long) Math.floor((box[1] - grow) / cellMm);
    long y1 = (long) Math.floor((box[3] + grow) / cellMm);
    for (long x = x0; x <= x1; x++) {
      for (long y = y0; y <= y1; y++) {
        cell.accept(x * 1_000_003L + y);
      }
    }
  }

  /// Whether the body of `over` lies above the middle of the body of `under`.
  boolean covers(int over, int under) {
    double cx = (boxes[under][0] + boxes[under][2]) / 2;
    double cy = (boxes[under][1] + boxes[under][3]) / 2;
    double[] o = boxes[over];
    return cx > o[0] && cx < o[2] && cy > o[1] && cy < o[3];
  }

  private static boolean meet(double[] a, double[] b, double grow) {
    return a[0] - grow < b[2] && b[0] < a[2] + grow && a[1] - grow < b[3] && b[1] < a[3] + grow;
  }
}
