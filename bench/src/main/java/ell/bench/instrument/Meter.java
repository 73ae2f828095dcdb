package ell.bench.instrument;

import ell.bench.link.BenchException;
import ell.bench.link.ScpiLink;

/// A meter: `MEAS:VOLT:DC?` and `MEAS:RES?`. Volts and ohms.
public final class Meter extends Instrument {
  /// Its kind.
  public static final Kind<Meter> KIND = new Kind<>("meter", Meter::new);

  /// A meter behind a link; nothing is sent yet.
  public Meter(ScpiLink link) {
    super(link, "meter");
  }

  /// Clears the error queue.
  public void clear() throws BenchException {
    link.send("*CLS");
  }

  /// Direct volts between the tips.
  public double dcVolts() throws BenchException {
    double v = number("MEAS:VOLT:DC?");
    if (Math.abs(v) >= OVERLOAD) {
      throw new BenchException(
          "the meter at " + link.where() + " is overloaded: choose a higher range");
    }
    return v;
  }

  /// Ohms between the tips, infinite when the meter shows an open loop.
  public double ohms() throws BenchException {
    double r = number("MEAS:RES?");
    return r >= OVERLOAD ? Double.POSITIVE_INFINITY : r;
  }
}
