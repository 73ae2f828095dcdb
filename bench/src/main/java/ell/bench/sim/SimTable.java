package ell.bench.sim;

import ell.bench.sim.ScpiStatus.Refused;
import ell.core.board.Joint;
import ell.core.board.Revision;
import ell.core.circuit.Circuit;
import ell.core.circuit.Operating;
import ell.core.power.BoardCircuit;
import ell.core.power.Fault;
import ell.core.power.Ladder;
import ell.core.power.ShortWays;
import ell.core.talk.ControllerOnBoard;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Random;
import java.util.function.Consumer;
import java.util.function.DoubleUnaryOperator;

/// What lies on the simulated bench: a board, the supply's wires on its source, the meter's tips on
/// it. Every instrument reads from here and works on here.
final class SimTable {
  /// Outputs of the supply.
  static final int OUTPUTS = 4;

  private static final double MOST_OHMS = 60e6;

  /// What stands between the tips and is measured through them.
  private static final String METER = "meter";

  /// Volts that the meter gives at most for ohms, and for its diode range.
  private static final double OPEN_VOLTS = 3;

  /// Volts up to which a range of ohms reads: less than what opens a junction.
  private static final double RANGE_VOLTS = 0.25;

  private static final double LEADS_OHM = 0.15;

  /// What tips and leads leave open, and what is left with four wires, ohms; typical, no source.
  private static final double TIPS_OHM = 0.02;

  private static final double FOUR_WIRES_OHM = 3e-4;

  /// The test currents of the ranges from the lowest ohms up; typical, no source.
  private static final double[] TEST_AMPS = {1e-3, 1e-4, 1e-5, 1e-6, 1e-7};

  /// Of the meter's range of amperes, with its leads.
  private static final double SHUNT_OHMS = 0.05;

  private static final double FIRST_LIMIT = 0.1;

  /// A finger tells no less.
  private static final double FINGER_KELVIN = 1;

  private final Map<String, SimBoard> boards = new HashMap<>();
  private final Random random;
  private final Random tries;
  private final long seed;
  private final double[] volts = new double[OUTPUTS + 1];
  private final double[] limit = new double[OUTPUTS + 1];
  private final boolean[] on = new boolean[OUTPUTS + 1];
  private final List<String> passed = new ArrayList<>();

  /// What a program puts on its outputs, true for high.
  private final Map<String, Boolean> driven = new HashMap<>();

  /// Of a usual output of a controller; typical, no source.
  private static final double OUTPUT_OHMS = 25;

  private static final double OUTPUT_AMPS = 0.1;

  /// Readings in whose time a board has come to rest.
  private static final int SETTLING_READS = 15;

  private Consumer<String> onPassed = _ -> {};
  private String laid = "";
  private List<Fault> faults = List.of();
  private LiveBoard live;
  private ControllerOnBoard controller;
  private Ladder ladder;
  private double load = 1;
  private ShortWays ways;
  private String plus = "";
  private String minus = "";
  private String plusAt = "";
  private String minusAt = "";
  private final Map<Integer, String> probes = new HashMap<>();

  SimTable(List<SimBoard> boards, long seed) {
    boards.forEach(b -> this.boards.put(b.serial(), b));
    this.seed = seed;
    this.random = new Random(seed);
    this.tries = new Random(seed ^ 0x5eed);
    Arrays.fill(limit, FIRST_LIMIT);
  }

  boolean has(String serial) {
    return boards.containsKey(serial);
  }

  synchronized String laid() {
    return laid;
  }

  /// Whether any output is on.
  synchronized boolean on() {
    for (boolean one : on) {
      if (one) {
        return true;
      }
    }
    return false;
  }

  synchronized boolean on(int output) {
    return on[output];
  }

  synchronized double volts(int output) {
    return volts[output];
  }

  synchronized double limit(int output) {
    return limit[output];
  }

  synchronized void reset() {
    off();
    Arrays.fill(volts, 0);
    Arrays.fill(limit, FIRST_LIMIT);
    turned();
  }

  /// All outputs go off.
  synchronized void off() {
    Arrays.fill(on, false);
    turned();
  }

  synchronized void output(int output, boolean wanted) {
    if (wanted && !on()) {
      tried();
    }
    on[output] = wanted;
    turned();
  }

  synchronized void volts(int output, double wanted) {
    volts[output] = wanted;
    turned();
  }

