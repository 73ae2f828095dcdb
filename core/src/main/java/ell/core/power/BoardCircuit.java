package ell.core.power;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.circuit.Circuit;
import ell.core.circuit.Diode;
import ell.core.circuit.Operating;
import ell.core.circuit.Regulator;
import ell.core.circuit.Resistance;
import ell.core.power.Ladder.Kind;
import ell.core.power.Ladder.Load;
import ell.core.power.Ladder.Step;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;

/// The electrical model of one board: its parts from the bill of materials, regulators and loads
/// from the ladder, and the faults of this very board. Used for the band that first power is held
/// against, for expected ohms, and by the simulated bench.
public final class BoardCircuit {
  /// The supply on the first source; those on the others are named `supply 2` and so on.
  public static final String SUPPLY = "supply";

  /// Of a supply with its wires; typical, no source.
  private static final double SUPPLY_OHM = 0.01;

  /// No bench supply gives more.
  private static final double MOST_AMPS = 1000;

  /// In which a switching and a linear regulator come up; typical, no source.
  private static final double SWITCHING_RISES = 4e-3;

  private static final double LINEAR_RISES = 1e-3;

  private final Revision revision;
  private final Ladder ladder;
  private final List<Fault> faults;

  /// Joints whose lead is on a node of its own.
  private final Set<String> apart;

  private final Set<String> dead;

  /// Parts that act in the circuit by themselves.
  private final Set<String> acts = new HashSet<>();

