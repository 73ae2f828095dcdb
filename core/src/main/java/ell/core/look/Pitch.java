package ell.core.look;

import ell.core.board.Joint;
import ell.core.board.Revision;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/// How close the joints of each part lie: the least distance between middles of two joints of
/// different pins, millimetre; infinite for a part with one joint.
public final class Pitch {
  private final Map<String, Double> byPart = new HashMap<>();

  private Pitch() {}

  /// Measures all parts.
  public static Pitch of(Revision revision) {
    Pitch p = new Pitch();
    for (String r : revision.withJoints()) {
      p.byPart.put(r, least(revision.jointsOf(r)));
    }
    return p;
  }

  private static double least(List<Joint> all) {
    // sorted by x, only near ones are compared
    List<Joint> by = all.stream().sorted(java.util.Comparator.comparingDouble(Joint::xMm)).toList();
    double least = Double.POSITIVE_INFINITY;
    for (int i = 0; i < by.size(); i++) {
      for (int k = i + 1; k < by.size() && by.get(k).xMm() - by.get(i).xMm() < least; k++) {
        if (!by.get(i).pin().equals(by.get(k).pin())) {
          double d = by.get(i).distanceMm(by.get(k));
          least = d > 1e-6 ? Math.min(least, d) : least;
        }
      }
    }
    return least;
  }

  /// Of a part.
  public double of(String reference) {
    return byPart.getOrDefault(reference, Double.POSITIVE_INFINITY);
  }

  /// As a class of rates: `up to 0.5 mm`, `up to 0.8 mm`, `up to 1.3 mm`, `wider`.
  public static String words(double mm) {
    return mm <= 0.505
        ? "up to 0.5 mm"
        : mm <= 0.805 ? "up to 0.8 mm" : mm <= 1.305 ? "up to 1.3 mm" : "wider";
  }
}
