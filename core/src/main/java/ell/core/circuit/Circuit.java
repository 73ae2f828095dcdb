package ell.core.circuit;

import ell.core.quantity.Check;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;

/// A circuit of parts between named nodes: what is asked of a board, at rest and in time, powered
/// and unpowered, is asked of this. `GND` is the reference, 0 V.
///
/// Built by adding elements, then asked with [#rest], [#run] and [Resistance]. SI units. Not for
/// many threads.
public final class Circuit {
  /// The reference.
  public static final String GROUND = "GND";

  /// Ohms below which a resistor counts as this, so that links and beads do not divide by zero.
  public static final double LEAST_OHM = 1e-3;

  private final Map<String, Integer> index = new LinkedHashMap<>(Map.of(GROUND, -1));
  private final List<String> nodes = new ArrayList<>();
  private final List<Element> elements = new ArrayList<>();
  private final Map<String, Element> named = new HashMap<>();
  private int memory;
  private Pattern pattern;

  private int node(String name) {
    return index.computeIfAbsent(
        name,
        n -> {
          nodes.add(n);
          return nodes.size() - 1;
        });
  }

  private void add(Element e) {
    e.first = memory;
    memory += e.memory();
    e.place = elements.size();
    elements.add(e);
    pattern = null;
    named.putIfAbsent(e.name, e);
  }

  /// Adds an element of another circuit whose nodes have the same places.
  void put(Element e) {
    if (e instanceof Supply s) {
      s.free(false);
    }
    add(e);
  }

  /// How many elements it has.
  public int size() {
    return elements.size();
  }

  List<Element> elements() {
    return elements;
  }

  List<String> nodes() {
    return nodes;
  }

  /// The place of a node among [#nodes], -1 for the reference; empty when it has none of that name.
  OptionalInt find(String node) {
    Integer i = index.get(node);
    return i == null ? OptionalInt.empty() : OptionalInt.of(i);
  }

  String name(int node) {
    return node < 0 ? GROUND : nodes.get(node);
  }

  Element named(String name) {
    return named.get(name);
  }

  int memory() {
    return memory;
  }

  /// The pattern of its matrix, null before it was asked anything since an element was added.
  Pattern pattern() {
    return pattern;
  }

  void pattern(Pattern found) {
    pattern = found;
  }

  /// Adds a resistor.
  ///
  /// @param ohms not below 0
  /// @throws IllegalArgumentException when `ohms` is below 0 or not finite
  public void resistor(String name, String a, String b, double ohms) {
    Check.notNegative(ohms, "ohms of " + name);
    if (!a.equals(b)) {
      add(new Resistor(name, node(a), node(b), Math.max(ohms, LEAST_OHM)));
    }
  }

  /// Adds a capacitor.
  ///
  /// @param seriesOhms not below 0
  /// @param leakOhms above 0, may be infinite
  /// @throws IllegalArgumentException when a value is out of its range
  public void capacitor(
      String name, String a, String b, double farads, double seriesOhms, double leakOhms) {
    Check.positive(farads, "farads of " + name);
    Check.notNegative(seriesOhms, "series ohms of " + name);
    if (!(leakOhms > 0)) {
      throw new IllegalArgumentException("leak of " + name + " is above 0 ohm, got " + leakOhms);
    }
    if (!a.equals(b)) {
      add(new Capacitor(name, node(a), node(b), farads, seriesOhms, leakOhms));
    }
  }

  /// Adds a coil.
  ///
  /// @param ohms of its wire; as little as [#LEAST_OHM]
  /// @param saturates ampere; at twice of it half of its inductance is left; may be infinite
  /// @throws IllegalArgumentException when a value is out of its range
  public void coil(String name, String a, String b, double henries, double ohms, double saturates) {
    Check.positive(henries, "henries of " + name);
    Check.notNegative(ohms, "ohms of " + name);
    if (!(saturates > 0)) {
      throw new IllegalArgumentException(name + " saturates above 0 A, got " + saturates);
    }
    if (!a.equals(b)) {
      add(new Coil(name, node(a), node(b), henries, Math.max(ohms, LEAST_OHM), saturates));
    }
  }

  /// Adds a diode or a lamp.
  public void diode(String name, String anode, String cathode, Diode law) {
    if (!anode.equals(cathode)) {
      add(new Junction(name, node(anode), node(cathode), law));
    }
  }

  /// Adds a bipolar transistor.
  ///
  /// @param gain of its current, above 0
  /// @throws IllegalArgumentException when it is not
  public void bipolar(
      String name, String collector, String base, String emitter, double gain, boolean pnp) {
    Check.positive(gain, "gain of " + name);
    add(new Bipolar(name, node(collector), node(base), node(emitter), gain, pnp));
  }

