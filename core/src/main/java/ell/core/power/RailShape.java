package ell.core.power;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Rail;
import ell.core.board.Revision;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// Nets that carry a supply and do not say so by their names, told by what they join: the output of
/// a regulator, the far side of a fuse or a bead, the live pin of a power connector or a cell, or
/// many capacitors and a chip. Common practice, no source; each is told with its reason.
final class RailShape {
  /// The end of the reason of a rail that comes in.
  static final String IN = " brings it in";

  /// What stands behind the regulator in the reason of its output.
  static final String OUT = " is a regulator and it has capacitors";

  private static final int MANY_CAPACITORS = 3;
  private static final String REGULATOR =
      ".*(\\bLDO|REGUL|\\bREG|BUCK|BOOST|DC-?DC|SMPS|STEP.?(DOWN|UP)|\\bLIN(EAR)?\\d*|V(OLTAGE)? ?REG|CHARGER).*";
  private static final String POWER_IN =
      ".*(BARREL|DC.?JACK|POWER|SUPPLY|BATT|HOLDER|CELL|SCREW|USB|DC.?IN|MAINS|LIPO).*";

  private final Revision revision;
  private final String ground;
  private final Set<String> not;

  RailShape(Revision revision, String ground, Set<String> not) {
    this.revision = revision;
    this.ground = ground;
    this.not = not;
  }

  /// Further rails beside those that are known, with the reason of each.
  Map<String, String> rails(Set<String> known) {
    Map<String, String> found = new LinkedHashMap<>();
    Set<String> all = new LinkedHashSet<>(known);
    boolean moved = true;
    while (moved) {
      moved = false;
      for (String net : revision.nets()) {
        if (all.contains(net) || not.contains(net) || grounded(net)) {
          continue;
        }
        Optional<String> why = why(net, all);
        if (why.isPresent()) {
          found.put(net, why.get());
          all.add(net);
          moved = true;
        }
      }
    }
    return found;
  }

  private boolean grounded(String net) {
    return net.equals(ground) || Rail.of(net).filter(Rail::ground).isPresent();
  }

  private Optional<String> why(String net, Set<String> known) {
    List<Joint> joints = revision.net(net);
    int capacitors = 0;
    int chips = 0;
    String regulator = "";
    String through = "";
    String in = "";
    boolean goesOn = false; // to what a supply meets first
    for (Joint j : joints) {
      Part p = revision.part(j.part()).orElse(null);
      if (p == null || !p.fitted()) {
        continue;
      }
      String words = words(p);
      switch (p.kind()) {
        case CAPACITOR -> capacitors += far(p, net).equals(ground) ? 1 : 0;
        case CHIP, MODULE -> {
          chips++;
          if (words.matches(REGULATOR)) {
            regulator = p.reference();
          }
        }
        case DIODE, INDUCTOR -> goesOn = true;
        case FUSE, FERRITE -> {
          goesOn = true;
          String far = far(p, net);
          if (known.contains(far) || powerIn(far)) {
            through = p.reference();
          }
        }
        case CONNECTOR, CELL -> {
          if ((p.kind() == PartKind.CELL || words.matches(POWER_IN)) && twoNets(p)) {
            in = p.reference();
            goesOn |= p.kind() == PartKind.CELL;
          }
        }
        default -> {}
      }
    }
    boolean used = joints.size() >= 3;
    if (!in.isEmpty() && (goesOn || capacitors > 0 || !regulator.isEmpty())) {
      return Optional.of(in + IN);
    }
    if (!through.isEmpty() && (capacitors > 0 || chips > 0)) {
      return Optional.of("it is fed through " + through);
    }
    // its other nets are inputs, or parts of its loop, when nobody else is on them
    if (!regulator.isEmpty()
        && capacitors > 0
        && used
        && (chips > 1 || capacitors > 1 || leaves(net))) {
      return Optional.of(regulator + OUT);
    }
    return capacitors >= MANY_CAPACITORS && chips > 0
        ? Optional.of(capacitors + " capacitors hold it")
        : Optional.empty();
  }

  /// Whether a net leaves the regulator: somebody but passive parts is on it.
  private boolean leaves(String net) {
    return revision.net(net).stream()
        .map(j -> PartKind.of(j.part()))
        .anyMatch(k -> k == PartKind.CONNECTOR || k == PartKind.MODULE || k == PartKind.TEST_POINT);
  }

  private boolean powerIn(String net) {
    return revision.net(net).stream()
        .map(j -> revision.part(j.part()).orElse(null))
        .anyMatch(p ->
            p != null
                && (p.kind() == PartKind.CELL
                    || p.kind() == PartKind.CONNECTOR && words(p).matches(POWER_IN) && twoNets(p)));
  }

  /// A part that brings power has two nets, one of them the return.
  private boolean twoNets(Part p) {
    Set<String> nets = new LinkedHashSet<>();
    revision.jointsOf(p.reference()).stream()
        .filter(Joint::connected)
        .forEach(j -> nets.add(j.net()));
    return nets.size() == 2 && nets.stream().anyMatch(this::grounded);
  }

  /// The net at the other end of a part with two joints, empty when it has others.
  private String far(Part p, String net) {
    List<Joint> own = revision.jointsOf(p.reference());
    if (own.size() != 2) {
      return "";
    }
    return own.get(0).net().equals(net) ? own.get(1).net() : own.get(0).net();
  }

  private static String words(Part p) {
    return (p.value() + " " + p.code() + " " + p.description() + " " + p.packageName())
        .toUpperCase(Locale.ROOT);
  }
}
