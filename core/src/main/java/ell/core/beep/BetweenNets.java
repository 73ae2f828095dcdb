package ell.core.beep;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.circuit.Resistance;
import ell.core.power.BoardCircuit;
import ell.core.power.Ladder;
import ell.core.power.PartValue;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// What a meter should show between two nets of a healthy board, and why: resistors by the network
/// that they make, chips and diodes by what they lead at most, capacitors by how long they charge.
final class BetweenNets {
  /// Nodes of resistors up to which what is between any two of them is solved.
  private static final int MOST_SOLVED = 1500;

  /// A beeper that sounds for so long is noticed, s; typical, no source.
  private static final double NOTICED = 0.02;

  /// What a beeper drives through the board, A; typical, no source.
  private static final double TEST_AMPS = 1e-3;

  private final Revision revision;
  private final BoardCircuit circuit;
  private final Resistance ohms;
  private final String ground;

  /// Nets on which a chip or a diode hangs.
  private final Set<String> semis;

  /// Nets that resistors join, each with another of them, the last with itself; and those last ones
  /// behind which a chip hangs.
  private final Map<String, String> groups = new HashMap<>();

  private final Set<String> behind = new HashSet<>();

  /// Farads and diodes between two nets, by the pair.
  private final Map<String, Double> farads = new HashMap<>();

  private final Map<String, List<String>> diodes = new HashMap<>();

  /// What it should show.
  ///
  /// @param ohms of a healthy board
  /// @param nominal ohms that resistors make by their values, infinite for nothing; NaN where only
  ///   the ends were looked for
  /// @param why sentences
  /// @param beepsFor seconds for which it beeps while it charges
  record Shows(Limits ohms, double nominal, List<String> why, double beepsFor) {
    /// All of it in one sentence.
    String words() {
      return String.join("; ", why);
    }
  }

  /// @param semis nets on which a chip or a diode hangs
  BetweenNets(Revision revision, Ladder ladder, String ground, Set<String> semis) {
    this.revision = revision;
    this.circuit = new BoardCircuit(revision, ladder, List.of());
    this.ohms = circuit.unpowered();
    this.ground = ground;
    this.semis = Set.copyOf(semis);
    for (Part p : revision.parts()) {
      bridged(p);
    }
    semis.forEach(net -> behind.add(group(net)));
  }

  /// Notes a part of two ends that charges, or leads one way only.
  private void bridged(Part p) {
    List<Joint> ends = revision.jointsOf(p.reference());
    if (!p.fitted() || ends.size() != 2 || !ends.get(0).connected() || !ends.get(1).connected()) {
      return;
    }
    String pair = BeepList.pair(ends.get(0).net(), ends.get(1).net());
    if (p.kind() == PartKind.DIODE || p.kind() == PartKind.LED) {
      List<String> own = diodes.computeIfAbsent(pair, _ -> new ArrayList<>(1));
      if (own.size() < MOST_NAMED) {
        own.add(p.reference());
      }
    }
    switch (p.kind()) {
      case RESISTOR, INDUCTOR, FERRITE, FUSE -> {
        // what ends at the return joins nothing: everything hangs on that
        if (!ends.get(0).net().equals(ground) && !ends.get(1).net().equals(ground)) {
          groups.put(group(ends.get(0).net()), group(ends.get(1).net()));
        }
      }
      default -> {} // leads nothing
    }
    PartValue.farads(p).ifPresent(f -> farads.merge(pair, f, Double::sum));
  }

  private static final int MOST_NAMED = 3;

  /// What it should show between two nets, solved.
  ///
  /// @param harm what a short would do, the first words of why
  Shows solved(String netA, String netB, String harm) {
    return shows(netA, netB, harm, ohms.between(circuit.node(netA), circuit.node(netB)));
  }

