package ell.core.power;

import ell.core.board.Joint;
import ell.core.board.Revision;
import ell.core.circuit.AtRest;
import ell.core.circuit.Change;
import ell.core.circuit.Circuit;
import ell.core.circuit.OhmVariants;
import ell.core.circuit.Operating;
import ell.core.circuit.Variants;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Predicate;

/// One board under one fault after the other, at rest: each is a small change of the board as it
/// should be, and where that leads too far the whole board is solved with it. Not for many threads.
public final class BoardVariants {
  /// Where a board hangs that starts and stops is found as near as that; no meter reads better.
  private static final double NEAR = 1e-4;

  private static final double NOTHING_OHM = 0.01;
  private static final double SHORT_OHM = 0.1;

  private final Revision revision;
  private final Ladder ladder;
  private final List<Fault> standing;
  private final String state;
  private final Consumer<Circuit> supplies;
  private final BoardCircuit names;
  private final Variants variants;
  private final Set<String> modelled = new HashSet<>();
  private OhmVariants ohms;
  private OhmVariants asleep;
  private int whole;

  /// A board.
  ///
  /// @param standing links that are not as they are drawn, and faults that are known
  /// @param state one of [Ladder#STATES]
  /// @param supplies turns the knobs of the supplies, see [BoardCircuit#supply]
  public BoardVariants(
      Revision revision,
      Ladder ladder,
      List<Fault> standing,
      String state,
      Consumer<Circuit> supplies) {
    this.revision = revision;
    this.ladder = ladder;
    this.standing = List.copyOf(standing);
    this.state = state;
    this.supplies = supplies;
    names = new BoardCircuit(revision, ladder, standing);
    Circuit c = names.powered(state, 1);
    for (String net : revision.nets()) {
      if (c.has(names.node(net))) {
        modelled.add(net);
      } else {
        c.touch(names.node(net));
      }
    }
    supplies.accept(c);
    variants = new Variants(c);
  }

  /// The board without a further fault.
  public Operating healthy() {
    return variants.base();
  }

  /// How many faults led too far, so that the whole board was solved.
  public int whole() {
    return whole;
  }

  /// The node of a place as it is under a fault.
  public String node(String place, List<Fault> faults) {
    if (!revision.net(place).isEmpty()) {
      return names.node(place);
    }
    Optional<Joint> j = revision.joint(place);
    boolean off = j.isPresent() && faults.stream().anyMatch(f -> off(f, j.get()));
    return off ? "joint " + place : j.map(names::node).orElseGet(() -> names.node(place));
  }

  private static boolean off(Fault f, Joint j) {
    return switch (f) {
      case Fault.Open o -> at(j, o.part(), o.pin());
      case Fault.Loose l -> at(j, l.part(), l.pin());
      case Fault.Resistive r -> at(j, r.part(), r.pin());
      case Fault.Tied t -> at(j, t.part(), t.pin());
      case Fault.Sometimes s -> off(s.fault(), j);
      default -> false;
    };
  }

  private static boolean at(Joint j, String part, String pin) {
    return j.part().equals(part) && j.pin().equals(pin);
  }

  /// Whether anything is known that hangs on a net.
  public boolean modelled(String net) {
    return modelled.contains(net) || net.equals(ladder.ground());
  }

  /// What an ohmmeter sees without power: the whole, and under faults.
  public OhmVariants ohms() {
    if (ohms == null) {
      ohms = new OhmVariants(unpowered());
    }
    return ohms;
  }

  /// The same where no regulator draws anything at the volts of a meter.
  public OhmVariants asleep() {
    if (asleep == null) {
      asleep = new OhmVariants(unpowered(), false);
    }
    return asleep;
  }

  private Circuit unpowered() {
    Circuit c = names.alone("off", 1);
    revision.nets().forEach(net -> c.touch(names.node(net)));
    return c;
  }

  /// The board without power under some faults.
  public OhmVariants.Changed ohms(List<Fault> faults) {
    return under(faults, ohms());
  }

  /// The same where no regulator draws anything at the volts of a meter.
  public OhmVariants.Changed asleep(List<Fault> faults) {
    return under(faults, asleep());
  }

  private OhmVariants.Changed under(List<Fault> faults, OhmVariants board) {
    Change c = board.change();
    for (Fault f : faults) {
      put(f, c, node -> node.equals(Circuit.GROUND) || board.has(node));
    }
    return board.with(c);
  }

