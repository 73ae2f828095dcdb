package ell.core.circuit;

import java.util.function.IntUnaryOperator;

/// A switching regulator, averaged over its cycles: what it takes is what it gives, over its
/// efficiency. It starts at an input and goes on down to a little less.
final class SwitchingRegulator extends Regulating {
  /// A converter that runs goes on down to so much less than what starts it; typical, no source.
  private static final double HYSTERESIS = 0.1;

  /// Share of its own current that it draws while it waits; typical, no source.
  private static final double WAITS = 0.05;

  /// What has stopped starts again once its target has fallen to this share; typical, no source.
  private static final double AGAIN = 0.05;

  private static final int RUNS = 1;
  private static final double SOFT_INPUT = 1.5;

  SwitchingRegulator(String name, int in, int out, int ground, int enable, Regulator law) {
    super(name, in, out, ground, enable, law);
  }

  @Override
  double waits() {
    return WAITS * law.quiescent();
  }

  @Override
  double runs(double[] v) {
    return mode == RUNS ? 1 : 0;
  }

  @Override
  int next(double[] v, Moment m) {
    double vin = at(v, in) - at(v, ground);
    if (mode != RUNS && !m.still() && law.softStart() > 0 && m.base()[first] > AGAIN) {
      return 0;
    }
    double from = law.starts() * (mode == RUNS ? 1 - HYSTERESIS : 1);
    return vin >= from && on(v) > 0 ? RUNS : 0;
  }

  private double[] output(double[] v, Moment m) {
    return mode == RUNS ? push(v, held(v, m), m.softness()) : new double[4];
  }

  @Override
  double held(double[] v, Moment m) {
    return law.volts() * risen(1, m)[0];
  }

  @Override
  void stamp(Stamp s, double[] v, Moment m) {
    double vin = at(v, in) - at(v, ground);
    double vout = at(v, out) - at(v, ground);
    double ven = at(v, enable()) - at(v, ground);
    double[] i = output(v, m);
    s.control(ground, out, out, ground, i[2]);
    s.control(ground, out, enable(), ground, i[3]);
    s.pull(ground, out, i[0] - i[2] * vout - i[3] * ven);
    double[] took = took(v, i, m.softness());
    s.control(in, ground, in, ground, took[1]);
    s.control(in, ground, out, ground, took[2]);
    s.control(in, ground, enable(), ground, took[3]);
    s.pull(in, ground, took[0] - took[1] * vin - took[2] * vout - took[3] * ven);
  }

  /// Input current, by input, by output, by enable volts.
  private double[] took(double[] v, double[] i, double soft) {
    double vin = at(v, in) - at(v, ground);
    double vout = at(v, out) - at(v, ground);
    double[] q = quiet(v);
    double share = mode == RUNS ? 1 : WAITS;
    // on the way to a solution it takes a current rather than a power
    double low = (1 - soft) * Math.max(vin, AWAKE) + soft * SOFT_INPUT * law.starts();
    double held = Math.max(vout, 0);
    double scale = 1 / (law.efficiency() * low);
    double amps = held * i[0] * scale;
    return new double[] {
      amps + share * q[0],
      (vin > AWAKE ? -(1 - soft) * amps / low : 0) + share * q[1],
      ((vout > 0 ? i[0] : 0) + held * i[2]) * scale,
      held * i[3] * scale
    };
  }

  @Override
  double amps(double[] v, Moment m) {
    return output(v, m)[0];
  }

  @Override
  double power(double[] v, Moment m) {
    double[] i = output(v, m);
    return took(v, i, m.softness())[0] * (at(v, in) - at(v, ground))
        - i[0] * (at(v, out) - at(v, ground));
  }

  @Override
  protected Element between(IntUnaryOperator to) {
    return new SwitchingRegulator(
        name,
        to.applyAsInt(in),
        to.applyAsInt(out),
        to.applyAsInt(ground),
        to.applyAsInt(enable()),
        law);
  }
}
