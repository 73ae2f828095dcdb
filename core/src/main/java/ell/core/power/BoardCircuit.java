package ell.core.power;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.circuit.Network;
import ell.core.circuit.ResistorGraph;
import ell.core.power.Ladder.Kind;
import ell.core.power.Ladder.Load;
import ell.core.power.Ladder.Step;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.Collectors;

/// The direct-current model of one board: resistors, diodes, coils and fuses from the bill of
/// materials, regulators and loads from the ladder, and the faults of this very board. Used for the
/// band that first power is held against, for expected ohms, and by the simulated bench.
public final class BoardCircuit {
  private static final double COIL_OHM = 0.1;
  private static final double FUSE_OHM = 0.1;

  private final Revision revision;
  private final Ladder ladder;
  private final List<Fault> faults;

  /// Joints whose lead is on a node of its own.
  private final Set<String> apart;

  private final Set<String> dead;
  private final Set<String> turned;
  private final Set<String> stepParts;

  /// A board with its faults, none for a healthy one.
  public BoardCircuit(Revision revision, Ladder ladder, List<Fault> faults) {
    this.revision = revision;
    this.ladder = ladder;
    this.faults = List.copyOf(faults);
    this.apart = new HashSet<>();
    this.dead = new HashSet<>();
    this.turned = new HashSet<>();
    for (Fault f : faults) {
      switch (f) {
        case Fault.Open o -> apart.add(o.part() + "." + o.pin());
        case Fault.Loose l -> apart.add(l.part() + "." + l.pin());
        case Fault.Resistive r -> apart.add(r.part() + "." + r.pin());
        case Fault.Tied t -> apart.add(t.part() + "." + t.pin());
        case Fault.Dead d -> dead.add(d.part());
        case Fault.Missing m -> dead.add(m.part());
        case Fault.Link l when l.open() -> dead.add(l.part());
        case Fault.Turned t -> turned.add(t.part());
        case Fault.Bridge _, Fault.WrongValue _, Fault.Short _, Fault.Link _ -> {} // as resistors
        case Fault.Setting _, Fault.Firmware _ -> {} // nothing of the board
        case Fault.Sometimes _ -> {} // whoever lays the board settles it
      }
    }
    this.stepParts =
        ladder.steps().stream().filter(Step::regulates).map(Step::part).collect(Collectors.toSet());
  }

  /// The node that a joint is on: its net, or a node of its own when it is open or unconnected.
  public String node(Joint j) {
    return !j.connected() || apart.contains(j.place()) ? "joint " + j.place() : node(j.net());
  }

  /// The node of a net.
  public String node(String net) {
    return net.equals(ladder.ground()) ? "GND" : "net " + net;
  }

  /// The node of a net, or of a joint `part.pin`.
  private String place(String name) {
    if (!revision.net(name).isEmpty()) {
      return node(name);
    }
    int dot = name.lastIndexOf('.');
    return dot < 1
        ? node(name)
        : revision
            .joint(name.substring(0, dot), name.substring(dot + 1))
            .map(this::node)
            .orElseGet(() -> node(name));
  }

  /// A resistor that a fault puts between two nodes.
  private interface Joins {
    void resistor(String name, String a, String b, double ohms);
  }

  private static final double NOTHING_OHM = 0.01;
  private static final double SHORT_OHM = 0.1;

  private void faultResistors(Joins n) {
    for (Fault f : faults) {
      switch (f) {
        case Fault.Bridge b -> n.resistor("bridge", place(b.a()), place(b.b()), b.ohms());
        case Fault.Resistive r -> own(n, r.part(), r.pin(), Optional.empty(), r.ohms());
        case Fault.Tied t -> own(n, t.part(), t.pin(), Optional.of(t.net()), NOTHING_OHM);
        case Fault.Short s -> ends(n, s.part(), SHORT_OHM);
        case Fault.Link l when !l.open() -> ends(n, l.part(), NOTHING_OHM);
        default -> {} // joins nothing
      }
    }
  }

  /// Between a lead that is apart and the net that it still, or wrongly, hangs on.
  private void own(Joins n, String part, String pin, Optional<String> net, double ohms) {
    revision
        .joint(part, pin)
        .ifPresent(j -> n.resistor("joint " + j.place(), node(j), node(net.orElse(j.net())), ohms));
  }

  /// Between the first two nets of a part.
  private void ends(Joins n, String part, double ohms) {
    List<Joint> joints = revision.jointsOf(part);
    joints.stream()
        .filter(j -> !j.net().equals(joints.getFirst().net()))
        .findFirst()
        .ifPresent(j -> n.resistor(part, node(joints.getFirst()), node(j), ohms));
  }

  /// The node through which a part reaches a net: the net, unless all of its joints there are open.
  private String reach(String part, String net) {
    String broken = null;
    for (Joint j : revision.jointsOf(part)) {
      if (j.net().equals(net)) {
        if (!apart.contains(j.place())) {
          return node(net);
        }
        broken = "joint " + j.place();
      }
    }
    return broken == null ? node(net) : broken;
  }

