package ell.bench.sim;

import ell.bench.sim.ScpiStatus.Refused;
import ell.core.board.Joint;
import ell.core.circuit.Network;
import ell.core.power.BoardCircuit;
import ell.core.power.Fault;
import ell.core.power.Ladder;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;

/// What lies on the simulated bench: a board, the supply's wires on its source, the meter's tips on
/// it. Every instrument reads from here and works on here; each method is one moment.
final class SimTable {
  private static final double MOST_OHMS = 60e6;

  /// Of the meter's range of amperes, with its leads.
  private static final double SHUNT_OHMS = 0.05;

  private final Map<String, SimBoard> boards = new HashMap<>();
  private final Random random;
  private final Random tries;
  private final long seed;
  private double volts;
  private double limit = 0.1;
  private boolean on;
  private String laid = "";
  private BoardCircuit circuit;
  private Ladder ladder;
  private Network network;
  private double load = 1;
  private Network.Solution solution;
  private String plus = "";
  private String minus = "";
  private String plusAt = "";
  private String minusAt = "";

  SimTable(List<SimBoard> boards, long seed) {
    boards.forEach(b -> this.boards.put(b.serial(), b));
    this.seed = seed;
    this.random = new Random(seed);
    this.tries = new Random(seed ^ 0x5eed);
  }

  boolean has(String serial) {
    return boards.containsKey(serial);
  }

  synchronized String laid() {
    return laid;
  }

  synchronized boolean on() {
    return on;
  }

  synchronized double volts() {
    return volts;
  }

  synchronized double limit() {
    return limit;
  }

  synchronized void reset() {
    volts = 0;
    limit = 0.1;
    off();
  }

  synchronized void off() {
    on = false;
    solution = null;
  }

  synchronized void output(boolean wanted) {
    if (wanted && !on) {
      tried();
    }
    on = wanted;
    solution = null;
  }

  synchronized void volts(double wanted) {
    volts = wanted;
    solution = null;
  }

  synchronized void limit(double wanted) {
    limit = wanted;
    solution = null;
  }

  synchronized void plus(String name) {
    plus = place(name);
    plusAt = name;
  }

  synchronized void minus(String name) {
    minus = place(name);
    minusAt = name;
  }

  synchronized double supplyVolts() {
    return noisy(on ? solved().supplyVolts() : 0, 5e-4, 1e-3);
  }

  synchronized double supplyAmps() {
    return noisy(on ? solved().supplyAmps() : 0, 5e-3, 1e-4);
  }

  synchronized double tipVolts() {
    double v =
        on && !plus.isEmpty() && !minus.isEmpty() ? solved().at(plus) - solved().at(minus) : 0;
    return noisy(v, 1e-3, 2e-4);
  }

  /// Whether the supply holds its current instead of its volts.
  synchronized boolean limited() {
    return on && solved().limited();
  }

  /// Amperes from the plus tip to the minus tip through the meter's shunt, which joins the two.
  synchronized double tipAmps() {
    if (!on
        || ladder.sources().isEmpty()
        || plus.isEmpty()
        || minus.isEmpty()
        || plus.equals(minus)) {
      return noisy(0, 0, 1e-5);
    }
    Network with = circuit.supplied("boot", load);
    with.resistor(plus, minus, SHUNT_OHMS);
    Network.Solution s =
        with.solve(circuit.node(ladder.sources().getFirst().rail()), volts, Math.max(limit, 1e-6));
    return noisy((s.at(plus) - s.at(minus)) / SHUNT_OHMS, 5e-3, 1e-5);
  }

  /// Ohms between the tips, infinite for an open loop.
  synchronized double tipOhms() {
    if (plus.isEmpty() || minus.isEmpty()) {
      return Double.POSITIVE_INFINITY;
    }
    if (on) {
      throw new Refused(-221, "Settings conflict: ohms on a powered board");
    }
    double r = circuit.unpowered().between(plus, minus);
    return r > MOST_OHMS ? Double.POSITIVE_INFINITY : noisy(r + 0.15, 2e-3, 0.02);
  }

  synchronized void lay(String serial) {
    SimBoard b = boards.get(serial);
    if (b == null) {
      throw new Refused(-224, "Illegal parameter value");
    }
    off();
    laid = serial;
    plus = "";
    minus = "";
    // parts of this very board differ a little from their data sheets, always in the same way
    Random own = new Random(seed * 31 + serial.hashCode());
    ladder = spread(b.ladder(), own);
    load = 1 + 0.12 * clamped(own);
    tried();
  }

  /// What is there at some tries only is settled anew.
  private void tried() {
    if (laid.isEmpty()) {
      return;
    }
    SimBoard b = boards.get(laid);
    List<Fault> now = new ArrayList<>();
    for (Fault f : b.faults()) {
      Fault one = f;
      boolean there = true;
      while (one instanceof Fault.Sometimes(double chance, Fault inner)) {
        there &= tries.nextDouble() < chance;
        one = inner;
      }
      if (there) {
        now.add(one);
      }
    }
    circuit = new BoardCircuit(b.revision(), ladder, now);
    network = circuit.supplied("boot", load);
    solution = null;
    // the tips stay where they are; a lead may have come off its net
    plus = plus.isEmpty() ? "" : place(plusAt);
    minus = minus.isEmpty() ? "" : place(minusAt);
  }

  private static Ladder spread(Ladder l, Random own) {
    return new Ladder(
        l.rails(),
        l.sources(),
        l.steps().stream()
            .map(s ->
                s.regulates()
                    ? new Ladder.Step(
                        s.part(),
                        s.kind(),
                        s.from(),
                        s.to(),
                        s.volts() * (1 + 0.006 * clamped(own)),
                        s.dropout(),
                        s.efficiency(),
                        s.quiescent(),
                        s.theta(),
                        s.limit(),
                        s.ohms())
                    : s)
            .toList(),
        l.loads(),
        l.ground(),
        l.assumptions());
  }

  private static double clamped(Random r) {
    return Math.clamp(r.nextGaussian(), -2, 2);
  }

  /// The node of a net, test point or `part.pin`.
  private String place(String name) {
    if (circuit == null) {
      throw new Refused(-221, "Settings conflict");
    }
    SimBoard b = boards.get(laid);
    if (!b.revision().net(name).isEmpty()) {
      return circuit.node(name);
    }
    int dot = name.lastIndexOf('.');
    List<Joint> joints =
        dot > 0
            ? b.revision().joint(name.substring(0, dot), name.substring(dot + 1)).stream().toList()
            : b.revision().jointsOf(name);
    if (joints.isEmpty()) {
      throw new Refused(-224, "Illegal parameter value");
    }
    return circuit.node(joints.getFirst());
  }

  private Network.Solution solved() {
    if (solution == null) {
      if (network == null || ladder.sources().isEmpty()) {
        return new Network.Solution(Map.of(), volts, 0, false, Map.of(), true);
      }
      solution =
          network.solve(
              circuit.node(ladder.sources().getFirst().rail()), volts, Math.max(limit, 1e-6));
    }
    return solution;
  }

  private double noisy(double value, double fraction, double floor) {
    return value + random.nextGaussian() * (fraction * Math.abs(value) / 3 + floor / 3);
  }
}
