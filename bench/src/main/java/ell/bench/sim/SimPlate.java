package ell.bench.sim;

import ell.bench.sim.ScpiStatus.Refused;
import ell.core.heat.PlateModel;
import java.io.IOException;
import java.util.Locale;
import java.util.Random;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;

/// A hot plate that is not there: a SCPI server on the loopback over the two bodies of a plate and
/// a board, with a heater that gives all or less, a thermocouple on each that lags and is a little
/// noisy, and a clock that may run fast.
///
/// It switches itself off when its last client hangs up, and after twenty seconds of its own clock
/// without a word while it is on.
public final class SimPlate extends SimInstrument {
  /// A small plate that is a little stronger than typical.
  public static final PlateModel SMALL = new PlateModel(3.1, 150, 26, 0.25, 240, 58, 2, 22);

  private static final ScpiData.Range SETTING = new ScpiData.Range("CEL", 0, 350, 0);
  private static final double LAG = 1.5;
  private static final double QUIET = 20;

  private final PlateModel model;
  private final double speed;
  private final Random random;
  private final long began = System.nanoTime();
  private final ScheduledExecutorService alone;

  private double now;
  private double heard;
  private double set;
  private double waiting;
  private double since = Double.NEGATIVE_INFINITY;
  private boolean on;
  private boolean lifted;
  private double plate;
  private double board;
  private double plateRead;
  private double boardRead;

  /// A plate that somebody else watches.
  SimPlate(PlateModel model, long seed, double speed, int port) throws IOException {
    this(model, seed, speed, port, null);
  }

  private SimPlate(
      PlateModel model, long seed, double speed, int port, ScheduledExecutorService alone)
      throws IOException {
    super("plate", port);
    this.alone = alone;
    this.model = model;
    this.speed = Math.clamp(speed, 1, 1000);
    this.random = new Random(seed);
    this.plate = model.ambient();
    this.board = model.ambient();
    this.plateRead = plate;
    this.boardRead = board;
    server
        .on("[SOURce:]TEMPerature", 1, 1, a -> set(SETTING.set(a.getFirst())))
        .on("[SOURce:]TEMPerature?", 0, 1, a -> number(SETTING.ask(a, set)))
        .on("OUTPut[:STATe]", 1, 1, a -> output(ScpiData.flag(a.getFirst())))
        .on("OUTPut[:STATe]?", 0, 0, _ -> on ? "1" : "0")
        .on("MEASure:TEMPerature?", 0, 1, a -> measure(a.isEmpty() ? "PLATE" : a.getFirst()))
        .on("SYSTem:TIME?", 0, 0, _ -> number(clock()))
        .on("BOARd:LIFT", 0, 0, _ -> hands(true))
        .on("BOARd:LAY", 0, 0, _ -> hands(false))
        .onReset(this::off)
        .onHeard(this::hear)
        .onLastClientGone(this::off);
  }

  /// Starts a plate alone, without a bench around it.
  ///
  /// @param speed seconds of its clock in a real one, 1...1000
  /// @param port 0 for any free one
  public static SimPlate start(PlateModel model, long seed, double speed, int port)
      throws IOException {
    ScheduledExecutorService watchdog =
        Executors.newSingleThreadScheduledExecutor(
            r -> Thread.ofPlatform().daemon().name("sim plate watchdog").unstarted(r));
    SimPlate p = new SimPlate(model, seed, speed, port, watchdog);
    p.start();
    watchdog.scheduleAtFixedRate(p::watch, 250, 250, TimeUnit.MILLISECONDS);
    return p;
  }

  /// Whether the heater is on, as its lamp shows.
  public synchronized boolean outputOn() {
    return on;
  }

  private synchronized void hear() {
    heard = clock();
  }

  private synchronized void off() {
    advance();
    on = false;
    change(0);
  }

  @Override
  synchronized void watch() {
    advance();
    if (on && now - heard > Math.max(QUIET, speed)) {
      off();
    }
  }

  private double clock() {
    return (System.nanoTime() - began) * 1e-9 * speed;
  }

  private void change(double wanted) {
    waiting = wanted;
    since = now;
  }

  /// Brings the bodies to now.
  private void advance() {
    double to = clock();
    double dt = 0.1;
    while (now + dt <= to) {
      // what the heater does follows what is asked with the plate's own delay
      double asked = now - since >= model.delay() ? waiting : asked();
      applied = asked;
      double[] next = model.step(plate, board, applied, lifted, dt);
      plate = next[0];
      board = next[1];
      plateRead += (plate - plateRead) * dt / LAG;
      boardRead += (board - boardRead) * dt / LAG;
      now += dt;
    }
  }

  private double applied;

  private double asked() {
    return applied;
  }

  private synchronized String set(double celsius) {
    advance();
    set = celsius;
    change(on ? set : 0);
    return null;
  }

  private synchronized String output(boolean wanted) {
    advance();
    on = wanted;
    change(on ? set : 0);
    return null;
  }

  private synchronized String measure(String argument) {
    advance();
    double t =
        switch (argument.toUpperCase(Locale.ROOT)) {
          case "PLATE", "PLAT" -> plateRead;
          case "BOARD", "BOAR" -> boardRead;
          default -> throw new Refused(-224, "Illegal parameter value");
        };
    return number(t + random.nextGaussian() * 0.15);
  }

  private synchronized String hands(boolean off) {
    advance();
    lifted = off;
    if (!off) {
      board = model.ambient();
      boardRead = board;
    }
    return null;
  }

  @Override
  public void close() {
    if (alone != null) {
      alone.shutdownNow();
    }
    super.close();
  }
}