  synchronized void limit(int output, double wanted) {
    limit[output] = wanted;
    turned();
  }

  /// The supply's knobs reach the board.
  private void turned() {
    controller = null;
    if (live != null) {
      for (int i = 1; i <= OUTPUTS; i++) {
        live.turned(i, volts[i], limit[i], on[i]);
      }
    }
  }

  /// Is told of each rating that a part of the board passes.
  synchronized void onPassed(Consumer<String> told) {
    onPassed = told;
  }

  /// What passed its rating since the board was laid down.
  synchronized List<String> passed() {
    return List.copyOf(passed);
  }

  private void passed(String words) {
    if (!passed.contains(words)) {
      passed.add(words);
      onPassed.accept(laid + ": " + words);
    }
  }

  /// How warm a part feels, °C, to a finger or a probe.
  synchronized double touched(String part) {
    if (live == null || boards.get(laid).revision().part(part).isEmpty()) {
      throw new Refused(-224, "Illegal parameter value");
    }
    return noisy(live.celsius(part), 0, FINGER_KELVIN);
  }

  /// The tips move; with a lead in the current jack they join what they touch.
  synchronized void plus(String name) {
    plus = place(name);
    plusAt = name;
    joined();
  }

  synchronized void minus(String name) {
    minus = place(name);
    minusAt = name;
    joined();
  }

  /// A probe of the scope moves.
  ///
  /// @param channel counted from 1
  synchronized void probe(int channel, String name) {
    if (channel < 1) {
      throw new Refused(-222, "Data out of range");
    }
    place(name); // refused when there is no such place
    probes.put(channel, name);
  }

  /// What is under a probe, volts over seconds from now: what moves there, else what rests there.
  synchronized DoubleUnaryOperator probed(int channel) {
    String at = probes.get(channel);
    if (at == null || live == null || !on()) {
      return _ -> 0;
    }
    String node = place(at);
    double rests = live.read(r -> r.at(node));
    Optional<DoubleUnaryOperator> moves =
        Signals.at(
            boards.get(laid),
            faults,
            at,
            net -> live.read(r -> r.at(live.circuit().node(net))),
            seed * 31 + laid.hashCode());
    if (moves.isPresent()) {
      return moves.get();
    }
    // a rail that is down has no ripple
    Optional<DoubleUnaryOperator> ripple =
        Signals.ripple(boards.get(laid), boards.get(laid).pulse().at(at).net());
    return ripple.isPresent() && rests > 0.5
        ? t -> rests + ripple.get().applyAsDouble(t)
        : _ -> rests;
  }

  /// Whether the scope's coupling was left at AC.
  synchronized boolean scopeCoupledAc() {
    return faults.contains(new Fault.Setting("scope", "ac"));
  }

  /// Whether the probe divides by ten more than the scope is told.
  synchronized boolean scopeOffFactor() {
    return faults.contains(new Fault.Setting("scope", "x10"));
  }

  private boolean jack() {
    return faults.contains(new Fault.Setting("meter", "current-jack"));
  }

  private void joined() {
    if (jack() && live != null) {
      wake();
    }
  }

  private OptionalInt source(int output) {
    return live == null ? OptionalInt.empty() : live.source(output);
  }

  synchronized double supplyVolts(int output) {
    OptionalInt source = source(output);
    double v =
        !on[output]
            ? 0
            : source.isPresent()
                ? live.read(r -> r.at(live.node(source.getAsInt())))
                : volts[output];
    return noisy(v, 5e-4, 1e-3);
  }

  synchronized double supplyAmps(int output) {
    OptionalInt source = source(output);
    return noisy(
        on[output] && source.isPresent()
            ? live.read(r -> r.through(BoardCircuit.supply(source.getAsInt())))
            : 0,
        5e-3,
        1e-4);
  }

  synchronized double tipVolts() {
    boolean reads = on() && live != null && !plus.isEmpty() && !minus.isEmpty();
    return noisy(reads ? live.read(r -> r.at(plus) - r.at(minus)) : 0, 1e-3, 2e-4);
  }

  /// Whether an output holds its current instead of its volts.
  synchronized boolean limited(int output) {
    return on[output] && live != null && live.limited(output);
  }

