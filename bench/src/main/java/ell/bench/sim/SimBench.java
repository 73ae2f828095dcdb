package ell.bench.sim;

import ell.bench.sim.ScpiServer.Refused;
import ell.core.board.Joint;
import ell.core.circuit.Network;
import ell.core.power.BoardCircuit;
import ell.core.power.Ladder;
import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;

/// A bench that is not there: a supply (0...30 V, 0...3 A), a meter and a pair of hands, each a
/// SCPI server on the loopback, over the direct-current model of the board that lies on it.
/// Readings carry the small errors of real instruments and parts, from a seed.
///
/// The supply switches itself off when its last client hangs up, and after three seconds without a
/// word while the output is on.
public final class SimBench implements AutoCloseable {
  private static final double MOST_VOLTS = 30;
  private static final double MOST_AMPS = 3;
  private static final double MOST_OHMS = 60e6;
  private static final long WATCHDOG_NANOS = 3_000_000_000L;

  private final Map<String, SimBoard> boards = new HashMap<>();
  private final Random random;
  private final long seed;
  private final ScpiServer supply;
  private final ScpiServer meter;
  private final ScpiServer hands;
  private final ScheduledExecutorService watchdog =
      Executors.newSingleThreadScheduledExecutor(
          r -> Thread.ofPlatform().daemon().name("sim watchdog").unstarted(r));

  private double volts;
  private double limit = 0.1;
  private boolean on;
  private String laid = "";
  private BoardCircuit circuit;
  private Ladder ladder;
  private Network network;
  private Network.Solution solution;
  private String plus = "";
  private String minus = "";
  private volatile long lastHeard = System.nanoTime();
  private volatile Mischief supplyMischief = Mischief.NONE;

  private SimBench(List<SimBoard> boards, long seed, int supplyPort, int meterPort, int handsPort)
      throws IOException {
    boards.forEach(b -> this.boards.put(b.serial(), b));
    this.seed = seed;
    this.random = new Random(seed);
    this.supply = new ScpiServer("Ell,simulated supply,1,1", supplyPort);
    this.meter = new ScpiServer("Ell,simulated meter,1,1", meterPort);
    this.hands = new ScpiServer("Ell,simulated hands,1,1", handsPort);
    register();
  }

  /// Starts a bench.
  ///
  /// @param boards that can be laid on it
  /// @param seed of the small errors
  /// @param ports of supply, meter and hands; 0 for any free one
  public static SimBench start(List<SimBoard> boards, long seed, int... ports) throws IOException {
    SimBench b =
        new SimBench(
            boards,
            seed,
            ports.length > 0 ? ports[0] : 0,
            ports.length > 1 ? ports[1] : 0,
            ports.length > 2 ? ports[2] : 0);
    b.supply.start();
    b.meter.start();
    b.hands.start();
    b.watchdog.scheduleAtFixedRate(b::watch, 250, 250, TimeUnit.MILLISECONDS);
    return b;
  }

  /// Port of the supply.
  public int supplyPort() {
    return supply.port();
  }

  /// Port of the meter.
  public int meterPort() {
    return meter.port();
  }

  /// Port of the hands.
  public int handsPort() {
    return hands.port();
  }

  /// Lets the supply misbehave from now on.
  public void supplyMischief(Mischief m) {
    supplyMischief = m;
    supply.mischief(m);
  }

  /// Whether the supply's output is on, as seen on its front panel.
  public synchronized boolean outputOn() {
    return on;
  }

  /// Lays a board on the bench, as the hands do.
  ///
  /// @throws IllegalArgumentException when there is no such board
  public synchronized void layDown(String serial) {
    if (!boards.containsKey(serial)) {
      throw new IllegalArgumentException("there is no board '" + serial + "' for this bench");
    }
    lay(serial);
  }

  private void watch() {
    synchronized (this) {
      if (on && System.nanoTime() - lastHeard > WATCHDOG_NANOS) {
        off();
      }
    }
  }

