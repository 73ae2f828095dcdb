package ell.bench.sim;

import ell.bench.sim.ScpiStatus.Refused;
import java.io.IOException;

/// A supply of several outputs (0...30 V, 0...3 A each), which holds its volts or its current,
/// whichever comes first, and whose protections against too many volts and too much current switch
/// off and stay off until they are cleared. It switches itself off when its last client hangs up,
/// and after three seconds without a word while the output is on.
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
  private final Protection[] protections = new Protection[SimTable.OUTPUTS + 1];

  /// What watches over one output.
  private static final class Protection {
    private volatile double volts = PROTECTION.preset();
    private volatile boolean watchesAmps;
    private volatile boolean overVolts;
    private volatile boolean overAmps;

    void preset() {
      volts = PROTECTION.preset();
      watchesAmps = false;
      clear();
    }

    void clear() {
      overVolts = false;
      overAmps = false;
    }
  }

  SimSupply(SimTable table, int port) throws IOException {
    super("supply", port);
    this.table = table;
    for (int i = 0; i < protections.length; i++) {
      protections[i] = new Protection();
    }
    server
        .outputs(SimTable.OUTPUTS)
        .onReset(this::reset)
        .onLastClientGone(this::off)
        .onHeard(() -> lastHeard = System.nanoTime())
        .conditions(this::operating, this::questioned)
        .onOutputs("OUTPut[:STATe]?", 0, 0, (o, _) -> table.on(o) && !falseOff() ? "1" : "0")
        .onOutputs("OUTPut[:STATe]", 1, 1, (o, a) -> output(o, ScpiData.flag(a.getFirst())))
        .onOutputs("MEASure[:SCALar]:VOLTage[:DC]?", 0, 0, (o, _) -> volts(o))
        .onOutputs("MEASure[:SCALar]:CURRent[:DC]?", 0, 0, (o, _) -> amps(o));
    knobs();
    protect();
  }

  private void knobs() {
    String volts = "[SOURce:]VOLTage[:LEVel][:IMMediate][:AMPLitude]";
    String amps = "[SOURce:]CURRent[:LEVel][:IMMediate][:AMPLitude]";
    server
        .onOutputs(volts + "?", 0, 1, (o, a) -> number(VOLTS.ask(a, table.volts(o))))
        .onOutputs(amps + "?", 0, 1, (o, a) -> number(AMPS.ask(a, table.limit(o))))
        .onOutputs(volts, 1, 1, (o, a) -> set(o, () -> table.volts(o, VOLTS.set(a.getFirst()))))
        .onOutputs(amps, 1, 1, (o, a) -> set(o, () -> table.limit(o, AMPS.set(a.getFirst()))));
  }

  private void protect() {
    String over = "[SOURce:]VOLTage:PROTection";
    String overAmps = "[SOURce:]CURRent:PROTection";
    server
        .onOutputs(
            over + "[:LEVel]?", 0, 1, (o, a) -> number(PROTECTION.ask(a, protections[o].volts)))
        .onOutputs(
            over + "[:LEVel]",
            1,
            1,
            (o, a) -> set(o, () -> protections[o].volts = PROTECTION.set(a.getFirst())))
        .onOutputs(over + ":TRIPped?", 0, 0, (o, _) -> protections[o].overVolts ? "1" : "0")
        .onOutputs(over + ":CLEar", 0, 0, (o, _) -> cleared(o))
        .onOutputs(overAmps + ":STATe?", 0, 0, (o, _) -> protections[o].watchesAmps ? "1" : "0")
        .onOutputs(
            overAmps + ":STATe",
            1,
            1,
            (o, a) -> set(o, () -> protections[o].watchesAmps = ScpiData.flag(a.getFirst())))
        .onOutputs(overAmps + ":TRIPped?", 0, 0, (o, _) -> protections[o].overAmps ? "1" : "0")
        .onOutputs(overAmps + ":CLEar", 0, 0, (o, _) -> cleared(o))
        .onOutputs("OUTPut:PROTection:CLEar", 0, 0, (o, _) -> cleared(o));
  }

  /// Bits of every output together, for it has one register.
  private int operating() {
    int bits = 0;
    for (int o = 1; o <= SimTable.OUTPUTS; o++) {
      bits |= !table.on(o) ? 0 : table.limited(o) ? HOLDS_AMPS : HOLDS_VOLTS;
    }
    return bits;
  }

  private int questioned() {
    int bits = 0;
    for (Protection p : protections) {
      bits |= (p.overVolts ? OVER_VOLTS : 0) | (p.overAmps ? OVER_AMPS : 0);
    }
    return bits;
  }

  private boolean falseOff() {
    return mischief() == Mischief.FALSE_OFF;
  }

  private boolean stuck() {
    return mischief() == Mischief.STUCK_ON || falseOff();
  }

  private void reset() {
    table.reset();
    for (Protection p : protections) {
      p.preset();
    }
  }

  private String cleared(int output) {
    protections[output].clear();
    return null;
  }

  private String output(int output, boolean on) {
    if (on && (protections[output].overVolts || protections[output].overAmps)) {
      throw new Refused(-221, "Settings conflict: a protection has tripped, clear it first");
    }
    if (on || !stuck()) {
      table.output(output, on);
    }
    protect(output);
    return null;
  }

  /// Switches an output off when its protection asks for it.
  private void protect(int output) {
    if (!table.on(output)) {
      return;
    }
    Protection p = protections[output];
    if (table.volts(output) > p.volts) {
      p.overVolts = true;
      off(output);
    } else if (p.watchesAmps && table.limited(output)) {
      p.overAmps = true;
      off(output);
    }
  }

  /// What it does by itself when nobody is there any more.
  private void off() {
    for (int o = 1; o <= SimTable.OUTPUTS; o++) {
      off(o);
    }
  }

  private void off(int output) {
    if (!stuck() && mischief() != Mischief.CARELESS && table.on(output)) {
      table.output(output, false);
    }
  }

  private String volts(int output) {
    double v = table.supplyVolts(output);
    return measured(mischief() == Mischief.TRIPLE ? 3 * v : v);
  }

  private String amps(int output) {
    asked++;
    return switch (mischief()) {
      case LIE -> number(0);
      case SPIKES -> number(asked % 8 == 0 ? table.supplyAmps(output) : 10 * table.limit(output));
      default -> measured(table.supplyAmps(output));
    };
  }

  @Override
  void watch() {
    if (table.on() && System.nanoTime() - lastHeard > WATCHDOG_NANOS) {
      off();
    }
  }

  private String set(int output, Runnable what) {
    what.run();
    protect(output);
    return null;
  }
}
