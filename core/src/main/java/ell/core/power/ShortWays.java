package ell.core.power;

import ell.core.board.Joint;
import ell.core.board.Revision;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;

/// What the copper adds to the ohms of a short, from a joint to where the short sits. For simulated
/// boards; the way of the other tip is nothing.
public final class ShortWays {
  private final Revision revision;
  private final long seed;
  private final Map<String, CopperTree> nets = new HashMap<>();

  /// @param seed of the widths of its tracks
  public ShortWays(Revision revision, long seed) {
    this.revision = revision;
    this.seed = seed;
  }

  /// Where a fault joins two nets, on the first of them; empty when it does not.
  public static Optional<Joint> at(Revision revision, Fault f, String net, String other) {
    return switch (f) {
      case Fault.Sometimes(double _, Fault g) -> at(revision, g, net, other);
      case Fault.Short(String part) ->
          one(revision, part, other).isPresent() ? one(revision, part, net) : Optional.empty();
      case Fault.Bridge(String a, String b, double _) -> {
        Optional<Joint> x = joint(revision, a);
        Optional<Joint> y = joint(revision, b);
        yield x.isEmpty() || y.isEmpty()
            ? Optional.empty()
            : on(x, net) && on(y, other) ? x : on(y, net) && on(x, other) ? y : Optional.empty();
      }
      default -> Optional.empty();
    };
  }

  private static boolean on(Optional<Joint> j, String net) {
    return j.filter(x -> x.net().equals(net)).isPresent();
  }

  private static Optional<Joint> one(Revision r, String part, String net) {
    return r.jointsOf(part).stream().filter(j -> j.net().equals(net)).findFirst();
  }

  private static Optional<Joint> joint(Revision r, String place) {
    int dot = place.lastIndexOf('.');
    return dot < 1
        ? Optional.empty()
        : r.joint(place.substring(0, dot), place.substring(dot + 1));
  }

  /// Ohms of copper from a joint to the short between its net and another; 0 where there is none,
  /// or nobody knows where.
  public double ohms(List<Fault> faults, String place, String other) {
    Optional<Joint> from = joint(revision, place);
    if (from.isEmpty()) {
      return 0;
    }
    String net = from.get().net();
    for (Fault f : faults) {
      Optional<Joint> to = at(revision, f, net, other);
      if (to.isPresent()) {
        return nets.computeIfAbsent(
                net, n -> new CopperTree(revision.net(n), new Random(seed ^ n.hashCode())))
            .ohms(from.get(), to.get());
      }
    }
    return 0;
  }
}
