package ell.bench.sim;

import ell.bench.sim.ScpiStatus.Refused;
import ell.core.board.Joint;
import ell.core.circuit.Circuit;
import ell.core.circuit.Operating;
import ell.core.circuit.Run;
import ell.core.power.BoardCircuit;
import ell.core.power.Fault;
import ell.core.power.Ladder;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.ToDoubleFunction;

/// What lies on the simulated bench: a board, the supply's wires on its source, the meter's tips on
/// it. Every instrument reads from here and works on here.
///
/// While the board has power its time goes on as the clock does: capacitors charge, regulators come
/// up. A reading takes its own time, and is the average over it.
final class SimTable {
  private static final double MOST_OHMS = 60e6;

  /// Seconds that a reading takes.
  private static final double APERTURE = 0.02;

  /// The shortest stretch of it that is solved at once, second.
  private static final double FINE = 1e-5;

  /// How exact its time is: far better than any instrument reads.
  private static final double EXACT = 1e-2;

  /// Steps that are tried for a stretch.
  private static final long TRIES = 2000;

  /// How long it is worked on at most before an instrument answers, and how long a stretch may take
  /// for the next one to be longer.
  private static final long BUSY_NANOS = 20_000_000;

  private static final long BRISK_NANOS = 1_000_000;

  /// After so many seconds without a change a board is at rest.
  private static final double RESTS = 1;

  /// What stands between the tips and is measured through them.
  private static final String METER = "meter";

  /// Volts that the meter gives at most for ohms, and for its diode range.
  private static final double OPEN_VOLTS = 3;

  /// Volts up to which a range of ohms reads: less than what opens a junction.
  private static final double RANGE_VOLTS = 0.25;

  private static final double LEADS_OHM = 0.15;