  /// What it should show between nets that lie side by side: on a large board only the ends of it,
  /// for there are as many pairs as joints.
  Shows near(String netA, String netB, String harm) {
    if (ohms.size() <= MOST_SOLVED) {
      return solved(netA, netB, harm);
    }
    Resistance.Ends ends = ohms.ends(circuit.node(netA), circuit.node(netB));
    if (ends.low() > 0.8 * ends.high() || ends.low() == Double.POSITIVE_INFINITY) {
      return shows(netA, netB, harm, ends.high());
    }
    double low = 0.8 * ends.low();
    boolean little = chips(netA, netB);
    return new Shows(
        new Limits(little ? Math.min(100, low) : low, 1.1 * ends.high() + BeepList.CONNECTED),
        Double.NaN,
        List.of(
            harm,
            "what resistors make between them lies from "
                + EngineeringNumber.print(ends.low(), Unit.OHM, 2)
                + (Double.isInfinite(ends.high())
                    ? " up"
                    : " to " + EngineeringNumber.print(ends.high(), Unit.OHM, 2))),
        charges(netA, netB));
  }

  private Shows shows(String netA, String netB, String harm, double between) {
    boolean chips = chips(netA, netB);
    List<String> why = new ArrayList<>(List.of(harm));
    Limits expected;
    if (Double.isInfinite(between)) {
      // chips and charging capacitors lead a little; a short leads like copper
      expected = Limits.atLeast(100);
      why.add("nothing but chips and capacitors between them");
    } else if (between < 2 * BeepList.BEEPS) {
      expected = new Limits(Math.max(0, 0.8 * between - 0.3), 1.2 * between + BeepList.CONNECTED);
      List<String> direct = ohms.directly(circuit.node(netA), circuit.node(netB));
      why.set(
          0, // which says enough: nothing is harmed
          (between < BeepList.BEEPS ? "will beep although healthy: " : "")
              + EngineeringNumber.print(between, Unit.OHM, 3)
              + " is between"
              + (direct.isEmpty() ? "" : ", " + String.join(" ", direct)));
    } else {
      expected = new Limits(Math.min(chips ? 100 : 0.8 * between, 0.8 * between), 1.1 * between);
      why.add("resistors between them make " + EngineeringNumber.print(between, Unit.OHM, 3));
    }
    double beeps = charges(netA, netB);
    charging(netA, netB, beeps).ifPresent(why::add);
    oneWay(netA, netB).ifPresent(why::add);
    return new Shows(expected, between, why, beeps);
  }

  /// Whether chips or diodes may lead between two nets, beside what resistors make.
  boolean chips(String netA, String netB) {
    return leadsALittle(netA) && leadsALittle(netB);
  }

  /// Whether a chip or a diode hangs on a net, or behind what leads from it.
  private boolean leadsALittle(String net) {
    return semis.contains(net) || behind.contains(group(net));
  }

  private String group(String net) {
    String at = net;
    for (String next; !(next = groups.getOrDefault(at, at)).equals(at); at = next) {
      groups.put(at, groups.getOrDefault(next, next)); // the way becomes shorter each time
    }
    return at;
  }

  /// Seconds for which a beeper beeps while what is between two nets charges: C·R·I over I.
  private double charges(String netA, String netB) {
    return farads.getOrDefault(BeepList.pair(netA, netB), 0.0) * BeepList.BEEPS;
  }

  private Optional<String> charging(String netA, String netB, double seconds) {
    return seconds < NOTICED
        ? Optional.empty()
        : Optional.of(
            "will beep for "
                + EngineeringNumber.print(seconds, Unit.SECOND, 2)
                + " while "
                + EngineeringNumber.print(farads.get(BeepList.pair(netA, netB)), Unit.FARAD, 2)
                + " between them charges at "
                + EngineeringNumber.print(TEST_AMPS, Unit.AMPERE));
  }

  /// What leads one way only.
  private Optional<String> oneWay(String netA, String netB) {
    List<String> d = diodes.getOrDefault(BeepList.pair(netA, netB), List.of());
    return d.isEmpty()
        ? Optional.empty()
        : Optional.of(
            String.join(" ", d)
                + (d.size() == 1 ? " is" : " are")
                + " between: in the diode range "
                + (d.size() == 1 ? "it leads" : "they lead")
                + " one way only, both ways means a short, the wrong way means turned");
  }
}
