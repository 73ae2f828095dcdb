package ell.core.beep;

import ell.core.board.Joint;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/// Two nets whose metal lies so close that solder may join them.
///
/// @param a the joint where they are nearest
/// @param b the other there
/// @param gapMm between the two
/// @param places joints of them that lie side by side, 1 or more
public record Beside(Joint a, Joint b, double gapMm, int places) {
  private static final double GAP_MM = 0.6;
  private static final int MOST_PLACES = 40;

  /// All pairs of nets of a revision, by their pads and by the pins of parts that stand in a row.
  public static List<Beside> all(Revision revision) {
    Map<String, List<Joint>> nets = new HashMap<>();
    for (String n : revision.nets()) {
      nets.put(n, revision.net(n));
    }
    Map<String, Neighbours.Side> near = Neighbours.near(nets, GAP_MM);
    for (String part : revision.withJoints()) {
      if (!PartKind.of(part).bare()) {
        Neighbours.addAdjacentPins(
            near, revision.jointsOf(part).stream().filter(Joint::connected).toList());
      }
    }
    List<Beside> all = new ArrayList<>();
    for (String pair : near.keySet().stream().sorted().toList()) {
      Neighbours.Side s = near.get(pair);
      int places =
          Math.clamp(
              Neighbours.every(
                      revision.net(s.a().net()),
                      revision.net(s.b().net()),
                      Math.max(s.gapMm(), GAP_MM))
                  .size(),
              1,
              MOST_PLACES);
      all.add(new Beside(s.a(), s.b(), s.gapMm(), places));
    }
    return all;
  }
}