  /// Amperes from the plus tip to the minus tip through the meter's shunt, which joins the two.
  synchronized double tipAmps() {
    if (!on() || live == null || plus.isEmpty() || minus.isEmpty() || plus.equals(minus)) {
      return noisy(0, 0, 1e-5);
    }
    Circuit with = live.circuit().powered("boot", load);
    with.resistor(METER, plus, minus, SHUNT_OHMS);
    for (int i = 1; i <= OUTPUTS; i++) {
      OptionalInt source = source(i);
      if (source.isPresent()) {
        with.set(BoardCircuit.supply(source.getAsInt()), volts[i], Math.max(limit[i], 1e-6), on[i]);
      }
    }
    return noisy(known(with.rest()).through(METER), 5e-3, 1e-5);
  }

  private static Operating known(Operating o) {
    if (!o.settled()) {
      throw LiveBoard.unsettled();
    }
    return o;
  }

  /// Ohms between the tips once capacitors have charged, infinite for an open loop. The meter
  /// drives its test current through the board, from the lowest range up.
  ///
  /// @param leads whether its own leads are in what it reads
  synchronized double tipOhms(boolean leads) {
    if (plus.isEmpty() || minus.isEmpty()) {
      return Double.POSITIVE_INFINITY;
    }
    if (on()) {
      throw new Refused(-221, "Settings conflict: ohms on a powered board");
    }
    double own = leads ? LEADS_OHM : copper();
    double floor = leads ? TIPS_OHM : FOUR_WIRES_OHM;
    if (jack()) {
      return noisy(own + SHUNT_OHMS, 2e-3, floor); // it drives its current through its own shunt
    }
    if (plus.equals(minus)) {
      return noisy(own, 2e-3, floor);
    }
    for (double amps : TEST_AMPS) {
      double v = driven(amps);
      if (v <= RANGE_VOLTS) {
        double r = v / amps;
        return r > MOST_OHMS ? Double.POSITIVE_INFINITY : noisy(r + own, 2e-3, floor);
      }
    }
    return Double.POSITIVE_INFINITY;
  }

  /// What the copper adds from the plus tip to where its net touches the one under the other.
  private double copper() {
    return ways.ohms(faults, plusAt, net(minusAt));
  }

  private String net(String place) {
    Revision r = boards.get(laid).revision();
    return r.net(place).isEmpty() ? r.joint(place).map(Joint::net).orElse(place) : place;
  }

  /// Volts over what is between the tips in the diode range, infinite when nothing leads.
  synchronized double tipDiode() {
    if (plus.isEmpty() || minus.isEmpty()) {
      return Double.POSITIVE_INFINITY;
    }
    if (on()) {
      throw new Refused(-221, "Settings conflict: the diode range on a powered board");
    }
    double v = plus.equals(minus) ? 0 : driven(TEST_AMPS[0]);
    return v > 0.9 * OPEN_VOLTS ? Double.POSITIVE_INFINITY : noisy(v, 2e-3, 2e-4);
  }

  /// Volts between the tips at a current through them, on the board without power.
  private double driven(double amps) {
    Circuit with = live.circuit().alone("off", load);
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
    probes.clear();
    passed.clear();
    driven.clear();
    // parts of this very board differ a little from their data sheets, always in the same way
    Random own = new Random(seed * 31 + serial.hashCode());
    ways = new ShortWays(b.revision(), seed * 31 + serial.hashCode());
    ladder = spread(b.ladder(), own);
    load = 1 + 0.12 * clamped(own);
    tried();
  }

  /// What is there at some tries only is settled anew.
  private void tried() {
    if (laid.isEmpty()) {
      return;
    }
    faults = drawn(boards.get(laid));
    wake();
    // the tips stay where they are; a lead may have come off its net
    plus = plus.isEmpty() ? "" : place(plusAt);
    minus = minus.isEmpty() ? "" : place(minusAt);
    joined();
  }

