package ell.core.practice;

import ell.core.board.Joint;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.power.Fault;
import java.util.Optional;
import java.util.Set;

/// Whether a fault that was found is the one that is there.
public final class SameFault {
  private final Revision revision;

  /// On boards of a revision.
  public SameFault(Revision revision) {
    this.revision = revision;
  }

  /// Whether two are the same fault at the same place, to whoever repairs it: a bridge over the
  /// ends of a part is a part that joins them, and what comes and goes is the same as what stays.
  public boolean same(Fault found, Fault there) {
    Fault a = steady(found);
    Fault b = steady(there);
    return one(a, b) || one(b, a);
  }

  private static Fault steady(Fault f) {
    return f instanceof Fault.Sometimes(double _, Fault g) ? g : f;
  }

  private boolean one(Fault found, Fault true_) {
    if (found.equals(true_)) {
      return true;
    }
    return switch (found) {
      case Fault.Open(String p, String pin) -> joint(true_, p, pin, true);
      case Fault.Loose(String p, String pin) -> joint(true_, p, pin, true);
      case Fault.Resistive(String p, String pin, double _) -> joint(true_, p, pin, false);
      case Fault.Short(String p) -> across(true_, p);
      case Fault.Bridge(String a, String b, double _) ->
          true_ instanceof Fault.Short(String p) && across(found, p)
              || true_ instanceof Fault.Bridge(String c, String d, double _)
                  && Set.of(net(a), net(b)).equals(Set.of(net(c), net(d)));
      case Fault.WrongValue(String p, double _) ->
          true_ instanceof Fault.WrongValue(String q, double _) && p.equals(q);
      case Fault.Tied(String p, String pin, String _) ->
          true_ instanceof Fault.Tied(String q, String pin2, String _)
              && p.equals(q)
              && pin.equals(pin2);
      default -> false;
    };
  }

  private static boolean joint(Fault f, String part, String pin, boolean open) {
    return f instanceof Fault.Open(String p, String q) && p.equals(part) && q.equals(pin)
        || f instanceof Fault.Resistive(String a, String b, double ohms)
            && a.equals(part)
            && b.equals(pin)
            && (!open || ohms > 20);
  }

  /// Whether a bridge lies over the ends of a part, which is the same to every meter; one that is
  /// named by its nets may lie there.
  private boolean across(Fault f, String part) {
    return f instanceof Fault.Bridge(String a, String b, double _)
        && (own(a, part) && own(b, part) || !revision.net(a).isEmpty())
        && Set.of(net(a), net(b))
            .equals(
                new java.util.HashSet<>(
                    revision.jointsOf(part).stream().map(Joint::net).limit(2).toList()));
  }

  private static boolean own(String joint, String part) {
    return BoardState.part(joint).equals(part);
  }

  private String net(String place) {
    return joint(place).map(Joint::net).orElse(place);
  }

  private Optional<Joint> joint(String place) {
    if (!revision.net(place).isEmpty()) {
      return Optional.of(revision.net(place).getFirst());
    }
    return revision.joints().stream()
        .filter(j -> j.place().equals(place) || j.part().equals(place))
        .findFirst();
  }
}
