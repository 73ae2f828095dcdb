package ell.core.circuit;

/// Ohm's law.
final class Resistor extends TwoEnds {
  private final double g;

  Resistor(String name, int a, int b, double ohms) {
    super(name, a, b);
    this.g = 1 / ohms;
  }

  @Override
  void stamp(Stamp s, double[] v, Moment m) {
    s.conduct(a, b, g);
  }

  @Override
  double amps(double[] v, Moment m) {
    return g * volts(v);
  }

  @Override
  double leads() {
    return g;
  }
}
