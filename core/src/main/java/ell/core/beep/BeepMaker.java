package ell.core.beep;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Rail;
import ell.core.board.Revision;
import ell.core.circuit.Resistance;
import ell.core.power.BoardCircuit;
import ell.core.power.Ladder;
import ell.core.power.LadderProposal;
import ell.core.power.PartValue;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;

/// Makes the list of a revision.
final class BeepMaker {
  private static final double NEIGHBOUR_MM = 0.8;
  private static final int WALK_EXACT = 64;

  /// No more checks between signals that lie side by side: the nearest ones.
  private static final int MOST_SIDE_BY_SIDE = 20_000;

  /// A beeper that sounds for so long is noticed, s; typical, no source.
  private static final double NOTICED = 0.02;

  /// What a beeper drives through the board, A; typical, no source.
  private static final double TEST_AMPS = 1e-3;

  private final Revision revision;
  private final Map<String, List<Joint>> nets = new LinkedHashMap<>();
  private final List<BeepCheck> checks = new ArrayList<>();
  private final BoardCircuit circuit;
  private final Resistance ohms;
  private final Set<String> semis = new HashSet<>();

  /// Nets that resistors join, each with another of them, the last with itself; and those last ones
  /// behind which a chip hangs.
  private final Map<String, String> groups = new HashMap<>();

  private final Set<String> behind = new HashSet<>();

  /// Farads and diodes between two nets, by the pair.
  private final Map<String, Double> farads = new HashMap<>();

  private final Map<String, List<String>> diodes = new HashMap<>();
  private final String ground;
  private final Ladder ladder;

  /// The return that the ladder names, when the revision has it.
  private static String nets(Revision revision, Ladder ladder) {
    return revision.net(ladder.ground()).isEmpty()
        ? LadderProposal.ground(revision)
        : ladder.ground();
  }

