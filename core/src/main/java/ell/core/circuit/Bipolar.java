package ell.core.circuit;

import java.util.function.IntUnaryOperator;

/// A bipolar transistor by Ebers and Moll, in its transport form.
final class Bipolar extends Element {
  private static final double SATURATION = 1e-14;
  private static final double MOST =
      33; // thermal volts: some ampere, from where it goes on straight
  private static final double REVERSE = 4;

  private final int collector;
  private final int base;
  private final int emitter;
  private final double gain;
  private final int sign; // -1 for a PNP

  Bipolar(String name, int collector, int base, int emitter, double gain, boolean pnp) {
    super(name);
    this.collector = collector;
    this.base = base;
    this.emitter = emitter;
    this.gain = gain;
    this.sign = pnp ? -1 : 1;
  }

  /// Collector and base current into it, as an NPN, with their slopes by base-emitter and by
  /// base-collector volts.
  private double[] solved(double[] v) {
    double be = sign * (at(v, base) - at(v, emitter)) / THERMAL_VOLT;
    double bc = sign * (at(v, base) - at(v, collector)) / THERMAL_VOLT;
    double f = SATURATION * (Smooth.exp(be, MOST) - 1);
    double r = SATURATION * (Smooth.exp(bc, MOST) - 1);
    double df = SATURATION * Smooth.expSlope(be, MOST) / THERMAL_VOLT;
    double dr = SATURATION * Smooth.expSlope(bc, MOST) / THERMAL_VOLT;
    return new double[] {
      f - r - r / REVERSE, f / gain + r / REVERSE, df, -dr - dr / REVERSE, df / gain, dr / REVERSE
    };
  }

  @Override
  void stamp(Stamp s, double[] v, Moment m) {
    double[] i = solved(v);
    double be = at(v, base) - at(v, emitter);
    double bc = at(v, base) - at(v, collector);
    s.control(collector, emitter, base, emitter, i[2]);
    s.control(collector, emitter, base, collector, i[3]);
    s.control(base, emitter, base, emitter, i[4]);
    s.control(base, emitter, base, collector, i[5]);
    s.pull(collector, emitter, sign * i[0] - i[2] * be - i[3] * bc);
    s.pull(base, emitter, sign * i[1] - i[4] * be - i[5] * bc);
  }

  @Override
  double amps(double[] v, Moment m) {
    return sign * solved(v)[0];
  }

  @Override
  double power(double[] v, Moment m) {
    double[] i = solved(v);
    return sign
        * (i[0] * (at(v, collector) - at(v, emitter)) + i[1] * (at(v, base) - at(v, emitter)));
  }

  @Override
  int[] nodes() {
    return new int[] {collector, base, emitter};
  }

  @Override
  protected Element between(IntUnaryOperator to) {
    return new Bipolar(
        name,
        to.applyAsInt(collector),
        to.applyAsInt(base),
        to.applyAsInt(emitter),
        gain,
        sign < 0);
  }
}
