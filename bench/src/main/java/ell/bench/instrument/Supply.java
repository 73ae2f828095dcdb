package ell.bench.instrument;

import ell.bench.link.BenchException;
import ell.bench.link.ScpiLink;
import java.util.Locale;

/// A bench supply with one output: `VOLT`, `CURR`, `OUTP`, `MEAS:VOLT?`, `MEAS:CURR?`. Volts and
/// amperes.
public final class Supply extends Instrument {
  /// Its kind.
  public static final Kind<Supply> KIND = new Kind<>("supply", Supply::new);

  /// A supply behind a link; nothing is sent yet.
  public Supply(ScpiLink link) {
    super(link, "supply");
  }

  /// Switches the output off and clears the error queue: what is done first on each connection.
  public void makeSafe() throws BenchException {
    link.send("*CLS");
    command("OUTP OFF");
  }

  /// Sets voltage and current limit, and reads both back.
  public void set(double volts, double limit) throws BenchException {
    command("CURR " + number(limit));
    command("VOLT " + number(volts));
    confirm("CURR?", limit);
    confirm("VOLT?", volts);
  }

  private void confirm(String query, double wanted) throws BenchException {
    double said = number(query);
    if (Math.abs(said - wanted) > 0.002 + 0.005 * Math.abs(wanted)) {
      throw new BenchException(
          "the supply at "
              + link.where()
              + " was set to "
              + number(wanted)
              + " and says "
              + number(said)
              + " to '"
              + query
              + "'");
    }
  }

  /// Switches the output.
  public void output(boolean on) throws BenchException {
    command(on ? "OUTP ON" : "OUTP OFF");
    double said = number("OUTP?");
    if (said != (on ? 1 : 0)) {
      throw new BenchException(
          "the supply at " + link.where() + " does not switch its output " + (on ? "on" : "off"));
    }
  }

  /// Volts at its terminals.
  public double volts() throws BenchException {
    return number("MEAS:VOLT?");
  }

  /// Amperes out of it.
  public double amps() throws BenchException {
    return number("MEAS:CURR?");
  }

  /// Switches off as best it can; for the way out of a surprise.
  ///
  /// @return true when the supply confirmed it
  public boolean offAtAnyCost() {
    try {
      link.send("OUTP OFF");
      return number("OUTP?") == 0;
    } catch (BenchException e) {
      return false;
    }
  }

  private static String number(double d) {
    return String.format(Locale.ROOT, "%.6g", d);
  }
}
