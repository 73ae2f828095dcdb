package ell.core.circuit;

import java.util.function.IntUnaryOperator;

/// A field-effect transistor by the square law, the same both ways. The diode of its body is an
/// element of its own.
final class FieldEffect extends Element {
  private static final double ROUND = 0.02;

  private final int drain;
  private final int gate;
  private final int source;
  private final double threshold;
  private final double gain;
  private final int sign; // -1 for a P channel

  /// @param gain ampere by square volt
  FieldEffect(
      String name, int drain, int gate, int source, double threshold, double gain, boolean p) {
    super(name);
    this.drain = drain;
    this.gate = gate;
    this.source = source;
    this.threshold = threshold;
    this.gain = gain;
    this.sign = p ? -1 : 1;
  }

  /// Drain current as an N channel, and its slopes by gate-source and by gate-drain volts. With the
  /// two overdrives a and b it is gain / 2 (a^2 - b^2), a and b not below 0.
  private double[] solved(double[] v) {
    double gs = sign * (at(v, gate) - at(v, source)) - threshold;
    double gd = sign * (at(v, gate) - at(v, drain)) - threshold;
    double a = Smooth.over(gs, ROUND);
    double b = Smooth.over(gd, ROUND);
    return new double[] {
      gain / 2 * (a * a - b * b),
      gain * a * Smooth.overSlope(gs, ROUND),
      -gain * b * Smooth.overSlope(gd, ROUND)
    };
  }

  @Override
  void stamp(Stamp s, double[] v, Moment m) {
    double[] i = solved(v);
    s.control(drain, source, gate, source, i[1]);
    s.control(drain, source, gate, drain, i[2]);
    double linear = i[1] * (at(v, gate) - at(v, source)) + i[2] * (at(v, gate) - at(v, drain));
    s.pull(drain, source, sign * i[0] - linear);
  }

  @Override
  double amps(double[] v, Moment m) {
    return sign * solved(v)[0];
  }

  @Override
  double power(double[] v, Moment m) {
    return amps(v, m) * (at(v, drain) - at(v, source));
  }

  @Override
  int[] nodes() {
    return new int[] {drain, gate, source};
  }

  @Override
  protected Element between(IntUnaryOperator to) {
    return new FieldEffect(
        name,
        to.applyAsInt(drain),
        to.applyAsInt(gate),
        to.applyAsInt(source),
        threshold,
        gain,
        sign < 0);
  }
}
