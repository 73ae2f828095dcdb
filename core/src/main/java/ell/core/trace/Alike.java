package ell.core.trace;

import ell.core.board.Joint;
import ell.core.board.Revision;
import ell.core.power.Fault;
import ell.core.power.FaultWords;
import java.util.List;

/// Which faults are one and the same to every meter: a part that is dead and one that is missing,
/// bridges between the same nets at whatever place, parts that join the same nets.
final class Alike {
  private final Revision revision;

  Alike(Revision revision) {
    this.revision = revision;
  }

  /// The same for cases that are the same to every meter.
  List<String> of(Case c) {
    return c.faults().stream().map(this::of).sorted().toList();
  }

  private String of(Fault f) {
    return switch (f) {
      case Fault.Dead d -> "without " + d.part();
      case Fault.Missing m -> "without " + m.part();
      case Fault.Loose l -> "open " + l.part() + "." + l.pin();
      case Fault.Bridge b -> "bridge " + pair(net(b.a()), net(b.b()), " ") + " " + b.ohms();
      case Fault.Short s -> {
        List<String> nets =
            revision.jointsOf(s.part()).stream().map(Joint::net).distinct().toList();
        yield nets.size() < 2
            ? FaultWords.words(s)
            : "short " + pair(nets.get(0), nets.get(1), " ");
      }
      default -> FaultWords.words(f);
    };
  }

  /// What a fault is called where its exact amount, or the place on two nets, does not matter for
  /// what is done about it.
  String remedy(Suspect s) {
    Fault bare = s.fault() instanceof Fault.Sometimes t ? t.fault() : s.fault();
    String often = s.fault() instanceof Fault.Sometimes ? "sometimes " : "";
    return often
        + switch (bare) {
          case Fault.Bridge b -> of(new Fault.Bridge(b.a(), b.b(), 0));
          case Fault.Resistive r -> "resistive " + r.part() + "." + r.pin();
          case Fault.WrongValue v -> "value " + v.part();
          default -> FaultWords.words(bare);
        };
  }

  /// What a suspect is together with others to whoever asks what it is.
  String group(Suspect s) {
    if (s.fault() instanceof Fault.Sometimes t) {
      return "at times: "
          + group(
              new Suspect(
                  t.fault(),
                  FaultWords.words(t.fault()),
                  s.origin(),
                  s.places(),
                  s.nets(),
                  s.prior(),
                  s.factors()));
    }
    return s.fault() instanceof Fault.Short && s.nets().size() == 2
        ? "short part between " + pair(s.nets().get(0), s.nets().get(1), " and ")
        : s.fault() instanceof Fault.Bridge && s.nets().size() == 2
            ? "bridge between " + pair(s.nets().get(0), s.nets().get(1), " and ")
            : remedy(s);
  }

  private static String pair(String a, String b, String between) {
    return a.compareTo(b) < 0 ? a + between + b : b + between + a;
  }

  private String net(String place) {
    if (!revision.net(place).isEmpty()) {
      return place;
    }
    return revision.joint(place).map(Joint::net).orElse(place);
  }
}
