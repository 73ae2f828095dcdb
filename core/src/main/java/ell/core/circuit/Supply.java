package ell.core.circuit;

import java.util.function.IntUnaryOperator;

/// An output that holds its volts up to its limit of current, and takes nothing back while it is
/// on: a bench supply, or a meter that drives its current into what it measures.
final class Supply extends TwoEnds {
  private static final double ROUND = 1e-7;
  private static final double SOFT_ROUND = 0.1;
  private static final double SOFT_OHM = 0.3;

  /// What discharges an output that is off; typical, no source.
  private static final double OFF_OHM = 1e3;

  private final double own;
  private double volts;
  private double limit;
  private boolean on = true;

  /// Whether it is asked without its limit.
  private boolean free;

  Supply(String name, int plus, int minus, double volts, double limit, double ohms) {
    super(name, plus, minus);
    this.volts = volts;
    this.limit = limit;
    this.own = ohms;
  }

  void set(double wanted, double most, boolean output) {
    volts = wanted;
    limit = most;
    on = output;
  }

  double limit() {
    return limit;
  }

  void free(boolean without) {
    free = without;
  }

  double volts() {
    return on ? volts : 0;
  }

  private double[] solved(double[] v, double soft) {
    if (!on) {
      double d = volts(v);
      return new double[] {-d / OFF_OHM, 1 / OFF_OHM};
    }
    double w = (ROUND + SOFT_ROUND * soft) * Math.min(limit, 1);
    double ohms = own + soft * (free ? SOFT_OHM : volts / limit);
    double x = (volts - volts(v)) / ohms;
    double out = Smooth.over(x, w);
    if (free) {
      return new double[] {out, Smooth.overSlope(x, w) / ohms};
    }
    return new double[] {
      Smooth.upTo(out, limit, w), Smooth.overSlope(limit - out, w) * Smooth.overSlope(x, w) / ohms
    };
  }

  /// Whether it holds its current instead of its volts.
  boolean limited(double[] v) {
    return on && (volts - volts(v)) / own > limit;
  }

  @Override
  void stamp(Stamp s, double[] v, Moment m) {
    double[] i = solved(v, m.softness());
    double d = volts(v);
    s.conduct(a, b, i[1]);
    s.pull(b, a, i[0] + i[1] * d);
  }

  @Override
  double amps(double[] v, Moment m) {
    return solved(v, m.softness())[0];
  }

  @Override
  double power(double[] v, Moment m) {
    return -amps(v, m) * volts(v);
  }

  @Override
  double heat(double[] v, Moment m) {
    return 0; // it stands beside the board
  }

  @Override
  protected Element between(IntUnaryOperator to) {
    Supply s = new Supply(name, to.applyAsInt(a), to.applyAsInt(b), volts, limit, own);
    s.on = on;
    s.free = free;
    return s;
  }
}