  /// Adds a field-effect transistor and the diode of its body.
  ///
  /// @param threshold volts between gate and source from which it conducts, as a number above 0 for
  ///   either channel
  /// @param onOhms between drain and source at 3 V more than that, above 0
  /// @throws IllegalArgumentException when it is not
  public void fieldEffect(
      String name,
      String drain,
      String gate,
      String source,
      double threshold,
      double onOhms,
      boolean pChannel) {
    Check.positive(onOhms, "on resistance of " + name);
    double gain = 1 / (3 * onOhms);
    add(new FieldEffect(name, node(drain), node(gate), node(source), threshold, gain, pChannel));
    if (!drain.equals(source)) {
      add(
          new Junction(
              name + " body",
              node(pChannel ? drain : source),
              node(pChannel ? source : drain),
              Diode.SILICON));
    }
  }

  /// Adds a supply between a node and another: volts up to a limit of current, nothing back.
  ///
  /// @param volts not below 0
  /// @param limit above 0, A
  /// @param ohms of itself and its wires, above 0
  /// @throws IllegalArgumentException when a value is out of its range
  public void supply(
      String name, String plus, String minus, double volts, double limit, double ohms) {
    Check.notNegative(volts, "volts of " + name);
    Check.positive(limit, "limit of " + name);
    Check.positive(ohms, "ohms of " + name);
    add(new Supply(name, node(plus), node(minus), volts, limit, ohms));
  }

  /// Sets a supply anew; what was solved before stays as it was.
  ///
  /// @throws IllegalArgumentException when there is no such supply
  public void set(String supply, double volts, double limit, boolean on) {
    supply(supply).set(Check.notNegative(volts, "volts"), Check.positive(limit, "limit"), on);
  }

  Supply supply(String name) {
    if (named.get(name) instanceof Supply s) {
      return s;
    }
    throw new IllegalArgumentException("there is no supply '" + name + "'");
  }

  /// Adds a cell.
  ///
  /// @param empty its volts without charge
  /// @param full its volts with all of it
  /// @param ohms of itself, above 0
  /// @param coulombs its charge when full, above 0
  /// @param share of that which it has, 0...1
  /// @throws IllegalArgumentException when a value is out of its range
  public void cell(
      String name,
      String plus,
      String minus,
      double empty,
      double full,
      double ohms,
      double coulombs,
      double share) {
    Check.positive(ohms, "ohms of " + name);
    Check.positive(coulombs, "charge of " + name);
    Check.inRange(share, 0, 1, "share of charge of " + name);
    add(new Cell(name, node(plus), node(minus), empty, full, ohms, coulombs, share));
  }

  /// Adds a load that draws `amps` from `full` volts up and less below.
  ///
  /// @throws IllegalArgumentException when `amps` is below 0 or `full` not above 0
  public void load(String name, String plus, String minus, double amps, double full) {
    Check.notNegative(amps, "amps of " + name);
    Check.positive(full, "full volts of " + name);
    if (amps > 0 && !plus.equals(minus)) {
      add(new Load(name, node(plus), node(minus), amps, full));
    }
  }

  /// Adds a regulator that is on whenever it has an input, its return at the reference.
  public void regulator(String name, String in, String out, Regulator law) {
    regulator(name, in, out, GROUND, in, law);
  }

  /// Adds a regulator. A linear one has the diode of its pass element from output to input, a
  /// switching one that of its lower switch from its return to its output.
  ///
  /// @param enable the node that switches it on; the input where it has none
  public void regulator(
      String name, String in, String out, String ground, String enable, Regulator law) {
    if (law.efficiency() > 0) {
      add(new SwitchingRegulator(name, node(in), node(out), node(ground), node(enable), law));
      if (!out.equals(ground)) {
        // what flows in a coil when it stops flows on through its lower switch
        add(new Junction(name + " catch", node(ground), node(out), Diode.SILICON));
      }
      return;
    }
    add(new LinearRegulator(name, node(in), node(out), node(ground), node(enable), law));
    if (!in.equals(out)) {
      add(new Junction(name + " pass", node(out), node(in), Diode.SILICON));
    }
  }

  /// Adds a fuse that resets.
  ///
  /// @param trips ampere that trips it in the end, above 0
  /// @param seconds its thermal time constant, above 0
  /// @throws IllegalArgumentException when a value is out of its range
  public void resettableFuse(
      String name, String a, String b, double ohms, double trips, double seconds) {
    Check.positive(ohms, "ohms of " + name);
    Check.positive(trips, "trip current of " + name);
    Check.positive(seconds, "time constant of " + name);
    add(new ResettableFuse(name, node(a), node(b), ohms, trips, seconds));
  }

  /// Whether there is a node of a name.
  public boolean has(String node) {
    return index.containsKey(node);
  }

  /// Makes sure that there is a node of a name, though nothing hangs on it yet.
  public void touch(String node) {
    if (!index.containsKey(node)) {
      node(node);
      pattern = null;
    }
  }

  /// The state in which nothing changes any more.
  public Operating rest() {
    return new Rest(this).solve();
  }

  /// The same, where something starts and stops at the limit of a supply found to so near a share
  /// of its volts only, which is quicker.
  public Operating rest(double near) {
    return new Rest(this, near).solve();
  }

  /// The circuit in time, from the moment before power.
  public Run run() {
    return new Run(this);
  }
}
