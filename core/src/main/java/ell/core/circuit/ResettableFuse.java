package ell.core.circuit;

import java.util.function.IntUnaryOperator;

/// A fuse that resets: its resistance rises steeply once its own heat has brought it to its trip
/// temperature. It remembers how much warmer than its surroundings it is.
final class ResettableFuse extends TwoEnds {
  /// Kelvin above its surroundings at which its resistance has doubled, and within which it grows
  /// further; typical, no source.
  private static final double TRIPS = 100;

  private static final double WIDTH = 4;

  /// How often its cold resistance it has when tripped, at most; typical, no source.
  private static final double RISES = 1e4;

  private static final int TRIPPED = 1;

  private final double cold;
  private final double kelvinPerWatt;
  private final double seconds;

  /// @param trips ampere that trips it in the end
  /// @param seconds its thermal time constant
  ResettableFuse(String name, int a, int b, double ohms, double trips, double seconds) {
    super(name, a, b);
    this.cold = ohms;
    this.kelvinPerWatt = TRIPS / (trips * trips * ohms);
    this.seconds = seconds;
  }

  private double siemens(Moment m) {
    double warmer = m.still() ? (mode == TRIPPED ? 2 * TRIPS : 0) : m.base()[first];
    return 1 / (cold * (1 + 1 / (Math.exp((TRIPS - warmer) / WIDTH) + 1 / RISES)));
  }

  @Override
  int next(double[] v, Moment m) {
    if (!m.still()) {
      return m.base()[first] > TRIPS ? TRIPPED : 0;
    }
    double d = volts(v);
    double held = d * d / cold * kelvinPerWatt;
    // hot it holds itself as long as there are volts enough over it
    return held > TRIPS ? TRIPPED : 0;
  }

  @Override
  void stamp(Stamp s, double[] v, Moment m) {
    s.conduct(a, b, siemens(m));
  }

  @Override
  double amps(double[] v, Moment m) {
    return siemens(m) * volts(v);
  }

  @Override
  int memory() {
    return 1;
  }

  @Override
  void slope(double[] v, Moment m, double[] out) {
    double warmer = m.still() ? 0 : m.base()[first];
    out[first] = (power(v, m) * kelvinPerWatt - warmer) / (seconds + m.slice());
  }

  @Override
  double small(int which) {
    return 0.5;
  }

  @Override
  double leads() {
    return 1 / cold;
  }

  @Override
  protected Element between(IntUnaryOperator to) {
    return new ResettableFuse(
        name,
        to.applyAsInt(a),
        to.applyAsInt(b),
        cold,
        Math.sqrt(TRIPS / (kelvinPerWatt * cold)),
        seconds);
  }
}
