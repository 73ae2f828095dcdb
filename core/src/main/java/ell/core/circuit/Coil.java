package ell.core.circuit;

import java.util.function.IntUnaryOperator;

/// An inductance with the resistance of its wire. It remembers its flux. Its current grows with the
/// flux faster and faster: i = F / L (1 + (F / (L i_s))^2), so that at twice i_s half of F / i is
/// left.
final class Coil extends TwoEnds {
  private static final int ROUNDS = 50;

  private final double henries;
  private final double ohms;
  private final double full; // flux at which it has half of itself left, volt second

  /// @param ohms above 0
  /// @param saturates ampere; may be infinite
  Coil(String name, int a, int b, double henries, double ohms, double saturates) {
    super(name, a, b);
    this.henries = henries;
    this.ohms = ohms;
    this.full = henries * saturates;
  }

  private double current(double flux) {
    double share = flux / full;
    return flux / henries * (1 + share * share);
  }

  private double currentSlope(double flux) {
    double share = flux / full;
    return (1 + 3 * share * share) / henries;
  }

  /// The flux at some volts: what it was, and what they and its resistance change.
  private double flux(double volts, Moment m) {
    double was = m.base()[first];
    double flux = was;
    for (int i = 0; i < ROUNDS; i++) {
      double wrong = flux - was - m.slice() * (volts - ohms * current(flux));
      double step = wrong / (1 + m.slice() * ohms * currentSlope(flux));
      flux -= step;
      if (Math.abs(step) <= 1e-14 * Math.abs(flux) + 1e-30) {
        break;
      }
    }
    return flux;
  }

  @Override
  void stamp(Stamp s, double[] v, Moment m) {
    if (m.still()) {
      s.conduct(a, b, 1 / ohms);
      return;
    }
    double flux = flux(volts(v), m);
    double slope = currentSlope(flux);
    double g = m.slice() * slope / (1 + m.slice() * ohms * slope);
    s.conduct(a, b, g);
    s.pull(a, b, current(flux) - g * volts(v));
  }

  @Override
  double amps(double[] v, Moment m) {
    return m.still() ? volts(v) / ohms : current(flux(volts(v), m));
  }

  @Override
  double heat(double[] v, Moment m) {
    double i = amps(v, m);
    return i * i * ohms;
  }

  @Override
  double leads() {
    return 1 / ohms;
  }

  @Override
  int memory() {
    return 1;
  }

  @Override
  void slope(double[] v, Moment m, double[] out) {
    out[first] = volts(v) - ohms * amps(v, m);
  }

  @Override
  double small(int which) {
    return 1e-4 * henries; // of an ampere's flux
  }

  @Override
  protected Element between(IntUnaryOperator to) {
    return new Coil(name, to.applyAsInt(a), to.applyAsInt(b), henries, ohms, full / henries);
  }
}
