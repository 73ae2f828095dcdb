package ell.bench.instrument;

import ell.bench.dialect.Dialect;
import ell.bench.link.BenchException;
import ell.bench.link.ScpiLink;

/// A meter. Volts and ohms.
public final class Meter extends Instrument {
  /// Its kind.
  public static final Kind<Meter> KIND = new Kind<>("meter", Meter::new);

  /// Above it stands the sign for no number, 9.91E37. Source: SCPI-99, 7.2.1.5.
  private static final double OPEN_LOOP = 9.905e37;

  /// A meter behind a link, as [Dialect#generic] says; nothing is sent yet.
  public Meter(ScpiLink link) {
    this(link, Dialect.generic("meter"));
  }

  /// A meter with a dialect of its own.
  public Meter(ScpiLink link, Dialect says) {
    super(link, "meter", says);
  }

  /// Clears the error queue.
  public void clear() throws BenchException {
    clearErrors();
  }

  /// Direct volts between the tips.
  public double dcVolts() throws BenchException {
    double v = number(says.line("volts"));
    if (Math.abs(v) >= OVERLOAD) {
      throw wrong("is overloaded: choose a higher range");
    }
    return v;
  }

  /// Ohms between the tips, infinite when the meter shows an open loop.
  public double ohms() throws BenchException {
    return ohms(says.line("ohms"));
  }

  /// Whether it has a line for ohms by four wires.
  public boolean measuresByFourWires() {
    return says.has("fourWires");
  }

  /// Ohms between the tips by four wires, so that leads and tips are not in it; infinite for an
  /// open loop.
  ///
  /// @throws BenchException when its dialect has no line for it, or it has no reading
  public double fourWires() throws BenchException {
    if (!measuresByFourWires()) {
      throw wrong("has no line for ohms by four wires in its dialect: \"fourWires\"");
    }
    return ohms(says.line("fourWires"));
  }

  private double ohms(String line) throws BenchException {
    double r = number(line);
    if (r <= -OVERLOAD || r > OPEN_LOOP) {
      throw wrong("has no reading of resistance: it answered the sign for none");
    }
    return r >= OVERLOAD ? Double.POSITIVE_INFINITY : r;
  }
}
