package ell.bench.instrument;

import ell.bench.dialect.Dialect;
import ell.bench.link.BenchException;
import ell.bench.link.ScpiLink;
import java.util.Locale;

/// A hot plate. Degree Celsius and seconds.
public final class Plate extends Instrument {
  /// Its kind.
  public static final Kind<Plate> KIND = new Kind<>("plate", Plate::new);

  private Boolean simulated;

  /// A plate behind a link, as [Dialect#generic] says; nothing is sent yet.
  public Plate(ScpiLink link) {
    this(link, Dialect.generic("plate"));
  }

  /// A plate with a dialect of its own.
  public Plate(ScpiLink link, Dialect says) {
    super(link, "plate", says);
  }

  /// Whether it is the stand-in, which has a clock and hands of its own.
  private boolean simulated() throws BenchException {
    if (simulated == null) {
      simulated = identity().contains("simulated plate");
    }
    return simulated;
  }

  /// Switches the heater off and clears the error queue: what is done first on each connection.
  public void makeSafe() throws BenchException {
    clearErrors();
    command(says.line("off"));
  }

  /// Sets the temperature that is wanted.
  public void set(double celsius) throws BenchException {
    command(says.line("setCelsius", String.format(Locale.ROOT, "%.1f", celsius)));
  }

  /// Switches the heater.
  public void output(boolean on) throws BenchException {
    command(says.line(on ? "on" : "off"));
    if (flag(says.line("askOn")) != on) {
      throw wrong("does not switch " + (on ? "on" : "off"));
    }
  }

  /// A thermocouple: `PLATE` or `BOARD`.
  public double celsius(String channel) throws BenchException {
    double t = number(says.line("celsius", channel));
    if (Math.abs(t) >= OVERLOAD) {
      throw wrong("has an open thermocouple: " + channel);
    }
    return t;
  }

  /// Seconds, by the clock of the stand-in where there is one, for it may run fast.
  public double seconds() throws BenchException {
    return simulated() ? reading("SYST:TIME?") : System.nanoTime() * 1e-9;
  }

  /// Tells a simulated plate that the board was laid on it, cold, or lifted off; a real one has
  /// hands at it.
  public void hands(boolean lifted) throws BenchException {
    if (simulated()) {
      command(lifted ? "BOAR:LIFT" : "BOAR:LAY");
    }
  }

  /// Switches off as best it can; for the way out of a surprise.
  ///
  /// @return true when the plate confirmed it
  public boolean offAtAnyCost() {
    try {
      link.send(says.line("off"));
      return !flag(says.line("askOn"));
    } catch (BenchException e) {
      return false;
    }
  }
}
