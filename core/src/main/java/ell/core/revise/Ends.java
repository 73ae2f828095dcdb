package ell.core.revise;

import ell.core.board.Joint;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.power.Copper;
import ell.core.power.Ladder;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/// Where the ends of a wire go, how long it is, and how thick it has to be.
public final class Ends {
  /// Wires that lie on a bench, thin ones first; even gauges are what is sold.
  private static final int[] GAUGES = {30, 28, 26, 24, 22, 20, 18, 16};

  /// A short wire in free air, laid on a board: common practice, no source.
  private static final double AMPS_PER_MM2 = 6;

  /// A wire goes round things: so much longer than the straight line; common practice, no source.
  private static final double SLACK = 1.3;

  private static final double ENDS_MM = 6;

  private Ends() {}

  /// One end.
  ///
  /// @param place as it was written
  /// @param joint where the wire is soldered, empty when the place is on no joint
  /// @param chosen whether Ell has chosen the joint of a net
  public record End(String place, Optional<Joint> joint, boolean chosen) {
    /// The net that the end is on, empty for none.
    public String net() {
      return joint.map(Joint::net).orElse("");
    }
  }

  /// A wire.
  ///
  /// @param gauge AWG
  /// @param metres length with slack
  /// @param amps that it was chosen for
  /// @param guessed whether nobody knows the current
  public record Wire(int gauge, double metres, double amps, boolean guessed) {
    /// Volt that are lost over it.
    public double drop() {
      return amps * Copper.resistance(metres, Copper.roundArea(Copper.awgDiameter(gauge)));
    }
  }

  /// The two ends of a wire or of an added part; the one end of any other step.
  public static List<End> of(BodgeStep s, Revision revision) {
    List<End> ends = new ArrayList<>();
    for (String p : s.places()) {
      Optional<Joint> own = revision.joint(p);
      ends.add(new End(p, own, false));
    }
    for (int i = 0; i < ends.size(); i++) {
      if (ends.get(i).joint().isEmpty() && !revision.net(s.places().get(i)).isEmpty()) {
        Optional<Joint> other =
            ends.stream().filter(e -> e.joint().isPresent()).findFirst().flatMap(End::joint);
        ends.set(i, new End(s.places().get(i), near(revision, s.places().get(i), other), true));
      }
    }
    return ends;
  }

  /// Where a wire to a net is best soldered: at bare copper or a lead through the board before a
  /// small part, and at a chip last; among them the nearest.
  private static Optional<Joint> near(Revision revision, String net, Optional<Joint> from) {
    return revision.net(net).stream()
        .filter(j -> j.reach() != Joint.Reach.NONE)
        .filter(j -> from.isEmpty() || !j.place().equals(from.get().place()))
        .min(
            Comparator.comparingDouble((Joint j) -> from.map(j::distanceMm).orElse(0.0) + care(j))
                .thenComparing(Joint::place));
  }

  /// Millimetre of way that sparing a place is worth.
  private static double care(Joint j) {
    return switch (PartKind.of(j.part())) {
      case TEST_POINT, LINK, MARK -> 0;
      case CHIP, MODULE, CRYSTAL -> 40;
      default -> j.hole() ? 2 : 10;
    };
  }

  /// The wire of a step, empty where the step lays none, or an end lies nowhere.
  public static Optional<Wire> wire(BodgeStep s, Revision revision, Ladder ladder) {
    if (s.kind() != BodgeStep.Kind.WIRE) {
      return Optional.empty();
    }
    List<End> ends = of(s, revision);
    if (ends.stream().anyMatch(e -> e.joint().isEmpty())) {
      return Optional.empty();
    }
    double mm = ends.get(0).joint().orElseThrow().distanceMm(ends.get(1).joint().orElseThrow());
    Optional<Double> amps = amps(ends, ladder);
    return Optional.of(
        new Wire(
            gauge(amps.orElse(0.05)),
            (SLACK * mm + ENDS_MM) / 1000,
            amps.orElse(0.05),
            amps.isEmpty()));
  }

  /// The thinnest wire on the bench that carries a current.
  ///
  /// @param amps 0 or more
  public static int gauge(double amps) {
    for (int g : GAUGES) {
      if (amps <= AMPS_PER_MM2 * 1e6 * Copper.roundArea(Copper.awgDiameter(g))) {
        return g;
      }
    }
    return GAUGES[GAUGES.length - 1];
  }

  /// What may flow at the worst: what the part at an end takes from the rail at the other, or all
  /// that hangs on a rail where two nets are joined. Empty where nobody has said.
  private static Optional<Double> amps(List<End> ends, Ladder ladder) {
    List<String> nets = ends.stream().map(End::net).toList();
    List<String> parts =
        ends.stream()
            .filter(e -> !e.chosen())
            .flatMap(e -> e.joint().stream())
            .map(Joint::part)
            .toList();
    double sum =
        ladder.loads().stream()
            .filter(l -> nets.contains(l.rail()) && (parts.isEmpty() || parts.contains(l.part())))
            .mapToDouble(l -> l.in("worst"))
            .sum();
    return sum > 0 ? Optional.of(sum) : Optional.empty();
  }
}
