package ell.bench.sim;

import ell.bench.sim.ScpiStatus.Refused;
import java.io.IOException;
import java.util.function.Consumer;

/// A supply (0...30 V, 0...3 A) that holds its volts or its current, whichever comes first, and
/// whose protections against too many volts and too much current switch off and stay off until they
/// are cleared. It switches itself off when its last client hangs up, and after three seconds
/// without a word while the output is on.
final class SimSupply extends SimInstrument {
  private static final ScpiData.Range VOLTS = new ScpiData.Range("V", 0, 30, 0);
  private static final ScpiData.Range AMPS = new ScpiData.Range("A", 0, 3, 0.1);
  private static final ScpiData.Range PROTECTION = new ScpiData.Range("V", 0.5, 33, 33);
  private static final long WATCHDOG_NANOS = 3_000_000_000L;

  /// Bits of the operation register, by common practice: it holds its volts, its current.
  private static final int HOLDS_VOLTS = 1 << 8;

  private static final int HOLDS_AMPS = 1 << 10;

  /// Bits of the questionable register. Source: SCPI-99 volume 1, 9.4 (voltage, current).
  private static final int OVER_VOLTS = 1;

  private static final int OVER_AMPS = 1 << 1;

  private final SimTable table;
  private int asked;
  private volatile long lastHeard = System.nanoTime();
  private volatile double protection = PROTECTION.preset();
  private volatile boolean currentProtected;
  private volatile boolean overVolts;
  private volatile boolean overAmps;

  SimSupply(SimTable table, int port) throws IOException {
    super("supply", port);
    this.table = table;
    String volts = "[SOURce:]VOLTage[:LEVel][:IMMediate][:AMPLitude]";
    String amps = "[SOURce:]CURRent[:LEVel][:IMMediate][:AMPLitude]";
    String over = "[SOURce:]VOLTage:PROTection";
    String overCurrent = "[SOURce:]CURRent:PROTection";
    server
        .onReset(this::reset)
        .onLastClientGone(this::off)
        .onHeard(() -> lastHeard = System.nanoTime())
        .conditions(this::operating, this::questioned)
        .on(volts + "?", 0, 1, a -> number(VOLTS.ask(a, table.volts())))
        .on(amps + "?", 0, 1, a -> number(AMPS.ask(a, table.limit())))
        .on(volts, 1, 1, a -> set(table::volts, VOLTS.set(a.getFirst())))
        .on(amps, 1, 1, a -> set(table::limit, AMPS.set(a.getFirst())))
        .on(over + "[:LEVel]?", 0, 1, a -> number(PROTECTION.ask(a, protection)))
        .on(over + "[:LEVel]", 1, 1, a -> set(v -> protection = v, PROTECTION.set(a.getFirst())))
        .on(over + ":TRIPped?", 0, 0, _ -> overVolts ? "1" : "0")
        .on(over + ":CLEar", 0, 0, _ -> cleared())
        .on(overCurrent + ":STATe?", 0, 0, _ -> currentProtected ? "1" : "0")
        .on(
            overCurrent + ":STATe",
            1,
            1,
            a -> set(on -> currentProtected = on, ScpiData.flag(a.getFirst())))
        .on(overCurrent + ":TRIPped?", 0, 0, _ -> overAmps ? "1" : "0")
        .on(overCurrent + ":CLEar", 0, 0, _ -> cleared())
        .on("OUTPut:PROTection:CLEar", 0, 0, _ -> cleared())
        .on(
            "OUTPut[:STATe]?",
            0,
            0,
            _ -> table.on() && mischief() != Mischief.FALSE_OFF ? "1" : "0")
        .on("OUTPut[:STATe]", 1, 1, a -> output(ScpiData.flag(a.getFirst())))
        .on("MEASure[:SCALar]:VOLTage[:DC]?", 0, 0, _ -> volts())
        .on("MEASure[:SCALar]:CURRent[:DC]?", 0, 0, _ -> amps());
  }

  private int operating() {
    return !table.on() ? 0 : table.limited() ? HOLDS_AMPS : HOLDS_VOLTS;
  }

  private int questioned() {
    return (overVolts ? OVER_VOLTS : 0) | (overAmps ? OVER_AMPS : 0);
  }

  private boolean stuck() {
    return mischief() == Mischief.STUCK_ON || mischief() == Mischief.FALSE_OFF;
  }

  private void reset() {
    table.reset();
    protection = PROTECTION.preset();
    currentProtected = false;
    cleared();
  }

  private String cleared() {
    overVolts = false;
    overAmps = false;
    return null;
  }

  private String output(boolean on) {
    if (on && (overVolts || overAmps)) {
      throw new Refused(-221, "Settings conflict: a protection has tripped, clear it first");
    }
    if (on || !stuck()) {
      table.output(on);
    }
    protect();
    return null;
  }

  /// Switches off when a protection asks for it.
  private void protect() {
    if (!table.on()) {
      return;
    }
    if (table.volts() > protection) {
      overVolts = true;
      off();
    } else if (currentProtected && table.limited()) {
      overAmps = true;
      off();
    }
  }

  /// What it does by itself when nobody is there any more.
  private void off() {
    if (!stuck() && mischief() != Mischief.CARELESS) {
      table.off();
    }
  }

  private String volts() {
    double v = table.supplyVolts();
    return measured(mischief() == Mischief.TRIPLE ? 3 * v : v);
  }

  private String amps() {
    asked++;
    return switch (mischief()) {
      case LIE -> number(0);
      case SPIKES -> number(asked % 8 == 0 ? table.supplyAmps() : 10 * table.limit());
      default -> measured(table.supplyAmps());
    };
  }

  @Override
  void watch() {
    if (table.on() && System.nanoTime() - lastHeard > WATCHDOG_NANOS) {
      off();
    }
  }

  private <T> String set(Consumer<T> what, T wanted) {
    what.accept(wanted);
    protect();
    return null;
  }
}