  /// The test currents of the ranges from the lowest ohms up; typical, no source.
  private static final double[] TEST_AMPS = {1e-3, 1e-4, 1e-5, 1e-6, 1e-7};

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
  private Circuit powered;
  private Run run;
  private long lastMoment;
  private double stretch = FINE;
  private double load = 1;
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
    turned();
  }

  synchronized void output(boolean wanted) {
    if (wanted && !on) {
      tried();
    }
    on = wanted;
    turned();
  }

  synchronized void volts(double wanted) {
    volts = wanted;
    turned();
  }

  synchronized void limit(double wanted) {
    limit = wanted;
    turned();
  }

  /// The supply's knobs reach the board.
  private void turned() {
    if (powered == null || ladder.sources().isEmpty()) {
      return;
    }
    toNow();
    powered.set(BoardCircuit.SUPPLY, volts, Math.max(limit, 1e-6), on);
    run.changed();
    stretch = FINE;
  }

  /// Lets the time go by that has gone by. A knob turns whatever the board does.
  private void toNow() {
    long now = System.nanoTime();
    double since = Math.clamp((now - lastMoment) * 1e-9, 0, RESTS);
    lastMoment = now;
    goOn(since, _ -> 0);
  }

  /// Lets some time go by, and takes the average of something over it. An instrument answers in its
  /// time whatever lies before it: where much happens on a board, less time goes by.
  ///
  /// @return NaN when the board did not settle
  private double goOn(double seconds, ToDoubleFunction<Run> what) {
    long began = System.nanoTime();
    long at = began;
    double gone = 0;
    double sum = 0;
    while (gone < seconds && at - began < BUSY_NANOS) {
      double slice = Math.min(stretch, seconds - gone);
      if (!run.tries(TRIES).on(slice).settled()) {
        return Double.NaN;
      }
      sum += slice * what.applyAsDouble(run);
      gone += slice;
      long now = System.nanoTime();
      stretch = Math.clamp(now - at < BRISK_NANOS ? 2 * stretch : stretch / 2, FINE, APERTURE / 4);
      at = now;
    }
    return gone > 0 ? sum / gone : what.applyAsDouble(run);
  }

  /// The average of something over the time of a reading.
  private double read(ToDoubleFunction<Run> what) {
    toNow();
    double average = goOn(APERTURE, what);
    if (Double.isNaN(average)) {
      throw unsettled();
    }
    return average;
  }

  private boolean live() {
    return on && powered != null && !ladder.sources().isEmpty();
  }

  private String source() {
    return circuit.node(ladder.sources().getFirst().rail());
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
    double v = live() ? read(r -> r.at(source())) : on ? volts : 0;
    return noisy(v, 5e-4, 1e-3);
  }

  synchronized double supplyAmps() {
    return noisy(live() ? read(r -> r.through(BoardCircuit.SUPPLY)) : 0, 5e-3, 1e-4);
  }

  synchronized double tipVolts() {
    double v =
        live() && !plus.isEmpty() && !minus.isEmpty() ? read(r -> r.at(plus) - r.at(minus)) : 0;
    return noisy(v, 1e-3, 2e-4);
  }

  /// Whether the supply holds its current instead of its volts.
  synchronized boolean limited() {
    if (!live()) {
      return false;
    }
    toNow();
    return run.now().limited();
  }

  /// Amperes from the plus tip to the minus tip through the meter's shunt, which joins the two.
  synchronized double tipAmps() {
    if (!live() || plus.isEmpty() || minus.isEmpty() || plus.equals(minus)) {
      return noisy(0, 0, 1e-5);
    }
    Circuit with = circuit.powered("boot", load);
    with.resistor(METER, plus, minus, SHUNT_OHMS);
    with.set(BoardCircuit.SUPPLY, volts, Math.max(limit, 1e-6), true);
    return noisy(known(with.rest()).through(METER), 5e-3, 1e-5);
  }

  private static Operating known(Operating o) {
    if (!o.settled()) {
      throw unsettled();
    }
    return o;
  }

  private static Refused unsettled() {
    return new Refused(-230, "Data corrupt or stale: the board did not settle");
  }

  /// Ohms between the tips once capacitors have charged, infinite for an open loop. The meter
  /// drives its test current through the board, from the lowest range up.
  ///
  /// @param leads whether its own leads are in what it reads
  synchronized double tipOhms(boolean leads) {
    if (plus.isEmpty() || minus.isEmpty()) {
      return Double.POSITIVE_INFINITY;
    }
    if (on) {
      throw new Refused(-221, "Settings conflict: ohms on a powered board");
    }
    double own = leads ? LEADS_OHM : 0;
    if (plus.equals(minus)) {
      return noisy(own, 2e-3, 0.02);
    }
    for (double amps : TEST_AMPS) {
      double v = driven(amps);
      if (v <= RANGE_VOLTS) {
        double r = v / amps;
        return r > MOST_OHMS ? Double.POSITIVE_INFINITY : noisy(r + own, 2e-3, 0.02);
      }
    }
    return Double.POSITIVE_INFINITY;
  }

  /// Volts over what is between the tips in the diode range, infinite when nothing leads.
  synchronized double tipDiode() {
    if (plus.isEmpty() || minus.isEmpty()) {
      return Double.POSITIVE_INFINITY;
    }
    if (on) {
      throw new Refused(-221, "Settings conflict: the diode range on a powered board");
    }
    double v = plus.equals(minus) ? 0 : driven(TEST_AMPS[0]);
    return v > 0.9 * OPEN_VOLTS ? Double.POSITIVE_INFINITY : noisy(v, 2e-3, 2e-4);
  }

  /// Volts between the tips at a current through them, on the board without power.
  private double driven(double amps) {
    Circuit with = circuit.alone("off", load);
    with.supply(METER, plus, minus, OPEN_VOLTS, amps, 10);
    Operating o = known(with.rest());
    return o.at(plus) - o.at(minus);
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
    powered = circuit.powered("boot", load);
    run = powered.run().exact(EXACT);
    lastMoment = System.nanoTime();
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

  private double noisy(double value, double fraction, double floor) {
    return value + random.nextGaussian() * (fraction * Math.abs(value) / 3 + floor / 3);
  }
}