  private final Set<String> turned;

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
  }

  /// The node that a joint is on: its net, or a node of its own when it is open or unconnected.
  public String node(Joint j) {
    return !j.connected() || apart.contains(j.place()) ? "joint " + j.place() : node(j.net());
  }

  /// Whether a part sits the wrong way round.
  boolean turned(String part) {
    return turned.contains(part);
  }

  /// The node that feeds a load, and the one that it returns to.
  String fed(Load l) {
    return reach(l.part(), l.rail());
  }

  String back(Load l) {
    return back(l.part());
  }

  /// The node of a net.
  public String node(String net) {
    return net.equals(ladder.ground()) ? "GND" : "net " + net;
  }

  /// The node of a net, or of a joint `part.pin`.
  private String place(String name) {
    return revision.net(name).isEmpty()
        ? revision.joint(name).map(this::node).orElseGet(() -> node(name))
        : node(name);
  }

  private static final double NOTHING_OHM = 0.01;
  private static final double SHORT_OHM = 0.1;

  private void faultResistors(Circuit n) {
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
  private void own(Circuit n, String part, String pin, Optional<String> net, double ohms) {
    revision
        .joint(part, pin)
        .ifPresent(j -> n.resistor("joint " + j.place(), node(j), node(net.orElse(j.net())), ohms));
  }

  /// Between the first two nets of a part.
  private void ends(Circuit n, String part, double ohms) {
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

  /// The board with its supplies, all of them off.
  ///
  /// @param state one of [Ladder#STATES]
  /// @param loadScale 1 for the loads as stated
  public Circuit powered(String state, double loadScale) {
    Circuit c = alone(state, loadScale);
    for (int i = 0; i < ladder.sources().size(); i++) {
      String name = supply(i);
      c.supply(
          name, node(ladder.sources().get(i).rail()), Circuit.GROUND, 0, MOST_AMPS, SUPPLY_OHM);
      c.set(name, 0, MOST_AMPS, false);
    }
    return c;
  }

  /// The board with nothing connected to it.
  ///
  /// @param state one of [Ladder#STATES]
  /// @param loadScale 1 for the loads as stated
  public Circuit alone(String state, double loadScale) {
    Circuit c = new Circuit();
    passives(c);
    for (Step s : ladder.steps()) {
      if (dead.contains(s.part())) {
        continue;
      }
      if (s.regulates()) {
        regulator(c, s);
      } else if (!acts.contains(s.part())) {
        // what passes a rail on and is no part of two ends that is known
        pass(c, s);
      }
    }
    for (Load l : ladder.loads()) {
      if (!dead.contains(l.part()) && !inNetwork(l.part())) {
        double nominal = ladder.rail(l.rail()).orElseThrow().volts();
        if (nominal <= 0) {
          continue; // what stands below ground is listed and not worked out
        }
        c.load(
            l.part() + " load",
            reach(l.part(), l.rail()),
            back(l.part()),
            l.in(state) * loadScale,
            0.7 * nominal);
      }
    }
    return c;
  }

  /// The supply on a source, counted from 0.
  public static String supply(int source) {
    return source == 0 ? SUPPLY : SUPPLY + " " + (source + 1);
  }

  /// The board at rest, its first source fed.
  ///
  /// @param volts of the supply, not below 0
  /// @param limit of its current, above 0
  public Operating fed(String state, double loadScale, double volts, double limit) {
    Circuit c = powered(state, loadScale);
    if (!ladder.sources().isEmpty()) {
      c.set(SUPPLY, volts, limit, true);
    }
    return c.rest();
  }

  private void regulator(Circuit c, Step s) {
    boolean lifts = ladder.lifts(s);
    boolean switching = s.kind() == Kind.SWITCHING;
    Regulator law =
        new Regulator(
                s.volts(),
                s.dropout(),
                s.limit() > 0 ? s.limit() : 10,
                s.quiescent(),
                switching ? s.efficiency() : 0)
            .rising(switching ? SWITCHING_RISES : LINEAR_RISES);
    Optional<PartSaid> said = Optional.ofNullable(ladder.parts().get(s.part()));
    if (said.isPresent()) {
      law =
          law.folding(said.get().or("foldback", law.foldback()))
              .rising(said.get().or("rises", law.softStart()));
    }
    String in = reach(s.part(), s.from());
    String out = output(s);
    String enable =
        said.filter(x -> !x.enable().isEmpty())
            .flatMap(x -> revision.joint(s.part(), x.enable()))
            .map(this::node)
            .orElse(in);
    if (lifts) {
      law = law.starting(STARTS * ladder.rail(s.from()).orElseThrow().volts());
      if (!joined(s)) {
        // before it runs its coil and its diode pass the input on
        c.diode(s.part() + " diode", in, out, Diode.SCHOTTKY);
      }
    }
    c.regulator(s.part(), in, out, back(s.part()), enable, law);
  }

  private void pass(Circuit c, Step s) {
    if (s.kind() == Kind.DIODE) {
      c.diode(s.part(), reach(s.part(), s.from()), reach(s.part(), s.to()), Diode.SILICON);
    } else {
      double ohms = s.ohms() > 0 ? s.ohms() : PartModel.FUSE_OHM;
      c.resistor(s.part(), reach(s.part(), s.from()), reach(s.part(), s.to()), ohms);
    }
  }

  /// Share of its input from which a converter that lifts runs; typical, no source.
  private static final double STARTS = 0.6;

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

  private void passives(Circuit c) {
    acts.clear();
    for (Part p : revision.parts()) {
      if (!p.fitted() || dead.contains(p.reference())) {
        continue;
      }
      if (p.kind() == PartKind.TRANSISTOR
          && ladder.steps().stream().anyMatch(s -> s.part().equals(p.reference()))) {
        continue; // the ladder says that it passes a rail on, whatever drives it
      }
      if (PartModel.put(
          c,
          p,
          revision.jointsOf(p.reference()),
          this::node,
          wrong(p.reference()),
          turned.contains(p.reference()),
          Optional.ofNullable(ladder.parts().get(p.reference())),
          p.kind() == PartKind.INDUCTOR && converts(p.reference()))) {
        acts.add(p.reference());
      }
    }
    faultResistors(c);
  }

  /// Whether a part shares a net with a switching regulator, so that it is the coil of one.
  private boolean converts(String part) {
    Set<String> own = new HashSet<>();
    revision.jointsOf(part).forEach(j -> own.add(j.net()));
    return ladder.steps().stream()
        .filter(s -> s.kind() == Kind.SWITCHING)
        .flatMap(s -> revision.jointsOf(s.part()).stream())
        .anyMatch(j -> j.connected() && own.contains(j.net()) && !j.net().equals(ladder.ground()));
  }

  private OptionalDouble wrong(String part) {
    for (Fault f : faults) {
      if (f instanceof Fault.WrongValue(String which, double value) && which.equals(part)) {
        return OptionalDouble.of(value);
      }
    }
    return OptionalDouble.empty();
  }

  /// What an ohmmeter sees of the board without power, at volts below what opens a junction.
  public Resistance unpowered() {
    Circuit c = new Circuit();
    passives(c);
    for (Step s : ladder.steps()) {
      if (s.kind() == Kind.PASS && !dead.contains(s.part()) && !acts.contains(s.part())) {
        pass(c, s);
      }
    }
    return Resistance.of(c);
  }
}
