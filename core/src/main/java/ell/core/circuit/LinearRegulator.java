package ell.core.circuit;

import java.util.function.IntUnaryOperator;

/// A linear regulator: what it gives it takes from its input, which must be higher by its dropout.
/// Backwards it conducts as the diode of its pass element does, an element of its own.
final class LinearRegulator extends Regulating {
  private static final double ROUND_VOLTS = 1e-3;

  LinearRegulator(String name, int in, int out, int ground, int enable, Regulator law) {
    super(name, in, out, ground, enable, law);
  }

  /// Volts that it tries to hold, and how they follow the input and the enable.
  private double[] target(double[] v, Moment m) {
    double[] on = awake(v);
    double[] x = risen(on[0], m);
    double set = law.volts() * x[0];
    double above = at(v, in) - at(v, ground) - law.dropout();
    double round = ROUND_VOLTS + m.softness();
    double follows = Smooth.overSlope(set - above, round);
    double rises = (1 - follows) * law.volts() * x[1];
    return new double[] {
      set - Smooth.over(set - above, round), follows + rises * on[1], rises * on[2]
    };
  }

  @Override
  double held(double[] v, Moment m) {
    return target(v, m)[0];
  }

  @Override
  void stamp(Stamp s, double[] v, Moment m) {
    double[] t = target(v, m);
    double[] i = push(v, t[0], m.softness());
    double vin = at(v, in) - at(v, ground);
    double vout = at(v, out) - at(v, ground);
    double ven = at(v, enable()) - at(v, ground);
    double byIn = i[1] * t[1];
    double byEnable = i[3] + i[1] * t[2];
    s.control(in, out, in, ground, byIn);
    s.control(in, out, out, ground, i[2]);
    s.control(in, out, enable(), ground, byEnable);
    s.pull(in, out, i[0] - byIn * vin - i[2] * vout - byEnable * ven);
    double[] q = quiet(v);
    s.conduct(in, ground, q[1]);
    s.pull(in, ground, q[0] - q[1] * vin);
  }

  @Override
  double runs(double[] v) {
    return awake(v)[0];
  }

  @Override
  double amps(double[] v, Moment m) {
    return push(v, target(v, m)[0], m.softness())[0];
  }

  @Override
  double power(double[] v, Moment m) {
    return amps(v, m) * (at(v, in) - at(v, out)) + quiet(v)[0] * (at(v, in) - at(v, ground));
  }

  @Override
  protected Element between(IntUnaryOperator to) {
    return new LinearRegulator(
        name,
        to.applyAsInt(in),
        to.applyAsInt(out),
        to.applyAsInt(ground),
        to.applyAsInt(enable()),
        law);
  }
}
