package ell.desk.heat;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.heat.Alloy;
import ell.core.heat.HeatFacts;
import ell.core.heat.JointDemand;
import ell.core.order.Method;
import ell.desk.shell.Snapshot;
import ell.work.look.Looking;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/// What an iron solders on the board in hand, and the part and pin in hand.
///
/// @param part in hand of those that an iron solders, those that want most heat first
/// @param pins of the part in hand in the order of soldering
/// @param dial of the iron for it, degrees Celsius
/// @param partAt index of the part in hand
/// @param pinAt index of the pin in hand
record IronSide(
    Optional<Part> part, List<JointDemand.Pin> pins, double dial, int partAt, int pinAt) {
  /// A joint that no tip heats comes before all others.
  private static final double NEVER_S = 1e6;

  private static final double ROOM_C = 25;

  /// @param shown whether the iron's side is looked at; else nothing is worked out
  /// @param part index that was asked for, brought into range
  /// @param pin likewise
  static IronSide of(Snapshot.Work work, boolean shown, int part, int pin) {
    Alloy alloy = Alloy.of(work.build().alloy());
    List<Part> parts = shown ? parts(work, alloy) : List.of();
    int partAt = Math.clamp(part, 0, Math.max(0, parts.size() - 1));
    Optional<Part> inHand = parts.isEmpty() ? Optional.empty() : Optional.of(parts.get(partAt));
    int had =
        inHand
            .map(p -> HeatFacts.of(work.state()).heatCycles().getOrDefault(p.reference(), 0))
            .orElse(0);
    double dial = JointDemand.dial(alloy, had);
    List<JointDemand.Pin> pins =
        inHand
            .map(p ->
                JointDemand.order(
                    work.plan().revision(),
                    p,
                    Looking.planes(work.plan()),
                    alloy,
                    JointDemand.Tip.BEVEL,
                    dial))
            .orElse(List.of());
    return new IronSide(
        inHand, pins, dial, partAt, Math.clamp(pin, 0, Math.max(0, pins.size() - 1)));
  }

  private static List<Part> parts(Snapshot.Work work, Alloy alloy) {
    Set<String> planes = Looking.planes(work.plan());
    boolean all = Method.of(work.build().method()) == Method.IRON;
    return work.plan().revision().parts().stream()
        .filter(Part::fitted)
        .filter(p -> !p.kind().bare() && !work.plan().revision().jointsOf(p.reference()).isEmpty())
        .filter(p -> all || work.plan().revision().throughHole(p))
        .sorted(
            Comparator.comparingDouble((Part p) -> -most(work, p, alloy, planes))
                .thenComparing(Part::reference))
        .toList();
  }

  private static double most(Snapshot.Work work, Part p, Alloy alloy, Set<String> planes) {
    return work.plan().revision().jointsOf(p.reference()).stream()
        .mapToDouble(j -> seconds(work, j, alloy, planes))
        .max()
        .orElse(0);
  }

  private static double seconds(Snapshot.Work work, Joint j, Alloy alloy, Set<String> planes) {
    double s =
        JointDemand.of(
                JointDemand.body(work.plan().revision(), j, planes),
                alloy,
                JointDemand.Tip.BEVEL,
                JointDemand.dial(alloy, 0),
                ROOM_C)
            .seconds();
    return Double.isInfinite(s) ? NEVER_S : s;
  }
}
