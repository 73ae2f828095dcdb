package ell.core.circuit;

import java.util.function.IntUnaryOperator;

/// What a chip draws: a steady current from a voltage on, less below it, and nothing below the
/// volts of a junction or two.
final class Load extends TwoEnds {
  /// Share of the least full volts at which it begins to draw; typical, no source.
  private static final double BEGINS = 0.25;

  private final double amps;
  private final double from;
  private final double full;

  /// @param full volts from which it draws all of it
  Load(String name, int plus, int minus, double amps, double full) {
    super(name, plus, minus);
    this.amps = amps;
    this.full = full;
    this.from = BEGINS * full;
  }

  /// Current and its slope; on the way to a solution it is a resistor in part.
  private double[] drawn(double d, double soft) {
    double x = (d - from) / (full - from);
    return new double[] {
      amps * ((1 - soft) * Smooth.step(x) + soft * d / full),
      amps * ((1 - soft) * Smooth.stepSlope(x) / (full - from) + soft / full)
    };
  }

  @Override
  void stamp(Stamp s, double[] v, Moment m) {
    double d = volts(v);
    double[] i = drawn(d, m.softness());
    s.conduct(a, b, i[1]);
    s.pull(a, b, i[0] - i[1] * d);
  }

  @Override
  double amps(double[] v, Moment m) {
    return drawn(volts(v), m.softness())[0];
  }

  @Override
  protected Element between(IntUnaryOperator to) {
    return new Load(name, to.applyAsInt(a), to.applyAsInt(b), amps, full);
  }
}
