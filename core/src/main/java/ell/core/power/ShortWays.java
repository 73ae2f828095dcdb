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

  /// Two joints at which a fault joins their nets.
  public record Touch(Joint a, Joint b) {
    /// The joint on a net, where the other is on another one.
    public Optional<Joint> on(String net, String other) {
      return a.net().equals(net) && b.net().equals(other)
          ? Optional.of(a)
          : b.net().equals(net) && a.net().equals(other) ? Optional.of(b) : Optional.empty();
    }
  }

  /// Where a fault joins two nets: the pads of a bridge, the ends of a part that joins them; empty
  /// when it does not, or is named by nets alone.
  public static Optional<Touch> touch(Revision revision, Fault f) {
    return switch (f) {
      case Fault.Sometimes(double _, Fault g) -> touch(revision, g);
      case Fault.Short(String part) -> ends(revision.jointsOf(part));
      case Fault.Bridge(String a, String b, double _) ->
          revision.joint(a).flatMap(x -> revision.joint(b).map(y -> new Touch(x, y)));
      default -> Optional.empty();
    };
  }

  private static Optional<Touch> ends(List<Joint> own) {
    return own.stream()
        .filter(Joint::connected)
        .findFirst()
        .flatMap(a ->
            own.stream()
                .filter(b -> b.connected() && !b.net().equals(a.net()))
                .findFirst()
                .map(b -> new Touch(a, b)));
  }

  /// Ohms of copper from a joint to the short between its net and another; 0 where there is none,
  /// or nobody knows where.
  ///
  /// @param faults of the board, the first that joins the two nets counts
  /// @param place such as `U3.8`; 0 for a net, which is nowhere
  /// @param other the other net
  public double ohms(List<Fault> faults, String place, String other) {
    Optional<Joint> from = revision.joint(place);
    if (from.isEmpty()) {
      return 0;
    }
    String net = from.get().net();
    for (Fault f : faults) {
      Optional<Joint> to = touch(revision, f).flatMap(t -> t.on(net, other));
      if (to.isPresent()) {
        return nets.computeIfAbsent(
                net, n -> new CopperTree(revision.net(n), new Random(seed ^ n.hashCode())))
            .ohms(from.get(), to.get());
      }
    }
    return 0;
  }
}
