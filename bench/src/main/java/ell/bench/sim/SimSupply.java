package ell.bench.sim;

import ell.bench.sim.ScpiServer.Refused;
import java.io.IOException;
import java.util.Locale;
import java.util.function.Consumer;

/// A supply (0...30 V, 0...3 A). It switches itself off when its last client hangs up, and after
/// three seconds without a word while the output is on.
final class SimSupply extends SimInstrument {
  private static final double MOST_VOLTS = 30;
  private static final double MOST_AMPS = 3;
  private static final long WATCHDOG_NANOS = 3_000_000_000L;

  private final SimTable table;
  private int asked;
  private volatile long lastHeard = System.nanoTime();

  SimSupply(SimTable table, int port) throws IOException {
    super("supply", port);
    this.table = table;
    server
        .onReset(table::reset)
        .onLastClientGone(this::off)
        .onHeard(() -> lastHeard = System.nanoTime())
        .on("[SOURce:]VOLTage[:LEVel][:IMMediate][:AMPLitude]?", _ -> number(table.volts()))
        .on("[SOURce:]CURRent[:LEVel][:IMMediate][:AMPLitude]?", _ -> number(table.limit()))
        .on(
            "[SOURce:]VOLTage[:LEVel][:IMMediate][:AMPLitude]",
            a -> set(table::volts, value(a, MOST_VOLTS)))
        .on(
            "[SOURce:]CURRent[:LEVel][:IMMediate][:AMPLitude]",
            a -> set(table::limit, value(a, MOST_AMPS)))
        .on("OUTPut[:STATe]?", _ -> table.on() && mischief() != Mischief.FALSE_OFF ? "1" : "0")
        .on("OUTPut[:STATe]", a -> output(flag(a)))
        .on("MEASure[:SCALar]:VOLTage[:DC]?", _ -> volts())
        .on("MEASure[:SCALar]:CURRent[:DC]?", _ -> amps());
  }

  private boolean stuck() {
    return mischief() == Mischief.STUCK_ON || mischief() == Mischief.FALSE_OFF;
  }

  private String output(boolean on) {
    if (on || !stuck()) {
      table.output(on);
    }
    return null;
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

  private static <T> String set(Consumer<T> what, T wanted) {
    what.accept(wanted);
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
}