  /// The board under some faults.
  ///
  /// @return empty when no state was found in which all of it agrees
  public Optional<AtRest> under(List<Fault> faults) {
    Change c = variants.change();
    for (Fault f : faults) {
      put(f, c, this::has);
    }
    if (!c.any()) {
      return healthy().settled() ? Optional.of(healthy()) : Optional.empty();
    }
    Optional<AtRest> quick = variants.with(c);
    if (quick.isPresent()) {
      return quick;
    }
    whole++;
    Operating o = variants.whole(c, NEAR);
    return o.settled() ? Optional.of(o) : Optional.empty();
  }

  /// The board under some faults, made anew and solved as a whole: what the quick ways are held
  /// against.
  ///
  /// @return empty when no state was found in which all of it agrees
  public Optional<AtRest> solved(List<Fault> faults) {
    Operating o = with(faults).rest(NEAR);
    return o.settled() ? Optional.of(o) : Optional.empty();
  }

  private Circuit with(List<Fault> faults) {
    List<Fault> all = new ArrayList<>();
    for (Fault s : standing) {
      boolean again =
          s instanceof Fault.Link a
              && faults.stream()
                  .anyMatch(f -> f instanceof Fault.Link b && a.part().equals(b.part()));
      if (!again) {
        all.add(s);
      }
    }
    all.addAll(faults);
    BoardCircuit b = new BoardCircuit(revision, ladder, all);
    Circuit c = b.powered(state, 1);
    supplies.accept(c);
    return c;
  }

  /// Writes a fault as a change. One that does nothing at rest changes nothing.
  private void put(Fault fault, Change c, Predicate<String> has) {
    switch (fault) {
      case Fault.Open f -> apart(f.part(), f.pin(), c, has);
      case Fault.Loose f -> apart(f.part(), f.pin(), c, has);
      case Fault.Resistive f ->
          apart(f.part(), f.pin(), c, has)
              .ifPresent(j -> c.resistor(lead(j), lead(j), names.node(j.net()), f.ohms()));
      case Fault.Tied f ->
          apart(f.part(), f.pin(), c, has)
              .filter(_ -> has.test(names.node(f.net())))
              .ifPresent(j -> c.resistor(lead(j), lead(j), names.node(f.net()), NOTHING_OHM));
      case Fault.Bridge f -> {
        String a = node(f.a(), List.of());
        String b = node(f.b(), List.of());
        if (has.test(a) && has.test(b)) {
          c.resistor("bridge", a, b, f.ohms());
        }
      }
      case Fault.Dead f -> c.without(f.part());
      case Fault.Missing f -> c.without(f.part());
      case Fault.WrongValue f -> c.value(f.part(), f.ohms());
      case Fault.Turned f -> {
        if (revision.jointsOf(f.part()).size() == 2) {
          c.turned(f.part()); // of what has more ends nobody knows what it does
        }
      }
      case Fault.Short f -> ends(f.part(), SHORT_OHM, c, has);
      case Fault.Link f -> {
        c.without(f.part());
        if (!f.open()) {
          ends(f.part(), NOTHING_OHM, c, has);
        }
      }
      case Fault.Setting _, Fault.Firmware _ -> {} // nothing of the board
      case Fault.Sometimes f -> put(f.fault(), c, has);
    }
  }

  private boolean has(String node) {
    return node.equals(Circuit.GROUND) || variants.has(node);
  }

  private static String lead(Joint j) {
    return "joint " + j.place();
  }

  /// What hangs on a joint hangs on its lead only, unless the part has other joints on the net.
  private Optional<Joint> apart(String part, String pin, Change c, Predicate<String> has) {
    Optional<Joint> j = revision.joint(part, pin).filter(Joint::connected);
    if (j.isEmpty()) {
      return j;
    }
    boolean alone =
        revision.jointsOf(part).stream()
            .noneMatch(o -> o.net().equals(j.get().net()) && !o.pin().equals(pin));
    String node = names.node(j.get().net());
    if (!alone || !has.test(node)) {
      return Optional.empty();
    }
    c.apart(part, node, lead(j.get()));
    return j;
  }

  private void ends(String part, double ohms, Change c, Predicate<String> has) {
    List<Joint> joints = revision.jointsOf(part);
    joints.stream()
        .filter(j -> !j.net().equals(joints.getFirst().net()))
        .findFirst()
        .filter(j -> has.test(names.node(joints.getFirst())) && has.test(names.node(j)))
        .ifPresent(j -> c.resistor(part, names.node(joints.getFirst()), names.node(j), ohms));
  }
}
