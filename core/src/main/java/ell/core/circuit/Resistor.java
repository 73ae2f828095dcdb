package ell.core.circuit;

/// Ohm's law.
final class Resistor extends Element {
  private final int a;
  private final int b;
  private final double g;

  Resistor(String name, int a, int b, double ohms) {
    super(name);
    this.a = a;
    this.b = b;
    this.g = 1 / ohms;
  }

  @Override
  void stamp(Stamp s, double[] v, Moment m) {
    s.conduct(a, b, g);
  }

  @Override
  double amps(double[] v, Moment m) {
    return g * (at(v, a) - at(v, b));
  }

  @Override
  double power(double[] v, Moment m) {
    double d = at(v, a) - at(v, b);
    return g * d * d;
  }

  @Override
  double leads() {
    return g;
  }

  @Override
  int[] nodes() {
    return new int[] {a, b};
  }
}