  private List<Fault> drawn(SimBoard b) {
    List<Fault> now = new ArrayList<>();
    for (Fault f : b.standing()) {
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
    return List.copyOf(now);
  }

  /// The controller of the board that lies here, as its supplies are now; worked out anew only when
  /// something was turned. Empty when none lies here.
  synchronized Optional<ControllerOnBoard> controller() {
    if (live == null) {
      return Optional.empty();
    }
    if (controller == null) {
      controller = controllerUnder(faults);
    }
    return Optional.of(controller);
  }

  /// Whether the memory takes a write at this very try.
  synchronized boolean memoryTakes() {
    List<Fault> now = drawn(boards.get(laid));
    ControllerOnBoard c = now.equals(faults) ? controller : controllerUnder(now);
    return c != null && c.remembers() && !c.locked();
  }

  private ControllerOnBoard controllerUnder(List<Fault> now) {
    SimBoard b = boards.get(laid);
    return ControllerOnBoard.of(
        b.talk().plan(),
        ladder,
        now,
        b.talk().stands().get(),
        c -> {
          for (int i = 1; i <= OUTPUTS; i++) {
            OptionalInt source = source(i);
            if (source.isPresent()) {
              c.set(
                  BoardCircuit.supply(source.getAsInt()),
                  volts[i],
                  Math.max(limit[i], 1e-6),
                  on[i]);
            }
          }
          return c;
        });
  }

  /// What firmware does wrong on the board that lies here, in words.
  synchronized List<String> firmwareFaults() {
    return faults.stream()
        .filter(Fault.Firmware.class::isInstance)
        .map(f -> ((Fault.Firmware) f).words())
        .toList();
  }

  /// The board that lies here, empty when none does.
  synchronized Optional<SimBoard> board() {
    return Optional.ofNullable(boards.get(laid));
  }

  /// The board begins anew, before power, with the knobs as they are.
  private void wake() {
    boolean joins = jack() && !plus.isEmpty() && !minus.isEmpty();
    live =
        new LiveBoard(
            boards.get(laid),
            ladder,
            faults,
            load,
            c -> {
              if (joins) {
                c.resistor(METER, plus, minus, SHUNT_OHMS);
              }
              drive(c);
            },
            this::passed);
    turned();
  }

  /// What the program of the board puts on its outputs, by net, until it is laid down again.
  ///
  /// @throws IllegalArgumentException when the board has no such net
  synchronized void outputs(Map<String, Boolean> levels) {
    SimBoard b = boards.get(laid);
    for (String net : levels.keySet()) {
      if (b == null || b.revision().net(net).isEmpty()) {
        throw new IllegalArgumentException("no output " + net);
      }
    }
    driven.clear();
    driven.putAll(levels);
    wake();
    for (int i = 0; i < SETTLING_READS && live != null; i++) {
      live.read(_ -> 0); // its outputs change, and not its supplies: these are up already
    }
  }

  /// An output is a switch to its rail or to ground, with the ohms of a usual one.
  private void drive(Circuit c) {
    SimBoard b = boards.get(laid);
    double rail =
        b.talk().plan().port().stream()
            .flatMap(p -> b.revision().jointsOf(p.controller()).stream())
            .flatMap(j -> b.ladder().rail(j.net()).stream())
            .mapToDouble(Ladder.RailSpec::volts)
            .max()
            .orElse(0);
    driven.forEach((net, high) -> {
      String node = net.equals(ladder.ground()) ? Circuit.GROUND : "net " + net;
      if (high && rail > 0) {
        c.supply("output " + net, node, Circuit.GROUND, rail, OUTPUT_AMPS, OUTPUT_OHMS);
        c.set("output " + net, rail, OUTPUT_AMPS, on[1]);
      } else {
        c.resistor("output " + net, node, Circuit.GROUND, OUTPUT_OHMS);
      }
    });
  }

  private static Ladder spread(Ladder l, Random own) {
    return l.stepping(
        l.steps().stream()
            .map(s -> s.regulates() ? s.at(s.volts() * (1 + 0.006 * clamped(own))) : s)
            .toList());
  }

  private static double clamped(Random r) {
    return Math.clamp(r.nextGaussian(), -2, 2);
  }

  /// The node of a net, test point or `part.pin`.
  private String place(String name) {
    if (live == null) {
      throw new Refused(-221, "Settings conflict");
    }
    SimBoard b = boards.get(laid);
    if (!b.revision().net(name).isEmpty()) {
      return live.circuit().node(name);
    }
    Joint joint =
        b.revision()
            .joint(name)
            .or(() -> b.revision().jointsOf(name).stream().findFirst())
            .orElseThrow(() -> new Refused(-224, "Illegal parameter value"));
    return live.circuit().node(joint);
  }

  private double noisy(double value, double fraction, double floor) {
    return value + random.nextGaussian() * (fraction * Math.abs(value) / 3 + floor / 3);
  }
}