  /// Supplied network in a state with every load scaled.
  ///
  /// @param state one of [Ladder#STATES]
  /// @param loadScale 1 for the loads as stated
  public Network supplied(String state, double loadScale) {
    Network n = new Network();
    passives(n);
    for (Step s : ladder.steps()) {
      if (!s.regulates() || dead.contains(s.part())) {
        continue;
      }
      boolean lifts = ladder.lifts(s);
      n.regulator(
          reach(s.part(), s.from()),
          output(s),
          new Network.Regulator(
              s.part(),
              s.volts(),
              s.dropout(),
              s.limit() > 0 ? s.limit() : 10,
              s.quiescent(),
              s.kind() == Kind.SWITCHING ? s.efficiency() : 0,
              lifts
                  ? STARTS * ladder.rail(s.from()).orElseThrow().volts()
                  : s.volts() + s.dropout()));
      if (lifts && !joined(s)) {
        // before it runs its coil and its diode pass the input on
        n.diode(reach(s.part(), s.from()), output(s), BOOST_DIODE);
      }
    }
    for (Load l : ladder.loads()) {
      if (!dead.contains(l.part()) && !inNetwork(l.part())) {
        double nominal = ladder.rail(l.rail()).orElseThrow().volts();
        if (nominal <= 0) {
          continue; // what stands below ground is listed and not worked out
        }
        n.load(reach(l.part(), l.rail()), back(l.part()), l.in(state) * loadScale, 0.7 * nominal);
      }
    }
    return n;
  }

  /// Share of its input from which a converter that lifts runs; typical, no source.
  private static final double STARTS = 0.6;

  private static final double BOOST_DIODE = 0.4;

  /// Whether the diode of a converter is a part of the board, and in the network by itself.
  private boolean joined(Step s) {
    return revision.net(s.to()).stream()
        .flatMap(j -> revision.part(j.part()).stream())
        .filter(p -> p.fitted() && p.kind() == PartKind.DIODE)
        .flatMap(p -> revision.jointsOf(p.reference()).stream())
        .anyMatch(j ->
            j.connected()
                && !j.net().equals(s.to())
                && revision.net(j.net()).stream().anyMatch(o -> o.part().equals(s.part())));
  }

  /// Lamps and resistors are in the network themselves; their loads in the ladder only tell of it.
  private boolean inNetwork(String part) {
    PartKind kind = revision.part(part).map(PartKind::of).orElse(PartKind.of(part));
    return kind == PartKind.RESISTOR
        || kind == PartKind.LED && DrivenLamps.direct(revision, ladder, part);
  }

  /// The node where a chip's return current goes: ground, unless all of its ground joints are open.
  private String back(String part) {
    return reach(part, ladder.ground());
  }

  /// A switching regulator feeds its rail through its coil: the node on the chip's side of it.
  private String output(Step s) {
    for (Joint j : revision.jointsOf(s.part())) {
      if (j.net().equals(s.to())) {
        return reach(s.part(), s.to());
      }
    }
    for (Joint j : revision.jointsOf(s.part())) {
      if (!j.connected()) {
        continue;
      }
      for (Joint other : revision.net(j.net())) {
        PartKind kind = revision.part(other.part()).map(Part::kind).orElse(PartKind.OTHER);
        boolean coil = kind == PartKind.INDUCTOR;
        if (coil
            && revision.jointsOf(other.part()).stream().anyMatch(e -> e.net().equals(s.to()))) {
          return reach(s.part(), j.net());
        }
      }
    }
    return node(s.to());
  }

  private void passives(Network n) {
    for (Part p : revision.parts()) {
      List<Joint> ends = revision.jointsOf(p.reference());
      if (!p.fitted() || ends.size() != 2 || dead.contains(p.reference())) {
        continue;
      }
      OptionalDouble ohms = ohms(p);
      if (ohms.isPresent()) {
        n.resistor(node(ends.get(0)), node(ends.get(1)), ohms.getAsDouble());
      } else if (p.kind() == PartKind.DIODE || p.kind() == PartKind.LED) {
        boolean firstIsCathode = !ends.get(0).pin().matches("2|A") ^ turned.contains(p.reference());
        Joint cathode = ends.get(firstIsCathode ? 0 : 1);
        Joint anode = ends.get(firstIsCathode ? 1 : 0);
        n.diode(node(anode), node(cathode), forwardVolts(p));
      }
    }
    faultResistors((_, a, b, r) -> n.resistor(a, b, r));
  }

  /// Direct-current resistance of a two-ended part, when it has one.
  private OptionalDouble ohms(Part p) {
    for (Fault f : faults) {
      if (f instanceof Fault.WrongValue(String part, double r)
          && part.equals(p.reference())
          && p.kind() == PartKind.RESISTOR) {
        return OptionalDouble.of(r);
      }
    }
    if (stepParts.contains(p.reference())) {
      return OptionalDouble.empty();
    }
    return switch (p.kind()) {
      case RESISTOR -> PartValue.ohms(p);
      case INDUCTOR, FERRITE -> OptionalDouble.of(COIL_OHM);
      case FUSE -> OptionalDouble.of(FUSE_OHM);
      default -> OptionalDouble.empty();
    };
  }

  /// Forward voltage by kind; typical, no source. Clamping diodes hang between a rail and ground
  /// with their cathode at the rail and conduct only when the rail is turned round.
  private static double forwardVolts(Part p) {
    String w = (p.value() + " " + p.code() + " " + p.description()).toUpperCase(Locale.ROOT);
    if (p.kind() == PartKind.LED) {
      return 1.9;
    }
    return w.contains("SCHOTTKY") || w.contains("SKY") ? 0.35 : 0.65;
  }

  /// The network of resistors, coils and fuses alone, as an ohmmeter sees an unpowered board at a
  /// test voltage below what opens a diode.
  public ResistorGraph unpowered() {
    ResistorGraph g = new ResistorGraph();
    for (Part p : revision.parts()) {
      List<Joint> ends = revision.jointsOf(p.reference());
      if (p.fitted() && ends.size() == 2 && !dead.contains(p.reference())) {
        OptionalDouble ohms = ohms(p);
        if (ohms.isPresent()) {
          g.resistor(p.reference(), node(ends.get(0)), node(ends.get(1)), ohms.getAsDouble());
        }
      }
    }
    faultResistors(g::resistor);
    return g;
  }
}