  BeepMaker(Revision revision, Ladder ladder) {
    this.revision = revision;
    this.circuit = new BoardCircuit(revision, ladder, List.of());
    this.ohms = circuit.unpowered();
    this.ladder = ladder;
    this.ground = nets(revision, ladder);
    for (Part p : revision.parts()) {
      bridged(p);
    }
    Set<String> seen = new HashSet<>();
    for (Joint j : revision.joints()) {
      Part p = revision.part(j.part()).orElse(null);
      boolean made =
          p == null
              ? PartKind.of(j.part()).bare() || revision.part(j.part()).isEmpty()
              : p.fitted() || p.kind().bare();
      if (j.connected() && made && seen.add(j.place())) {
        nets.computeIfAbsent(j.net(), _ -> new ArrayList<>(4)).add(j);
        if (p != null
            && (p.kind() == PartKind.CHIP
                || p.kind() == PartKind.MODULE
                || p.kind() == PartKind.TRANSISTOR
                || p.kind() == PartKind.DIODE)) {
          semis.add(j.net());
        }
      }
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

  BeepList make() {
    List<Rail> rails = rails();
    List<Rail> grounds =
        rails.stream()
            .filter(Rail::ground)
            .sorted(Comparator.comparing(r -> r.net().equals(ground) ? 0 : 1))
            .toList();
    List<Rail> live = rails.stream().filter(r -> !r.ground()).toList();
    for (Rail g : grounds) {
      for (Rail r : live) {
        isolation(
            g.net(),
            r.net(),
            g.net().equals(ground),
            r.net() + " shorted to " + g.net() + " would burn first");
      }
    }
    for (int i = 0; i < live.size(); i++) {
      for (int k = i + 1; k < live.size(); k++) {
        isolation(
            live.get(i).net(),
            live.get(k).net(),
            false,
            "a bridge would put " + live.get(i).net() + " on " + live.get(k).net());
      }
    }
    for (int i = 0; i < grounds.size(); i++) {
      for (int k = i + 1; k < grounds.size(); k++) {
        isolation(
            grounds.get(i).net(),
            grounds.get(k).net(),
            false,
            "two returns that the design keeps apart, or joins on purpose");
      }
    }
    Set<String> railNets = new HashSet<>();
    for (Rail r : rails) {
      railNets.add(r.net());
    }
    List<Neighbours.Side> beside = sides(railNets);
    int rail = 0;
    while (rail < beside.size() && touches(railNets, beside.get(rail))) {
      sideBySide(beside.get(rail++));
    }
    rails.forEach(r -> star(r.net()));
    signals(railNets);
    beside
        .subList(rail, Math.min(beside.size(), rail + MOST_SIDE_BY_SIDE))
        .forEach(this::sideBySide);
    return new BeepList(checks, coverage(rails));
  }

  private Map<String, Neighbours.Side> near;

  /// Pairs of nets beside each other of which not both are rails, for those are listed already:
  /// rails first, then by how near they are.
  private List<Neighbours.Side> sides(Set<String> railNets) {
    near = Neighbours.near(nets, NEIGHBOUR_MM);
    Map<String, List<Joint>> byPart = new HashMap<>();
    for (List<Joint> net : nets.values()) {
      for (Joint j : net) {
        byPart.computeIfAbsent(j.part(), _ -> new ArrayList<>(4)).add(j);
      }
    }
    byPart.values().forEach(p -> Neighbours.addAdjacentPins(near, p));
    return near.values().stream()
        .filter(s -> !(railNets.contains(s.a().net()) && railNets.contains(s.b().net())))
        .filter(s -> !reachable(s.a().net()).isEmpty() && !reachable(s.b().net()).isEmpty())
        .sorted(
            Comparator.comparing((Neighbours.Side s) -> !touches(railNets, s))
                .thenComparingDouble(Neighbours.Side::gapMm)
                .thenComparing(s -> s.a().place())
                .thenComparing(s -> s.b().place()))
        .toList();
  }

  private static boolean touches(Set<String> railNets, Neighbours.Side s) {
    return railNets.contains(s.a().net()) || railNets.contains(s.b().net());
  }

  private void sideBySide(Neighbours.Side s) {
    Joint a = s.a().reach() == Joint.Reach.NONE ? easiest(s.a().net()) : s.a();
    Joint b = s.b().reach() == Joint.Reach.NONE ? easiest(s.b().net()) : s.b();
    String harm =
        String.format(
            Locale.ROOT,
            "%s and %s lie %.2f mm apart at %s and %s",
            s.a().net(),
            s.b().net(),
            s.gapMm(),
            s.a().place(),
            s.b().place());
    if (ohms.size() > MOST_SOLVED) {
      roughly(a, b, harm);
    } else {
      isolation(a, b, false, harm);
    }
  }

  /// Nodes of resistors up to which what is between any two of them is solved.
  private static final int MOST_SOLVED = 1500;

  /// Every signal, in bands over the board, so that the tips never cross it between two of them.
  private void signals(Set<String> railNets) {
    List<Joint> starts = new ArrayList<>();
    for (String net : nets.keySet()) {
      List<Joint> own = railNets.contains(net) ? List.of() : reachable(net);
      if (own.size() > 1) {
        starts.add(own.getFirst());
      }
    }
    Joint last = null;
    for (Joint start : snake(starts)) {
      last = walk(start.net(), last);
    }
  }

  /// The rails of the ladder, all of them, whether a name says so or not and whether a tip reaches
  /// them or not; and nets named like rails of which nobody said that they are none.
  private List<Rail> rails() {
    List<Rail> all = new ArrayList<>();
    Set<String> listed = new HashSet<>(ladder.notRails());
    for (Rail r : Rail.of(revision)) {
      boolean kept = ladder.rail(r.net()).isPresent() || r.net().equals(ground);
      if (nets.containsKey(r.net())
          && (kept || !reachable(r.net()).isEmpty())
          && listed.add(r.net())) {
        // a ladder may call a rail what a name calls a return
        all.add(kept ? new Rail(r.net(), r.net().equals(ground), r.volts()) : r);
      }
    }
    if (nets.containsKey(ground) && listed.add(ground)) {
      all.add(new Rail(ground, true, OptionalDouble.of(0)));
    }
    for (Ladder.RailSpec r : ladder.rails()) {
      if (nets.containsKey(r.net()) && listed.add(r.net())) {
        all.add(new Rail(r.net(), false, OptionalDouble.of(r.volts())));
      }
    }
    return all;
  }

  Optional<BeepCheck> between(String a, String b) {
    Optional<Joint> tip = joint(a);
    Optional<Joint> other = joint(b);
    if (tip.isEmpty() || other.isEmpty() || tip.get().place().equals(other.get().place())) {
      return Optional.empty();
    }
    if (tip.get().net().equals(other.get().net())) {
      continuity(tip.get(), other.get(), "asked for by hand");
    } else {
      // between two nets one check, however it is asked for: a later reading answers an earlier
      boolean turned = tip.get().net().compareTo(other.get().net()) > 0;
      isolation(
          hold(turned ? other.get().net() : tip.get().net()),
          hold(turned ? tip.get().net() : other.get().net()),
          false,
          "asked for by hand");
    }
    return Optional.of(checks.getFirst());
  }

  /// Where a tip is held on a net, whether it is reached or not.
  private Joint hold(String net) {
    return reachable(net).isEmpty() ? nets.get(net).getFirst() : easiest(net);
  }

  /// A joint by its place, or the one that is easiest to reach on a net.
  private Optional<Joint> joint(String place) {
    if (nets.containsKey(place)) {
      return Optional.of(hold(place));
    }
    return revision.joints().stream()
        .filter(j -> nets.containsKey(j.net()) && j.place().equals(place))
        .findFirst();
  }

  private final Map<String, List<Joint>> reached = new HashMap<>();

  private List<Joint> reachable(String net) {
    return reached.computeIfAbsent(
        net,
        n ->
            nets.getOrDefault(n, List.of()).stream()
                .filter(j -> j.reach() != Joint.Reach.NONE)
                .toList());
  }

  /// The joint of a net that is easiest to hold a tip on.
  private Joint easiest(String net) {
    List<Joint> own = reachable(net);
    String at = LadderProposal.readAt(revision, net);
    return own.stream()
        .filter(j -> j.part().equals(at) || j.place().equals(at))
        .findFirst()
        .orElse(own.getFirst());
  }

  private void isolation(String netA, String netB, boolean guards, String harm) {
    isolation(hold(netA), hold(netB), guards, harm);
  }

  private void isolation(Joint a, Joint b, boolean guards, String harm) {
    isolation(a, b, guards, harm, ohms.between(circuit.node(a.net()), circuit.node(b.net())));
  }

  /// Between signals of a large board, of which only the ends of what is between them are found.
  private void roughly(Joint a, Joint b, String harm) {
    Resistance.Ends ends = ohms.ends(circuit.node(a.net()), circuit.node(b.net()));
    if (ends.low() > 0.8 * ends.high() || ends.low() == Double.POSITIVE_INFINITY) {
      isolation(a, b, false, harm, ends.high());
      return;
    }
    double low = 0.8 * ends.low();
    boolean little = leadsALittle(a.net()) && leadsALittle(b.net());
    add(
        BeepCheck.Kind.ISOLATION,
        a,
        b,
        new Limits(little ? Math.min(100, low) : low, 1.1 * ends.high() + BeepList.CONNECTED),
        false,
        harm
            + "; what resistors make between them lies from "
            + EngineeringNumber.print(ends.low(), Unit.OHM, 2)
            + (Double.isInfinite(ends.high())
                ? " up"
                : " to " + EngineeringNumber.print(ends.high(), Unit.OHM, 2)),
        charges(a.net(), b.net()));
  }

  private void isolation(Joint a, Joint b, boolean guards, String harm, double between) {
    String netA = a.net();
    String netB = b.net();
    boolean chips = leadsALittle(netA) && leadsALittle(netB);
    String why;
    Limits expected;
    if (Double.isInfinite(between)) {
      // chips and charging capacitors lead a little; a short leads like copper
      expected = Limits.atLeast(100);
      why = harm + "; nothing but chips and capacitors between them";
    } else if (between < 2 * BeepList.BEEPS) {
      expected = new Limits(Math.max(0, 0.8 * between - 0.3), 1.2 * between + BeepList.CONNECTED);
      List<String> direct = ohms.directly(circuit.node(netA), circuit.node(netB));
      why =
          (between < BeepList.BEEPS ? "will beep although healthy: " : "")
              + EngineeringNumber.print(between, Unit.OHM, 3)
              + " is between"
              + (direct.isEmpty() ? "" : ", " + String.join(" ", direct));
    } else {
      expected = new Limits(Math.min(chips ? 100 : 0.8 * between, 0.8 * between), 1.1 * between);
      why = harm + "; resistors between them make " + EngineeringNumber.print(between, Unit.OHM, 3);
    }
    double beeps = charges(netA, netB);
    add(
        BeepCheck.Kind.ISOLATION,
        a,
        b,
        expected,
        guards,
        why + charging(netA, netB, beeps) + oneWay(netA, netB),
        beeps);
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

  private String charging(String netA, String netB, double seconds) {
    return seconds < NOTICED
        ? ""
        : "; will beep for "
            + EngineeringNumber.print(seconds, Unit.SECOND, 2)
            + " while "
            + EngineeringNumber.print(farads.get(BeepList.pair(netA, netB)), Unit.FARAD, 2)
            + " between them charges at "
            + EngineeringNumber.print(TEST_AMPS, Unit.AMPERE);
  }

  /// What leads one way only.
  private String oneWay(String netA, String netB) {
    List<String> d = diodes.getOrDefault(BeepList.pair(netA, netB), List.of());
    return d.isEmpty()
        ? ""
        : "; "
            + String.join(" ", d)
            + (d.size() == 1 ? " is" : " are")
            + " between: in the diode range "
            + (d.size() == 1 ? "it leads" : "they lead")
            + " one way only, both ways means a short, the wrong way means turned";
  }

  private void star(String net) {
    List<Joint> own = reachable(net);
    if (own.size() < 2) {
      return;
    }
    Joint hub = easiest(net);
    for (Joint j : tour(hub, own)) {
      if (j != hub) {
        continuity(hub, j, "one tip stays on " + hub.place());
      }
    }
  }

  /// Walks a net from the joint that is nearest to where the tips were.
  ///
  /// @param before null at first
  /// @return where it ends
  private Joint walk(String net, Joint before) {
    List<Joint> own = reachable(net);
    Joint first = own.getFirst();
    if (before != null) {
      for (Joint j : own) {
        first = before.distanceMm(j) < before.distanceMm(first) ? j : first;
      }
    }
    Joint last = null;
    for (Joint j : tour(first, own)) {
      if (last != null) {
        continuity(
            last, j, String.format(Locale.ROOT, "%.1f mm apart on %s", last.distanceMm(j), net));
      }
      last = j;
    }
    return last;
  }

  private void continuity(Joint a, Joint b, String why) {
    add(BeepCheck.Kind.CONTINUITY, a, b, new Limits(0, BeepList.CONNECTED), false, why, 0);
  }

  private void add(
      BeepCheck.Kind kind,
      Joint a,
      Joint b,
      Limits expected,
      boolean guards,
      String why,
      double beepsFor) {
    checks.add(
        new BeepCheck(
            checks.size() + 1, kind, a, b, a.net(), b.net(), expected, guards, why, beepsFor));
  }

  /// Joints in a short way from `start`: nearest neighbour on small nets, a snake of bands on large
  /// ones.
  private static List<Joint> tour(Joint start, List<Joint> joints) {
    if (joints.size() > WALK_EXACT) {
      return snake(joints);
    }
    List<Joint> left = new ArrayList<>(joints);
    List<Joint> tour = new ArrayList<>();
    Joint at = start;
    left.remove(start);
    tour.add(start);
    while (!left.isEmpty()) {
      Joint from = at;
      Joint best = left.getFirst();
      for (Joint j : left) {
        if (from.distanceMm(j) < from.distanceMm(best)) {
          best = j;
        }
      }
      left.remove(best);
      tour.add(best);
      at = best;
    }
    return tour;
  }

  private static List<Joint> snake(List<Joint> joints) {
    double band = Math.max(1, 60.0 / Math.sqrt(Math.max(1, joints.size())) * 3);
    List<Joint> sorted = new ArrayList<>(joints);
    sorted.sort(
        Comparator.comparingLong((Joint j) -> Math.round(j.yMm() / band))
            .thenComparingDouble(j -> Math.round(j.yMm() / band) % 2 == 0 ? j.xMm() : -j.xMm()));
    return sorted;
  }

  private BeepList.Coverage coverage(List<Rail> rails) {
    long total = nets.values().stream().filter(n -> n.size() > 1).mapToLong(List::size).sum();
    Set<Joint> ends = new HashSet<>();
    Set<String> parted = new HashSet<>();
    for (BeepCheck c : checks) {
      if (c.kind() == BeepCheck.Kind.CONTINUITY) {
        ends.add(c.a());
        ends.add(c.b());
      } else {
        parted.add(BeepList.pair(c.netA(), c.netB()));
      }
    }
    Set<String> possible = new HashSet<>(near.keySet());
    for (int i = 0; i < rails.size(); i++) {
      for (int k = i + 1; k < rails.size(); k++) {
        possible.add(BeepList.pair(rails.get(i).net(), rails.get(k).net()));
      }
    }
    return new BeepList.Coverage(
        ends.size(),
        total,
        possible.stream().filter(parted::contains).count(),
        possible.size(),
        total - ends.size(),
        nets.values().stream().filter(n -> n.size() == 1).count());
  }
}