  private void register() {
    supply
        .onReset(() ->
            locked(() -> {
              volts = 0;
              limit = 0.1;
              off();
            }))
        .onLastClientGone(() -> locked(this::off))
        .onHeard(() -> lastHeard = System.nanoTime())
        .on("[SOURce:]VOLTage[:LEVel][:IMMediate][:AMPLitude]?", _ -> number(volts))
        .on("[SOURce:]CURRent[:LEVel][:IMMediate][:AMPLitude]?", _ -> number(limit))
        .on(
            "[SOURce:]VOLTage[:LEVel][:IMMediate][:AMPLitude]",
            a -> set(() -> volts = value(a, MOST_VOLTS)))
        .on(
            "[SOURce:]CURRent[:LEVel][:IMMediate][:AMPLitude]",
            a -> set(() -> limit = value(a, MOST_AMPS)))
        .on("OUTPut[:STATe]?", _ -> on ? "1" : "0")
        .on("OUTPut[:STATe]", a -> set(() -> on = flag(a)))
        .on(
            "MEASure[:SCALar]:VOLTage[:DC]?",
            _ -> number(noisy(on ? solved().supplyVolts() : 0, 5e-4, 1e-3)))
        .on(
            "MEASure[:SCALar]:CURRent[:DC]?",
            _ ->
                number(
                    supplyMischief == Mischief.LIE
                        ? 0
                        : noisy(on ? solved().supplyAmps() : 0, 5e-3, 1e-4)));
    meter
        .on("MEASure:VOLTage[:DC]?", _ -> number(noisy(tipVolts(), 1e-3, 2e-4)))
        .on("MEASure:RESistance?", _ -> ohms())
        .on("MEASure:FRESistance?", _ -> ohms());
    hands
        .on("BENCh:BOARd?", _ -> '"' + laid + '"')
        .on("BENCh:BOARd", a -> set(() -> lay(word(a))))
        .on("TIP:PLUS", a -> set(() -> plus = place(word(a))))
        .on("TIP:MINus", a -> set(() -> minus = place(word(a))));
  }

  private void locked(Runnable r) {
    synchronized (this) {
      r.run();
    }
  }

  private void off() {
    on = false;
    solution = null;
  }

  private synchronized String set(Runnable action) {
    action.run();
    solution = null;
    return null;
  }

  private static double value(String argument, double most) {
    try {
      double d =
          Double.parseDouble(argument == null ? "" : argument.replaceAll("(?i)\\s*[VA]$", ""));
      if (d >= 0 && d <= most) {
        return d;
      }
    } catch (NumberFormatException e) {
      throw new Refused(-104, "Data type error");
    }
    throw new Refused(-222, "Data out of range");
  }

  private static boolean flag(String argument) {
    return switch (argument == null ? "" : argument.toUpperCase(Locale.ROOT)) {
      case "ON", "1" -> true;
      case "OFF", "0" -> false;
      default -> throw new Refused(-104, "Data type error");
    };
  }

  private static String word(String argument) {
    if (argument == null || !argument.matches("\"[^\"]*\"|'[^']*'|\\S+")) {
      throw new Refused(-109, "Missing parameter");
    }
    return argument.replaceAll("^[\"']|[\"']$", "");
  }

  private void lay(String serial) {
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
    circuit = new BoardCircuit(b.revision(), ladder, b.faults());
    network = circuit.supplied("boot", 1 + 0.12 * clamped(own));
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

  private synchronized Network.Solution solved() {
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

  private synchronized double tipVolts() {
    return on && !plus.isEmpty() && !minus.isEmpty() ? solved().at(plus) - solved().at(minus) : 0;
  }

  private synchronized String ohms() {
    if (plus.isEmpty() || minus.isEmpty()) {
      return number(9.9e37);
    }
    if (on) {
      throw new Refused(-221, "Settings conflict: ohms on a powered board");
    }
    double r = circuit.unpowered().between(plus, minus);
    return number(r > MOST_OHMS ? 9.9e37 : noisy(r + 0.15, 2e-3, 0.02));
  }

  private synchronized double noisy(double value, double fraction, double floor) {
    return value + random.nextGaussian() * (fraction * Math.abs(value) / 3 + floor / 3);
  }

  private static String number(double d) {
    return String.format(Locale.ROOT, "%.6E", d);
  }

  @Override
  public void close() {
    watchdog.shutdownNow();
    supply.close();
    meter.close();
    hands.close();
  }
}
