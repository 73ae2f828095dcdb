package ell.core.beep;

import ell.core.board.Joint;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Two joints of different nets that lie so close that solder may join them.
///
/// @param a a joint
/// @param b the other
/// @param gapMm between the two
public record Beside(Joint a, Joint b, double gapMm) {
  private static final double GAP_MM = 0.6;

  /// No drop of solder creeps further than over a part of 1206; common practice, no source.
  private static final double ENDS_MM = 2;

  /// All such pairs of a revision, by their pads and by the pins of parts that stand in a row; the
  /// nearest first.
  ///
  /// @param most how many at most
  public static List<Beside> all(Revision revision, int most) {
    Map<String, Beside> all = new HashMap<>();
    List<Joint> joints = revision.joints().stream().filter(Joint::connected).toList();
    for (Neighbours.Side s : Neighbours.sides(joints, GAP_MM)) {
      put(all, s);
    }
    for (String part : revision.withJoints()) {
      if (!PartKind.of(part).bare()) {
        Map<String, Neighbours.Side> row = new HashMap<>();
        Neighbours.addAdjacentPins(
            row, revision.jointsOf(part).stream().filter(Joint::connected).toList());
        row.values().forEach(s -> put(all, s));
        ends(revision.jointsOf(part)).ifPresent(s -> put(all, s));
      }
    }
    return all.values().stream()
        .sorted(
            Comparator.comparingDouble(Beside::gapMm)
                .thenComparing(b -> b.a().place())
                .thenComparing(b -> b.b().place()))
        .limit(most)
        .toList();
  }

  /// The two ends of a small part, over whose body solder may creep.
  private static Optional<Neighbours.Side> ends(List<Joint> own) {
    if (own.size() != 2
        || !own.get(0).connected()
        || !own.get(1).connected()
        || own.get(0).net().equals(own.get(1).net())) {
      return Optional.empty();
    }
    double gap = own.get(0).distanceMm(own.get(1)) - own.get(0).widthMm();
    return gap <= ENDS_MM
        ? Optional.of(new Neighbours.Side(own.get(0), own.get(1), Math.max(gap, 0)))
        : Optional.empty();
  }

  private static void put(Map<String, Beside> all, Neighbours.Side s) {
    boolean first = s.a().place().compareTo(s.b().place()) < 0;
    Joint a = first ? s.a() : s.b();
    Joint b = first ? s.b() : s.a();
    all.putIfAbsent(a.place() + " " + b.place(), new Beside(a, b, s.gapMm()));
  }
}
