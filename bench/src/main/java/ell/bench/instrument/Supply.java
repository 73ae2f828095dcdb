package ell.bench.instrument;

import ell.bench.link.BenchException;
import ell.bench.link.ScpiLink;
import java.util.Locale;
import java.util.Optional;

/// A bench supply with one output: `VOLT`, `CURR`, `OUTP`, `MEAS:VOLT?`, `MEAS:CURR?`. Volts and
/// amperes.
public final class Supply extends Instrument {
  /// Its kind.
  public static final Kind<Supply> KIND = new Kind<>("supply", Supply::new);

  /// A measured current that may be none at all, A; typical, no source.
  private static final double NOTHING = 0.01;

  /// Share of the set point that the terminals do not keep when the output is off; likewise.
  private static final double STILL_THERE = 0.98;

  private static final double LEAST_VOLTS = 0.3;

  /// A supply behind a link; nothing is sent yet.
  public Supply(ScpiLink link) {
    super(link, "supply");
  }

  /// Clears the error queue and switches the output off: what is done first on each connection.
  ///
  /// @throws BenchException when it does not confirm that it is off: it is not to be used then
  public void makeSafe() throws BenchException {
    link.send("*CLS");
    command("OUTP OFF");
    Optional<String> still = off();
    if (still.isPresent()) {
      throw wrong("does not obey OFF: " + still.get());
    }
  }

  /// Sets voltage and current limit, and reads both back.
  public void set(double volts, double limit) throws BenchException {
    command("CURR " + number(limit));
    command("VOLT " + number(volts));
    confirm("CURR?", limit);
    confirm("VOLT?", volts);
  }

  private void confirm(String query, double wanted) throws BenchException {
    double said = reading(query);
    if (Math.abs(said - wanted) > 0.002 + 0.005 * Math.abs(wanted)) {
      throw wrong(
          "was set to " + number(wanted) + " and says " + number(said) + " to '" + query + "'");
    }
  }

  /// Switches the output.
  public void output(boolean on) throws BenchException {
    command(on ? "OUTP ON" : "OUTP OFF");
    if (flag("OUTP?") != on) {
      throw wrong("does not switch its output " + (on ? "on" : "off"));
    }
  }

  /// Volts at its terminals.
  public double volts() throws BenchException {
    return reading("MEAS:VOLT?");
  }

  /// Amperes out of it.
  public double amps() throws BenchException {
    return reading("MEAS:CURR?");
  }

  /// Tells it to switch off, on the link that stands, and asks whether it is: by its own word and
  /// by what it measures, no current, and not the volts that it was set to. A board holds its
  /// charge for a while: it is asked again later when only the volts speak against it.
  ///
  /// @return empty when all say so; else what does not
  public Optional<String> off() {
    try {
      link.send("OUTP OFF");
      if (flag("OUTP?")) {
        return Optional.of("the supply says that its output is still on");
      }
      double amps = amps();
      if (Math.abs(amps) > NOTHING) {
        return Optional.of(
            String.format(
                Locale.ROOT, "the supply says that it is off, and measures %.3f A", amps));
      }
      double volts = volts();
      double set = reading("VOLT?");
      return set > LEAST_VOLTS && volts > set * STILL_THERE
          ? Optional.of(
              String.format(
                  Locale.ROOT, "the supply says that it is off, and measures %.3f V", volts))
          : Optional.empty();
    } catch (BenchException e) {
      return Optional.of(e.getMessage());
    }
  }

  private static String number(double d) {
    return String.format(Locale.ROOT, "%.6g", d);
  }
}
